"""The bench: runs, their log, what is said beside it, and who listens."""
