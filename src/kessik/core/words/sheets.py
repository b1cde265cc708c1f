"""Sheets of results, in words."""

from collections.abc import Mapping, Sequence

_NO_RESULT = frozenset({"blade", "edge", "note", "block", "verifies", "check_every"})


def doubled_head_words(head: str) -> str:
    """That two columns have one head."""
    return f"Two columns are called “{head}”: the first is read, the other saved as a note."


def facts_on_shelf_words(codes: Sequence[str]) -> str:
    """That what a sheet says of blades changes nothing of those on the shelf; empty without any."""
    if not codes:
        return ""
    return f"Steel, hardness and angle of {', '.join(codes)} stay as they are on the shelf."


def line_words(cells: Mapping[str, str], readings: int) -> str:
    """What a run of a sheet holds: how many readings, or what its cells say."""
    if readings:
        return f"{readings} readings"
    return ", ".join(f"{key} {text}" for key, text in cells.items() if key not in _NO_RESULT)
