"""The work of a step at the machine, line by line with its numbers."""
