"""Which stages are lost and whether a run is over: the same code runs live and on imported
series.
"""

import math
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal

import numpy as np

from kessik.core.protocols.joined_stages import asked_of, lost_together_at
from kessik.core.protocols.methods import Confirmation, Method, Stage, StopRule
from kessik.core.protocols.series import Check, by_count, judged, speaks_of

CHECKS_BEYOND_TO_END = 2


@dataclass(frozen=True)
class CheckGaps:
    """How often was checked: at how many counts, with the least and the greatest gap between
    them.
    """

    counts: int
    least: float = 0.0
    greatest: float = 0.0


@dataclass(frozen=True)
class ForceRule:
    """How readings met a force limit: two at one count, one that the next check confirms, one that
    nothing confirms, or none.
    """

    limit_gf: float
    met: Literal["pair", "next_check", "unconfirmed", "never"]


@dataclass(frozen=True)
class FailRule:
    """The first failed check, or none."""

    failed: bool


@dataclass(frozen=True)
class StageRule:
    """What loses a stage of the method."""

    stage: Stage
    method: Method


@dataclass(frozen=True)
class MeanRule:
    """The mean over the runs that met the rule of each."""

    met: int
    runs: int
    each: ForceRule | FailRule | StageRule


@dataclass(frozen=True)
class ByRule:
    """`value` in the unit of the counts, None when the rule was never met."""

    value: float | None
    rule: ForceRule | FailRule | StageRule | MeanRule
    gaps: CheckGaps

    @property
    def confirmed(self) -> bool:
        """Whether a force limit was passed twice."""
        return isinstance(self.rule, ForceRule) and self.rule.met in ("pair", "next_check")


@dataclass(frozen=True)
class Progress:
    """How far a run is: stages lost and at which count, what is checked now, and whether a stop
    rule is met.
    """

    lost: Mapping[str, float]
    asked: str
    met: bool
    confirmation_wanted: bool


def assess(
    checks: Sequence[Check], method: Method, count: float, beside: Sequence[Check] = ()
) -> Progress:
    """How far a run is after its unstruck checks in the worked zone; `count` is how far it was cut.

    Checks `beside` the zone decide no stage; they are among what a dose is read by.
    """
    lost: dict[str, float] = {}
    for stage in method.stages:
        at = lost_at(checks, stage, method)
        if at is not None:
            lost[stage.name] = at
    if any(rule.kind == "stages" for rule in method.ends):
        lost = _in_order(lost, method)
    everywhere = [*checks, *beside]
    met = any(_rule_met(rule, everywhere, method, lost, count) for rule in method.ends)
    asked = _asked(everywhere, method, lost, count)
    return Progress(lost, asked, met, not met and _confirmation_wanted(checks, method))


def assess_one_more(before: Progress, checks: Sequence[Check], method: Method) -> Progress | None:
    """How far a run is with one check more, the last of `checks` by count and time, from the last
    few checks alone.

    None where that cannot be told from them: a stage seems lost, a rule was met, or the count
    itself decides.
    """
    ruled = {rule.stage for rule in method.ends if rule.kind == "limit"}
    settled = (
        all(at < checks[-1].count for at in before.lost.values()) and not ruled & before.lost.keys()
    )
    standing = [stage for stage in method.stages if stage.name not in before.lost]
    joined = any(stage.also for stage in method.stages)
    if before.met or method.dose is not None or not settled or not standing or joined:
        return None
    tail = _last_groups(checks, {stage.check for stage in standing})
    if any(lost_at(tail, stage, method) is not None for stage in standing):
        return None
    return Progress(before.lost, before.asked, False, _confirmation_wanted(tail, method))


