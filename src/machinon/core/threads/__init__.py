"""Screw threads: forms, limits, taps, screws, and how they are cut."""
