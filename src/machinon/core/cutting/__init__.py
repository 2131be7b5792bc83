"""Cutting: speeds, forces, times, and the coach at the dial."""
