"""Facts in words."""

from kessik.core.facts import Expected


def expected_words(found: Expected) -> str:
    """A thickness that went stale, and what it should be by now."""
    stale = f"thickness went stale: measured on edge {found.from_edge} ({found.was_mm:.2f} mm),"
    if found.now_mm is None:
        return f"{stale} and how much steel went since is not known"
    return f"{stale} about {found.now_mm:.2f} mm expected now; measure it"
