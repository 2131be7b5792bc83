"""The line that understands the trade."""
