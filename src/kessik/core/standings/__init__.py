"""Standings: all trials as one network, where each blade stands in it, and what to cut next."""

__all__ = [
    "answer",
    "board",
    "comparable",
    "consistency",
    "doubt",
    "groups",
    "network",
    "next_cut",
    "records",
    "references",
    "testers",
]
