"""Upkeep of a trial's blades: what the strop brings back, and whether the same light sharpening
still restores them.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.comparison.levels import log_life_of
from kessik.core.sharpening.regimes import total_strokes_per_side
from kessik.core.sharpening.rounds import Restoring, Round, still_restoring
from kessik.core.sharpening.strop_back import AbilityBack, StropBack, stones_due
from kessik.core.shelf.blades import Blade
from kessik.core.trials.state import TrialRun
from kessik.core.trials.strop_tests import abilities_back, strop_tests
from kessik.core.trials.verdict import Verdict


@dataclass(frozen=True)
class Stropped:
    """One strop-back of an edge: after which cutting of it (1 for the first), and what came
    back.
    """

    edge: int
    cutting: int
    found: StropBack


@dataclass(frozen=True)
class Stones:
    """Of one edge: which strop-back no longer did, counted from 1 (None where all of `times` did),
    to the keen limit (gf), else to half of its loss.
    """

    edge: int
    due: int | None
    times: int
    keen_gf: float | None


@dataclass(frozen=True)
class Upkeep:
    """What one blade asks for: rounds of sharpening with their judgement, strop-backs with when
    stones were due, and by edge what it did again by paper, hair or lamp.
    """

    blade: Blade
    rounds: tuple[Round, ...]
    restoring: Restoring | None
    strops: tuple[Stropped, ...]
    stones: tuple[Stones, ...]
    abilities: tuple[tuple[int, AbilityBack], ...] = ()


def upkeep(answer: Verdict) -> list[Upkeep]:
    """Blade by blade, those that were cut in rounds or stropped back."""
    found = []
    for blade in answer.blades:
        own = [r for r in answer.runs if r.blade.arm_id == blade.arm_id and not r.run.practice]
        rounds = _rounds(answer, own)
        strops = _strops(own)
        abilities = [(r.edge.number, back) for r in own for back in abilities_back(r.state)]
        if rounds or strops or abilities:
            judged = still_restoring(rounds) if rounds else None
            found.append(
                Upkeep(
                    blade,
                    tuple(rounds),
                    judged,
                    tuple(strops),
                    _stones(answer, strops),
                    tuple(abilities),
                )
            )
    return found


def _rounds(answer: Verdict, runs: Sequence[TrialRun]) -> list[Round]:
    results = {result.run.key: result for result in answer.analysis.runs}
    found = []
    for r in runs:
        result = results.get((r.blade.code, r.edge.number, r.run.number))
        if r.run.round is None or result is None or r.state.status != "stopped":
            continue
        known = result.lives.get(answer.stage)
        life = log_life_of(known.life.found) if known else None
        strokes = total_strokes_per_side(r.edge.steps) or None
        readings = result.start_readings
        start_sd = r.method.force_scatter / math.sqrt(readings) if readings else 0.0
        estimate, life_sd = (math.exp(life[0]), life[1]) if life else (None, 0.0)
        found.append(
            Round(
                r.run.round,
                result.start_gf,
                estimate,
                strokes,
                start_sd,
                life_sd,
                r.edge.minutes,
            )
        )
    return sorted(found, key=lambda each: each.number)


def _strops(runs: Sequence[TrialRun]) -> list[Stropped]:
    """Strop-backs edge by edge, each with how often the edge had been cut since the stones."""
    by_id = {r.run.id: r for r in runs}
    found = []
    for r in runs:
        tests = strop_tests(r.state, r.method)
        cutting, before = 1, r.run.after_strop_of
        while before is not None and before in by_id:
            cutting, before = cutting + 1, by_id[before].run.after_strop_of
        found += [Stropped(r.edge.number, cutting, test) for test in tests]
    return sorted(found, key=lambda each: (each.edge, each.cutting, each.found.strokes))


def _stones(answer: Verdict, strops: Sequence[Stropped]) -> tuple[Stones, ...]:
    """How many times the strop did before stones were due, by the last reading of each
    strop-back.
    """
    limits = answer.trial.method.limits_gf
    keen_gf = limits[0][1] if limits else None
    found = []
    for edge in dict.fromkeys(each.edge for each in strops):
        last = {each.cutting: each.found for each in strops if each.edge == edge}
        due = stones_due([last[cutting] for cutting in sorted(last)], keen_gf)
        found.append(Stones(edge, due, len(last), keen_gf))
    return tuple(found)
