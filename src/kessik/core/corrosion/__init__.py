"""Corrosion: brine, soaks and their looks, rust from photographs, ratings and ranking."""

__all__ = [
    "agreement",
    "answer",
    "brine",
    "care",
    "course",
    "duties",
    "exposures",
    "fairness",
    "levels",
    "mass",
    "measuring",
    "methods",
    "phases",
    "photo",
    "places",
    "quick",
    "ranking",
    "ratings",
    "rounds",
    "soaks",
]
