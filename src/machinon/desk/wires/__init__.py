"""Devices at the desk: what they say, where it goes, how they are set up."""
