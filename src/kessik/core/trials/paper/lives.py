"""Lives as a line has them: each stage from the first cut on, and whether they stand together."""

from collections.abc import Mapping, Sequence
from itertools import pairwise

from kessik.core.errors import OutOfRangeError
from kessik.core.protocols.methods import Method
from kessik.core.trials.paper.cells import WrittenLife
from kessik.core.trials.paper.columns import CHECK_EVERY, TOTAL, adds_up

_ROUNDING = 1e-6


def lives_of(
    written: Mapping[str, WrittenLife], method: Method, every: float | None, rounding: float = 0.0
) -> dict[str, WrittenLife]:
    """The life at every stage from the first cut on; a length that begins inside a bracket is as
    wide as both. Parts may miss their total by `rounding`.
    """
    if not adds_up(method):
        return dict(written)
    first, second = method.stages[0].name, method.stages[1].name
    total, fine, working = (written.get(key) for key in (TOTAL, first, second))
    found = {first: fine} if fine else {}
    if fine and working:
        if fine.held is not None and working.held is None and working.gone and every:
            working = WrittenLife(max(working.gone - every, 0.0), working.gone)
        whole = working.after(fine)
        _check_total(total, whole, (first, fine), (second, working), rounding)
        return {**found, second: whole if rounding else total or whole}
    if working and not fine and not total:
        raise OutOfRangeError(
            f"{second} is the length after {first} was gone: write {first}, too, or the total",
            field=second,
        )
    if total and fine and total.latest < fine.latest - _ROUNDING:
        raise OutOfRangeError(
            f"the total, {total.latest:g}, is smaller than its part {first}, {fine.latest:g}",
            field=TOTAL,
        )
    if total and working and working.latest > total.latest + _ROUNDING:
        raise OutOfRangeError(
            f"the total, {total.latest:g}, is smaller than its part {second}, {working.latest:g}",
            field=TOTAL,
        )
    if total and working and working.gone and total.gone:
        found[first] = WrittenLife(None, total.gone - working.gone)
    return {**found, second: total} if total else found


def _check_total(
    total: WrittenLife | None,
    whole: WrittenLife,
    first: tuple[str, WrittenLife],
    second: tuple[str, WrittenLife],
    rounding: float,
) -> None:
    may_miss = rounding + _ROUNDING * max(whole.latest, 1.0)
    if total is None or abs(total.latest - whole.latest) <= may_miss:
        return
    parts = f"{first[0]} {first[1].latest:g} and {second[0]} {second[1].latest:g}"
    raise OutOfRangeError(
        f"{parts} make {whole.latest:g}, and the total says {total.latest:g}: one of the three"
        " is wrong",
        field=TOTAL,
    )


def check_order(lives: Mapping[str, WrittenLife]) -> None:
    """Stages are lost in their order."""
    told: Sequence[tuple[str, WrittenLife]] = list(lives.items())
    for (earlier, one), (later, other) in pairwise(told):
        sooner = one.held if one.held is not None else one.gone
        if other.gone is not None and sooner is not None and other.gone < sooner - _ROUNDING:
            raise OutOfRangeError(
                f"{later} is gone at {other.gone:g}, before {earlier} at {sooner:g}: an edge loses"
                f" {earlier} first",
                field=later,
            )


def check_gap(lives: Mapping[str, WrittenLife], every: float | None) -> None:
    """Refuse a gap of checks that is longer than the life it is the gap of."""
    bare = [life.gone for life in lives.values() if life.held is None and life.gone is not None]
    if every is not None and bare and every > max(bare) + _ROUNDING:
        raise OutOfRangeError(
            f"a gap of {every:g} between checks is longer than the whole run, {max(bare):g}",
            field=CHECK_EVERY,
        )
