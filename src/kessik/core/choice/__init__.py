"""Choice: which blade for a stated use, with what it costs to keep it sharp."""

__all__ = ["axes", "decision", "upkeep", "uses"]
