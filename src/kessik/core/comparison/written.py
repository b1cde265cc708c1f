"""Totals that a record wrote down without the gap of its checks: how wide each is taken to be."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from statistics import median

from kessik.core.comparison.findings import WidthAssumed
from kessik.core.comparison.results import RunResult
from kessik.core.sharpness.life import AsWritten, Bracketed, Found, RunLife

USUAL_WIDTH = 0.10
"""Share of a life that its checks left open, where nobody knows: common practice, no source."""


def with_widths(results: Sequence[RunResult]) -> tuple[list[RunResult], list[WidthAssumed]]:
    """The results with a width for every bare total, and what was assumed.

    The width is the median of what the checks of the trial's other runs left open at that stage,
    as a share of the life; `USUAL_WIDTH` where no other run tells.
    """
    bare = [
        (r.run.key, stage) for r in results for stage, known in r.lives.items() if _is_bare(known)
    ]
    shown = {stage: _usual_share(results, stage) for stage in dict.fromkeys(s for _, s in bare)}
    shares = {stage: share or USUAL_WIDTH for stage, share in shown.items()}
    notes = []
    for from_runs in (True, False):
        stages = [stage for stage, share in shown.items() if (share is not None) == from_runs]
        runs = {key for key, stage in bare if stage in stages}
        if stages:
            widths = tuple((stage, 100.0 * shares[stage]) for stage in stages)
            notes.append(WidthAssumed(len(runs), widths, from_runs))
    return [_resolved(result, shares) for result in results], notes


def _is_bare(known: RunLife) -> bool:
    found = known.life.found
    return isinstance(found, AsWritten) and found.gap is None


def _usual_share(results: Sequence[RunResult], stage: str) -> float | None:
    found = (r.lives[stage].life.found for r in results if stage in r.lives)
    shares = [share for each in found if (share := _share_left_open(each)) is not None]
    return median(shares) if shares else None


def _share_left_open(found: Found) -> float | None:
    match found:
        case Bracketed(last_pass, first_fail) if last_pass > 0:
            return (first_fail - last_pass) / first_fail
        case AsWritten(at, gap) if gap is not None:
            return gap / at
    return None


def _resolved(result: RunResult, shares: Mapping[str, float]) -> RunResult:
    lives = {
        stage: _widened(known, shares[stage]) if _is_bare(known) else known
        for stage, known in result.lives.items()
    }
    return replace(result, lives=lives)


def _widened(known: RunLife, share: float) -> RunLife:
    found = known.life.found
    assert isinstance(found, AsWritten)
    wide = replace(found, gap=share * found.at, is_assumed=True)
    return replace(known, life=replace(known.life, found=wide))
