"""Blades in the order of their lives, who ties with whom, and who spoils every pair."""

from collections.abc import Sequence

from kessik.core.comparison.analysis import BladeResult, TrialAnalysis
from kessik.core.comparison.verdict import Comparison
from kessik.core.protocols.series import FIRST_LOST
from kessik.core.sharpness.life import BeforeFirstCheck, Found, NotReached, span_of


def confounded_blades(pairs: Sequence[Comparison]) -> list[str]:
    """Blades that spoil every pair they are in, where others compare fairly; of two blades neither
    is blamed.
    """
    codes = list(dict.fromkeys(code for c in pairs for code in (c.a, c.b)))
    if all(c.verdict == "confounded" for c in pairs):
        return []
    return [
        code
        for code in codes
        if all(c.verdict == "confounded" for c in pairs if code in (c.a, c.b))
    ]


def main_stage(analysis: TrialAnalysis) -> str:
    """The stage an answer is about first: the method's own, else the first deformation where the
    apex was looked at, else the last that any run has a life at.
    """
    stages = list(dict.fromkeys(stage for run in analysis.runs for stage in run.lives))
    named = analysis.method.main_stage or ""
    if not stages and any(run.figures for run in analysis.runs):
        return ""
    if named in stages or not stages:
        return named
    return FIRST_LOST if FIRST_LOST in stages else stages[-1]


def ranked(analysis: TrialAnalysis, stage: str) -> list[BladeResult]:
    """Blades that have a life at the stage, longest first."""
    return sorted(
        (b for b in analysis.blades if stage in b.lives),
        key=lambda b: -_middle(b.lives[stage].found) * b.length_factor,
    )


def _middle(found: Found) -> float:
    match found:
        case NotReached(last_good, ahead):
            return ahead.estimate if ahead else last_good
        case BeforeFirstCheck():
            return 0.0
    return span_of(found).middle or 0.0


def tie_groups(analysis: TrialAnalysis, stage: str) -> list[list[str]]:
    """Neighbours in the ranking whose every pair is unsettled or too close to matter, longest
    first.
    """
    level = {
        frozenset((c.a, c.b))
        for c in analysis.comparisons
        if c.stage == stage and c.verdict in ("too_close", "not_enough_evidence")
    }
    order = [blade.blade for blade in ranked(analysis, stage)]
    groups: list[list[str]] = []
    for start in range(len(order)):
        end = start + 1
        while end < len(order) and all(
            frozenset((order[i], order[end])) in level for i in range(start, end)
        ):
            end += 1
        group = order[start:end]
        if len(group) > 1 and not any(set(group) <= set(known) for known in groups):
            groups.append(group)
    return groups
