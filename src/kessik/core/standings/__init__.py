"""Standings: all trials as one network, where each blade stands in it, and what to cut next."""

__all__ = [
    "answer",
    "board",
    "comparable",
    "doubt",
    "groups",
    "network",
    "next_cut",
    "records",
    "references",
    "testers",
]
