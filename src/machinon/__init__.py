"""Machinon: the bench companion of a machinist who builds tooling."""

__version__ = "0.1.0"
