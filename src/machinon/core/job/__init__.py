"""A job: what is decided and recorded, and everything that follows from it."""
