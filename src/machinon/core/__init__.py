"""The trade: quantities, standards, reckonings, fits, pieces, routes, coach."""
