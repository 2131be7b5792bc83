"""Practice on the simulated lathe."""
