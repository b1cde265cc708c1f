"""Whether blades differ, by how much, how sure that is and what the answer may speak of."""

__all__ = [
    "along",
    "analysis",
    "dose_outcomes",
    "efforts",
    "figures",
    "findings",
    "levels",
    "lives",
    "lot_factor",
    "matching",
    "ranking",
    "ratios",
    "remedies",
    "results",
    "scales",
    "stage_group",
    "sums",
    "variables",
    "verdict",
]
