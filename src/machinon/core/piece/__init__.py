"""The piece to be made."""
