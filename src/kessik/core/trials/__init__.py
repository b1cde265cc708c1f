"""Trials: what is asked of which blades, how it stands, and what it answers."""

__all__ = [
    "arms",
    "blade_facts",
    "blinding",
    "claims",
    "courses",
    "edges_that_count",
    "exclusion_preview",
    "next_step",
    "paper",
    "performance",
    "points",
    "run_admission",
    "run_series",
    "shortfalls",
    "state",
    "stock_needs",
    "strop_tests",
    "trial",
    "upkeep",
    "verdict",
]
