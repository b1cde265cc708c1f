"""Lives by pass and fail: between the last pass and the first fail, and ordered stages share what
they prove.

A stage is lost before the next one in order: what still held at a count bounds the later stages
from below, and what was gone at a count bounds the earlier ones from above.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from kessik.core.protocols.series import WRITTEN, Check
from kessik.core.protocols.stop_rules import ByRule, FailRule, check_gaps
from kessik.core.sharpness.life import (
    AsWritten,
    BeforeFirstCheck,
    Bracketed,
    Found,
    Life,
    NotReached,
)


@dataclass(frozen=True)
class _Ends:
    """The last count at which a stage still held, and the first at which it was gone, where seen.

    A doubt, or a count at which both was seen, lies between them. `is_noted` where a pass of this
    very stage was written down, so that the gap of the checks adds nothing; `is_total` where one
    failing count is all there is, `is_written` where a paper record says so.
    """

    held: float | None
    gone: float | None
    first_look: float
    doubted: bool
    is_noted: bool
    is_total: bool
    is_written: bool


def outcome_lives(
    by_stage: Mapping[str, Sequence[Check]],
    order: Sequence[str],
    check_every: float | None = None,
    *,
    passes_noted: bool = False,
) -> dict[str, Life]:
    """The life at every stage that was looked at; `order` names the stages as they are lost.

    `check_every` is the gap of the checks where passes were not noted, in the unit of the counts.
    Where `passes_noted`, as at the bench or after a dose, a first look that fails bounds the life
    from above; in a record it is the total that somebody wrote down.
    """
    ends = {stage: _ends(checks) for stage, checks in by_stage.items()}
    in_order = [stage for stage in order if stage in ends]
    for earlier, later in pairwise(in_order):
        ends[later] = _held_longer(ends[later], ends[earlier].held)
    for earlier, later in reversed(list(pairwise(in_order))):
        ends[earlier] = _gone_sooner(ends[earlier], ends[later].gone)
    return {
        stage: Life(
            stage, _found(ends[stage], check_every, passes_noted), _by_rule(by_stage[stage])
        )
        for stage in by_stage
    }


def _ends(checks: Sequence[Check]) -> _Ends:
    passes = [check.count for check in checks if check.outcome == "pass"]
    fails = [check.count for check in checks if check.outcome == "fail"]
    first_look = min(check.count for check in checks)
    held = max((p for p in passes if not fails or p < min(fails)), default=None)
    gone = min((f for f in fails if not passes or f > max(passes)), default=None)
    doubted = any(check.outcome == "doubt" for check in checks)
    is_total = len(fails) == len(checks) and len(set(fails)) == 1 and first_look > 0
    is_written = is_total and all(check.kind == WRITTEN for check in checks)
    return _Ends(held, gone, first_look, doubted, held is not None, is_total, is_written)


def _held_longer(later: _Ends, held: float | None) -> _Ends:
    if held is None or (later.held is not None and later.held >= held):
        return later
    if later.gone is not None and held >= later.gone:
        return later  # the two contradict each other: each stands by its own looks
    return replace(later, held=held)


def _gone_sooner(earlier: _Ends, gone: float | None) -> _Ends:
    if gone is None or (earlier.gone is not None and earlier.gone <= gone):
        return earlier
    if earlier.held is not None and earlier.held >= gone:
        return earlier
    return replace(earlier, gone=gone)


def _found(ends: _Ends, check_every: float | None, passes_noted: bool) -> Found:
    if ends.gone is None:
        return NotReached(ends.held or 0.0)
    untold = ends.is_total and ends.held is None and not passes_noted
    if ends.gone == ends.first_look and (ends.is_written or untold):
        return AsWritten(ends.gone, _gap(ends.gone, ends.held, check_every))
    if check_every is not None and not ends.is_noted:
        return Bracketed(max(ends.gone - check_every, ends.held or 0.0), ends.gone)
    if ends.held is not None:
        return Bracketed(ends.held, ends.gone)
    if ends.first_look < ends.gone:
        return Bracketed(0.0, ends.gone)
    return BeforeFirstCheck(ends.gone)


def _gap(gone: float, held: float | None, check_every: float | None) -> float | None:
    """The gap of the checks, no wider than from where an earlier stage still held."""
    return None if check_every is None else min(check_every, gone - (held or 0.0))


def _by_rule(checks: Sequence[Check]) -> ByRule:
    fails = [check.count for check in checks if check.outcome == "fail"]
    return ByRule(min(fails, default=None), FailRule(bool(fails)), check_gaps(checks))
