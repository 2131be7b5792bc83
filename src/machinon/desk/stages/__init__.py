"""The six stages of a job, one view each."""
