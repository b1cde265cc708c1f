"""Trainers: rounds whose truth is known, how answers are judged, and what scores teach."""

__all__ = ["rounds", "scores"]
