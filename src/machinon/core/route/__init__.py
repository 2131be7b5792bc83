"""The route: set-ups and steps in order."""
