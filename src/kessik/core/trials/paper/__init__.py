"""Finished runs as a paper record has them, with the width that they deserve."""

__all__ = ["cells", "columns", "guessing", "heads", "lines", "placing", "sheets"]
