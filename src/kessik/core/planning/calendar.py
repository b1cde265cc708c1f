"""A plan as dated work: edges prepared, blocks cut at the hand's limit a day, the repeat to
verify.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.planning.budget import SECONDS_AN_HOUR, Pace, seconds
from kessik.core.planning.expected import ExpectedRun
from kessik.core.planning.order import Place
from kessik.core.protocols.methods import Method

WorkKind = Literal["prepare", "cut", "verify"]


@dataclass(frozen=True)
class Work:
    """One piece of work, `day` days after the first, its hours, and the blades it takes, in their
    order.
    """

    day: int
    kind: WorkKind
    block: int
    blades: tuple[str, ...]
    hours: float
    cuts: float


def dated_work(
    order: Sequence[Place],
    expected: Mapping[str, ExpectedRun],
    done: Mapping[str, int],
    method: Method,
    pace: Pace,
    hours_a_day: float,
) -> list[Work]:
    """Spread what is still to cut over days: no day beyond the hours or the cuts for one hand, no
    block begun late.

    `done` is how many edges of a blade were cut already. Edges of a block are prepared before it is
    cut, on the same day where the hours allow. Work after the first block verifies it, and is named
    so. A run longer than a day stands alone on its day.
    """
    found: list[Work] = []
    day, hours, cuts = 0, 0.0, 0.0

    def put(kind: WorkKind, block: int, blade: str, took: float, cut: float) -> None:
        nonlocal day, hours, cuts
        if hours > 0 and (hours + took > hours_a_day + 1e-9 or cuts + cut > pace.cuts_a_day + 1e-9):
            day, hours, cuts = day + 1, 0.0, 0.0
        hours, cuts = hours + took, cuts + cut
        last = found[-1] if found else None
        if last is not None and (last.day, last.kind, last.block) == (day, kind, block):
            found[-1] = Work(
                day, kind, block, (*last.blades, blade), last.hours + took, last.cuts + cut
            )
        else:
            found.append(Work(day, kind, block, (blade,), took, cut))

    for block in sorted({place.block for place in order}):
        places = [p for p in order if p.block == block and p.edge > done.get(p.blade, 0)]
        for place in places:
            put("prepare", block, place.blade, pace.sharpening_min / 60.0, 0.0)
        for place in places:
            run = expected[place.blade]
            took = seconds(run, method, pace) / SECONDS_AN_HOUR
            put(
                "cut" if block == 1 else "verify", block, place.blade, took, run.cuts / method.piece
            )
    return found
