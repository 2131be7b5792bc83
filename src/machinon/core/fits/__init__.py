"""Fits: what each kind makes of the half that exists."""
