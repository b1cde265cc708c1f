"""Stages that go by several checks: lost when any of them fails, or only when all of them do."""

from collections.abc import Iterable, Sequence

from kessik.core.protocols.methods import Method, Stage
from kessik.core.protocols.series import Check, joined_outcome

_SAME = 1e-9


def lost_together_at(checks: Sequence[Check], stage: Stage, method: Method) -> float | None:
    """The count at which a stage of several checks was lost; None while it stands. A check is
    failed once all its tries are, at one count.
    """
    rule = next((r for r in method.ends if r.kind == "limit" and r.stage == stage.name), None)
    needed = 2 if rule is not None and rule.confirm != "none" else 1
    in_row = 0
    for count in _counts(checks, stage):
        outcome = _outcome_at(checks, stage, method, count)
        if outcome is None:
            continue
        in_row = in_row + 1 if outcome == "fail" else 0
        if in_row >= needed:
            return count
    return None


def asked_of(checks: Sequence[Check], stage: Stage, method: Method) -> tuple[str, float]:
    """Which of a stage's checks comes next, and from which count on: the ones still missing where
    the first was made, unless that decided it; else the first.
    """
    counts = _counts(checks, stage)
    if not counts:
        return stage.check, 0.0
    here = counts[-1]
    if _outcome_at(checks, stage, method, here) is not None:
        return stage.check, here
    kinds = (_kind_at(checks, kind, method, here) for kind in stage.kinds)
    missing = (kind for kind, seen in zip(stage.kinds, kinds, strict=True) if seen is None)
    return next(missing, stage.check), here


def is_waiting(checks: Sequence[Check], stage: Stage, method: Method) -> bool:
    """Whether some check of a stage was made at the last count and another is missing there."""
    counts = _counts(checks, stage)
    return bool(counts) and _outcome_at(checks, stage, method, counts[-1]) is None


def _counts(checks: Iterable[Check], stage: Stage) -> list[float]:
    return sorted({c.count for c in checks if c.kind in stage.kinds and c.outcome})


def _outcome_at(checks: Sequence[Check], stage: Stage, method: Method, count: float) -> str | None:
    found = {kind: _kind_at(checks, kind, method, count) for kind in stage.kinds}
    return joined_outcome(stage, found)


def _kind_at(checks: Sequence[Check], kind: str, method: Method, count: float) -> str | None:
    """What the tries of one check come to at a count; None until they are all in."""
    said = [c.outcome for c in checks if c.kind == kind and abs(c.count - count) < _SAME]
    tries = [outcome for outcome in said if outcome is not None]
    if len(tries) < method.readings(kind):
        return None
    if all(outcome == "fail" for outcome in tries):
        return "fail"
    return "pass" if all(outcome == "pass" for outcome in tries) else "doubt"
