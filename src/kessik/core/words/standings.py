"""Standings in words: lives beside a reference, places, and trials that disagree."""

from collections.abc import Sequence

from kessik.core.standings.doubt import NetworkCell
from kessik.core.standings.network import Network
from kessik.core.units import format_interval, format_to_uncertainty

_NTH = {1: "st", 2: "nd", 3: "rd"}


def ratio_words(ratio: float | None, low: float | None, high: float | None) -> str:
    """A life as a multiple of the reference's: 1.24 ×, 1.1 to 1.4."""
    if ratio is not None and low is not None and high is not None:
        if low == high:
            return "1 ×"
        return f"{format_to_uncertainty(ratio, low, high)} ×, {format_interval(low, high)}"
    if low is not None:
        return f"at least {low:.2g} ×"
    return f"at most {high:.2g} ×" if high is not None else "not known"


def nth(place: int) -> str:
    """1st, 2nd, 3rd, 11th."""
    is_teen = place % 100 in (11, 12, 13)
    return f"{place}{'th' if is_teen else _NTH.get(place % 10, 'th')}"


def place_words(best: int, worst: int, of: int | None = None) -> str:
    """4th to 6th of 23."""
    span = nth(best) if best == worst else f"{nth(best)} to {nth(worst)}"
    return span if of is None else f"{span} of {of}"


def doubt_sentence(network: Network, cell: NetworkCell) -> str:
    """Which trial disagrees with all others, by which blade, and by how much."""
    trial, arm = network.trials[cell.trial], network.arms[cell.arm]
    size = _times(cell.factor)
    rivals = [network.arms[other] for other in cell.or_else]
    blade = arm if not rivals else f"{arm} or {_either(rivals)}"
    return f"{trial}: {blade} lasted {size} as long as all other trials say of it."


def _times(factor: float) -> str:
    return f"{factor:.1f} times" if factor >= 1 else f"{100 * factor:.0f} % of"


def _either(names: Sequence[str]) -> str:
    return " or ".join(names)
