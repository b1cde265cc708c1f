"""Lives and sizes in words: every number with the digits that its interval supports."""

from kessik.core.sharpness.life import (
    AsWritten,
    BeforeFirstCheck,
    Bracketed,
    Crossed,
    Found,
    Life,
    NotReached,
)
from kessik.core.units import format_interval, format_to_uncertainty


def scaled_words(life: Life, factor: float, length_mm: float, count_unit: str) -> str:
    """A life put on one edge length, to stand beside the life as counted; empty where it is on that
    length already.
    """
    if abs(factor - 1.0) < 1e-9 or not isinstance(life.found, Crossed):
        return ""
    found = life.found
    scaled = Crossed(found.estimate * factor, found.low * factor, found.high * factor)
    return f"{life_words(scaled, count_unit)} on {length_mm:g} mm of edge"


def life_words(found: Found, unit: str) -> str:
    """One life in words, for every status."""
    match found:
        case Crossed(estimate, low, high):
            return (
                f"{format_to_uncertainty(estimate, low, high)} {unit}, {format_interval(low, high)}"
            )
        case Bracketed(last_pass, first_fail):
            return f"between {last_pass:g} and {first_fail:g} {unit}"
        case AsWritten(total, gap, is_assumed):
            ends = f", so between {found.low:g} and {total:g}" if gap and not is_assumed else ""
            return f"{total:g} {unit} as written{ends}"
        case NotReached(last_good, None):
            at = f"{last_good:g} {unit}" if last_good else "the start"
            return f"still good at {at}; the end is not known"
        case NotReached(last_good, ahead):
            assert ahead is not None
            low, high = ahead.low, ahead.high
            span = format_interval(low, high)
            return (
                f"not reached by {last_good:g} {unit}; carried on, about"
                f" {format_to_uncertainty(ahead.estimate, low, high)} ({span})"
            )
        case BeforeFirstCheck(first_check):
            return (
                "was beyond the limit at its start"
                if first_check == 0
                else f"lost by the first check at {first_check:g} {unit}; since when is not known"
            )
