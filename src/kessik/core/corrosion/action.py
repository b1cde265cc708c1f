"""Moving parts and handles of a knife after a soak, beside what they were before it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.exposures import exposure_of
from kessik.core.corrosion.soaks import Act, Look

Part = Literal["pivot", "lock", "handle"]
PARTS: tuple[Part, ...] = ("pivot", "lock", "handle")
PART_STATES: Mapping[Part, tuple[str, ...]] = {
    "pivot": ("free", "gritty", "stiff", "stuck"),
    "lock": ("firm", "sticky", "loose", "fails"),
    "handle": ("sound", "marked", "swollen", "cracked"),
}
"""What a part is called, the best first; common practice, no source. Other words are kept, too, and
have no order."""


@dataclass(frozen=True)
class PartChange:
    """One part of one knife: in words before and after, at so many hours of exposure; `steps` is by
    how many states it got worse, None where a word has no order or nothing was noted before.
    """

    coupon_id: str
    part: Part
    before: str
    after: str
    after_h: float
    steps: int | None


def part_changes(looks: Sequence[Look], acts: Sequence[Act]) -> tuple[PartChange, ...]:
    """Every part that was noted, of each coupon: the first note is how it was before, where it was
    made before any exposure, and the last one how it is.
    """
    notes: dict[tuple[Part, str], list[tuple[float, str]]] = {}
    for look in sorted(looks, key=lambda each: each.clock_h):
        for part in PARTS:
            said = str(getattr(look, part)).strip()
            if said and not look.struck:
                own = notes.setdefault((part, look.coupon_id), [])
                own.append((exposure_of(look, acts), said))
    return tuple(_change(part, coupon_id, own) for (part, coupon_id), own in notes.items())


_BEFORE_H = 0.5
"""Notes made so early in a soak still tell how a knife was before it."""


def _change(part: Part, coupon_id: str, notes: Sequence[tuple[float, str]]) -> PartChange:
    first_h, first = notes[0]
    after_h, after = notes[-1]
    before = first if first_h <= _BEFORE_H else ""
    return PartChange(coupon_id, part, before, after, after_h, _steps(part, before, after))


def _steps(part: Part, before: str, after: str) -> int | None:
    states = PART_STATES[part]
    one, other = before.casefold(), after.casefold()
    if one not in states or other not in states:
        return None
    return states.index(other) - states.index(one)
