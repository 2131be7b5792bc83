"""Drawings as plain data: lines, arcs, hatches, dimensions tied to surfaces."""
