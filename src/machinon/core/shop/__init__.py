"""The shop: its pieces, instruments, machines and shelves."""
