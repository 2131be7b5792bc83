"""Sizes: limits and fits of the standards, likely nominals, the play wanted."""