def _last_groups(checks: Sequence[Check], kinds: Collection[str]) -> Sequence[Check]:
    """The end of the checks that holds the last counts of every kind: what one check more can
    decide.
    """
    seen: dict[str, set[float]] = {kind: set() for kind in kinds}
    for index in range(len(checks) - 1, -1, -1):
        if checks[index].kind in seen:
            seen[checks[index].kind].add(checks[index].count)
        if all(len(counts) > CHECKS_BEYOND_TO_END for counts in seen.values()):
            return checks[index + 1 :]
    return checks


def lost_at(checks: Sequence[Check], stage: Stage, method: Method) -> float | None:
    """The count at which a stage was lost, confirmed as the method asks; None while it stands."""
    rule = next((r for r in method.ends if r.kind == "limit" and r.stage == stage.name), None)
    if stage.also:
        return lost_together_at(checks, stage, method)
    if stage.limit_gf is None:
        return _judged_lost_at(checks, stage, method, rule.confirm if rule else "none")
    force = _force(checks)
    if rule is not None and not force_limit_met(force, stage.limit_gf, rule.confirm):
        return None
    found = by_rule(force, stage.limit_gf)
    if found.confirmed or rule is None:
        return found.value if found.confirmed else None
    # the means of whole checks ended the run, though no single reading is confirmed by the plain
    # rule
    return _first_of_last_beyond(force, stage.limit_gf)


def force_limit_met(checks: Sequence[Check], limit_gf: float, confirm: Confirmation) -> bool:
    """Whether force checks ended beyond a limit, confirmed so."""
    if confirm == "next_check":
        return checks_beyond(checks, limit_gf) >= CHECKS_BEYOND_TO_END
    if confirm == "same_count":
        return pair_at_one_count(checks, limit_gf) is not None
    return checks_beyond(checks, limit_gf) >= 1


def _first_of_last_beyond(checks: Sequence[Check], limit_gf: float) -> float:
    counts = [count for count, _ in by_count(checks)]
    return counts[-max(checks_beyond(checks, limit_gf), 1)]


def _judged_lost_at(
    checks: Sequence[Check], stage: Stage, method: Method, confirm: Confirmation
) -> float | None:
    """A stage by pass and fail: a check is lost when all its tries are, and decided once they are
    all in.
    """
    own = [s for s in method.stages if s.check == stage.check and s.limit_gf is None]
    tries = method.readings(stage.check)
    said = [replace(c, outcome=judged(c, stage, own)) for c in checks if speaks_of(c, stage)]
    groups = [(count, [c.outcome == "fail" for c in group]) for count, group in by_count(said)]
    before = False
    for count, fails in groups:
        if confirm == "same_count":
            if any(first and second for first, second in pairwise(fails)):
                return count
            continue
        failed = len(fails) >= tries and all(fails)
        if failed and (confirm == "none" or before):
            return count
        before = failed
    return None


def _in_order(lost: Mapping[str, float], method: Method) -> dict[str, float]:
    """Stages are lost in order: one that seems lost before the one ahead of it waits for that."""
    kept: dict[str, float] = {}
    for stage in method.stages:
        if stage.name not in lost:
            break
        kept[stage.name] = lost[stage.name]
    return kept


def _rule_met(
    rule: StopRule, checks: Sequence[Check], method: Method, lost: Mapping[str, float], count: float
) -> bool:
    match rule.kind:
        case "limit":
            return rule.stage in lost
        case "stages":
            return all(stage.name in lost for stage in method.stages)
        case "dose":
            return (
                rule.amount is not None
                and count >= rule.amount
                and not _missing(checks, method, rule.amount)
            )
        case "cycles" | "tester":
            return False


def _missing(checks: Sequence[Check], method: Method, count: float) -> list[str]:
    """The kinds of check that still lack readings at a count or beyond."""
    return [
        spec.kind
        for spec in method.checks
        if sum(c.kind == spec.kind and c.count >= count for c in checks)
        < method.readings(spec.kind)
    ]


