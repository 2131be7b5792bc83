"""The acts of a person on the open job, by the stage in which they are done."""
