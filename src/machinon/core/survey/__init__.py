"""The survey: surfaces, what was read of them, and the sizes that follow."""