def _asked(checks: Sequence[Check], method: Method, lost: Mapping[str, float], count: float) -> str:
    """What to look at next: the stage that stands, or of a dose the first kind not yet looked at
    here.
    """
    standing = next((stage for stage in method.stages if stage.name not in lost), None)
    if standing is not None:
        return asked_of(checks, standing, method)[0] if standing.also else standing.check
    missing = _missing(checks, method, count)
    return missing[0] if missing else method.checks[0].kind


def _confirmation_wanted(checks: Sequence[Check], method: Method) -> bool:
    """Whether the last check alone passed a limit, so that one more at its count must confirm
    it.
    """
    for rule in method.ends:
        stage = next((s for s in method.stages if s.name == rule.stage), None)
        if rule.kind != "limit" or rule.confirm != "same_count" or stage is None or not checks:
            continue
        if stage.also:
            continue  # it is confirmed by the next check
        last = checks[-1]
        if stage.limit_gf is not None:
            return last.force_gf is not None and last.force_gf > stage.limit_gf
        own = [s for s in method.stages if s.check == stage.check]
        return speaks_of(last, stage) and judged(last, stage, own) == "fail"
    return False


def _force(checks: Sequence[Check]) -> list[Check]:
    return [check for check in checks if check.force_gf is not None]


def mean_force_gf(group: Sequence[Check]) -> float:
    """Mean reading of one check in gf, on the log scale."""
    logs = [math.log(check.force_gf) for check in group if check.force_gf is not None]
    return math.exp(math.fsum(logs) / len(logs))


def checks_beyond(checks: Sequence[Check], limit_gf: float) -> int:
    """How many checks in a row, up to the last one, have a mean reading above the limit."""
    run = 0
    for _, group in by_count(checks):
        run = run + 1 if mean_force_gf(group) > limit_gf else 0
    return run


def pair_at_one_count(checks: Sequence[Check], limit_gf: float) -> float | None:
    """The first count at which two readings in a row are above the limit; where two more were taken
    after them, the mean of the four must be, too.
    """
    for count, group in by_count(checks):
        pair = pair_of(group, limit_gf)
        if pair is None:
            continue
        four = group[pair : pair + 4]
        if len(four) < 4 or mean_force_gf(four) > limit_gf:
            return count
    return None


def pair_of(group: Sequence[Check], limit_gf: float) -> int | None:
    """Where in the readings of one count the first two in a row above the limit begin."""
    above = [check.force_gf is not None and check.force_gf > limit_gf for check in group]
    pairs = (i for i, (first, second) in enumerate(pairwise(above)) if first and second)
    return next(pairs, None)


def by_rule(checks: Sequence[Check], limit_gf: float) -> ByRule:
    """First check above the limit whose next reading at the same count is above it too; force
    checks, limit in gf.

    Where only one reading was taken at that count the next check stands in for it; where there is
    none either, the reading is given as not confirmed.
    """
    groups = [
        (n, [c.force_gf is not None and c.force_gf > limit_gf for c in group])
        for n, group in by_count(checks)
    ]
    gaps, paired = check_gaps(checks), pair_at_one_count(checks, limit_gf)
    for index, (count, above) in enumerate(groups):
        if count == paired:
            return ByRule(count, ForceRule(limit_gf, "pair"), gaps)
        if above == [True] and index + 1 == len(groups):
            return ByRule(count, ForceRule(limit_gf, "unconfirmed"), gaps)
        if above == [True] and groups[index + 1][1][0]:
            return ByRule(count, ForceRule(limit_gf, "next_check"), gaps)
    return ByRule(None, ForceRule(limit_gf, "never"), gaps)


def check_gaps(checks: Sequence[Check]) -> CheckGaps:
    """How often was checked, from the counts themselves."""
    counts = np.unique([check.count for check in checks])
    if counts.size < 2:
        return CheckGaps(int(counts.size))
    gaps = np.diff(counts)
    return CheckGaps(int(counts.size), float(gaps.min()), float(gaps.max()))
