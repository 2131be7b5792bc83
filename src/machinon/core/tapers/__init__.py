"""Tapers by name and rate, how they are set, and what rests on one."""
