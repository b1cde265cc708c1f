"""Where the runs of a paper record go: an edge is cut once on each stretch of it, and rounds follow
one another.
"""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from kessik.core.geometry import Zone
from kessik.core.sharpening.regimes import Step, total_strokes_per_side
from kessik.core.shelf.edges import Edge
from kessik.core.trials.paper.columns import ROUND, STROKES, ZONE
from kessik.core.trials.paper.lines import EntryError, PaperRun

AS_RECORDED = "as recorded"
"""The abrasive of a sharpening of which only strokes are known."""
Stretch = tuple[float, float] | None
"""A zone of an edge in mm from the heel; None for all of it."""


@dataclass(frozen=True)
class OnEdge:
    """A stretch of an edge that is taken: by a line of this number, or by a run from before."""

    stretch: Stretch
    line: int | None = None


def stretch_slips(
    run: PaperRun, whose: str, edge_length_mm: float | None, taken: Iterable[OnEdge]
) -> list[EntryError]:
    """What forbids a run on its stretch of an edge; `whose` names the edge: edge 3 of A."""
    if run.zone_mm is not None and edge_length_mm is not None and run.zone_mm[1] > edge_length_mm:
        says = f"the zone ends at {run.zone_mm[1]:g} mm, and the edge at {edge_length_mm:g} mm"
        return [EntryError(ZONE, says)]
    for other in taken:
        if not _overlap(run.zone_mm, other.stretch):
            continue
        if run.zone_mm is not None and other.stretch is not None:
            where = f"{other.stretch[0]:g} to {other.stretch[1]:g} mm of {whose}"
            by = f"are in line {other.line} already" if other.line else "have been cut already"
            return [EntryError(ZONE, f"{where} {by}; zones of one sharpening may not overlap")]
        if other.line is not None:
            says = f"{whose} is in line {other.line} already"
            return [EntryError("edge", f"{says}; two zones of it need their zones")]
        return [EntryError("edge", f"{whose} has been cut already, and an edge is cut once")]
    return []


def _overlap(one: Stretch, other: Stretch) -> bool:
    return one is None or other is None or Zone(*one).overlaps(Zone(*other))


@dataclass(frozen=True)
class PaperRound:
    """A round of an arm: its number where it is told, in which line; None for one from before."""

    arm_id: str
    code: str
    number: int | None
    line: int | None = None


def numbered_rounds(rounds: Sequence[PaperRound]) -> tuple[list[int], Mapping[int, EntryError]]:
    """The number of each round, the next of its arm where none was told; and by line what cannot
    be: a round twice, or one without a first.
    """
    known: dict[str, dict[int, int | None]] = {}
    numbers: list[int] = []
    slips: dict[int, EntryError] = {}
    for each in rounds:
        own = known.setdefault(each.arm_id, {})
        number = each.number or max(own, default=0) + 1
        numbers.append(number)
        if number in own and each.line is not None:
            stands = f"is in line {own[number]}" if own[number] else "was cut"
            slips[each.line] = EntryError(ROUND, f"round {number} of {each.code} {stands} already")
        own.setdefault(number, each.line)
    for each, number in zip(rounds, numbers, strict=True):
        if 1 not in known[each.arm_id] and each.line is not None:
            says = f"round {number} of {each.code} has no round 1: enter that, too"
            slips.setdefault(each.line, EntryError(ROUND, says))
    return numbers, slips


def sharpening_slips(run: PaperRun, edge: Edge, whose: str) -> list[EntryError]:
    """Strokes of a line for an edge that is recorded with others."""
    recorded = total_strokes_per_side(edge.steps)
    if not recorded or run.strokes in (None, recorded):
        return []
    told = f"{whose} is recorded with {recorded} strokes a side; correct them at the blade"
    return [EntryError(STROKES, told)]


def sharpened(edge: Edge, run: PaperRun) -> Edge:
    """An edge with what a line says of its sharpening, where nothing was recorded of that yet."""
    steps, minutes = edge.steps, edge.minutes
    if not steps and run.strokes is not None:
        steps = (Step(AS_RECORDED, strokes_per_side=run.strokes),)
    return replace(edge, steps=steps, minutes=run.minutes if minutes is None else minutes)
