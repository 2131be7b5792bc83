"""What is done at the machine in a step of the route, line by line with its numbers."""
