"""Lives of runs to a limit or through a pass/fail stage: an estimate with its interval, or a typed
reason why not.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from kessik.core.protocols.series import Check, RunSeries, by_count
from kessik.core.protocols.stop_rules import ByRule, by_rule, mean_force_gf
from kessik.core.sharpness.joint import LifeMass, life_masses, quantiles
from kessik.core.sharpness.posterior import EdgeLikelihood, ForceReadings, known_likelihood

Floats = NDArray[np.float64]

LifeStatus = Literal["crossed", "bracketed", "not_reached", "before_first_check"]
"""How a life is known, as files and the contract say it."""
_EXTRAPOLATION_WIDTH = 4.0
_EXTRAPOLATION_REACH = 3.0


@dataclass(frozen=True)
class Crossed:
    """The limit was crossed; estimate and 95 % interval in the unit of the counts."""

    estimate: float
    low: float
    high: float


@dataclass(frozen=True)
class Bracketed:
    """Pass/fail: still passed at `last_pass`, failed by `first_fail`."""

    last_pass: float
    first_fail: float


@dataclass(frozen=True)
class NotReached:
    """Not lost by the end of the run; `ahead` is an extrapolation where the curve supports one."""

    last_good: float
    ahead: Crossed | None = None


@dataclass(frozen=True)
class BeforeFirstCheck:
    """Already beyond the limit at the first check."""

    first_check: float


@dataclass(frozen=True)
class AsWritten:
    """A total that a record wrote down, `at` which the ability was gone; `gap` is that of its
    checks, or is taken to be where `is_assumed`; None before anything is assumed.
    """

    at: float
    gap: float | None = None
    is_assumed: bool = False

    @property
    def low(self) -> float:
        """The least that the life can be."""
        return max(self.at - (self.gap or 0.0), 0.0)


Found = Crossed | Bracketed | NotReached | BeforeFirstCheck | AsWritten


@dataclass(frozen=True)
class LifeSpan:
    """A life as numbers: from `low` to `high` (None where open), with the one that stands for it,
    None where nothing does.
    """

    low: float
    high: float | None
    middle: float | None

    def after(self, before: "LifeSpan") -> "LifeSpan":
        """What is left of it once what came before is taken off; the middles add up exactly."""
        low = max(self.low - before.high, 0.0) if before.high is not None else 0.0
        high = None if self.high is None else max(self.high - before.low, 0.0)
        if self.middle is None or before.middle is None:
            return LifeSpan(low, high, None)
        return LifeSpan(low, high, self.middle - before.middle)


def span_of(found: Found) -> LifeSpan:
    """A life as numbers: a written total stands for itself, a bracket for its middle."""
    match found:
        case Crossed(estimate, low, high):
            return LifeSpan(low, high, estimate)
        case Bracketed(low, high):
            return LifeSpan(low, high, 0.5 * (low + high))
        case AsWritten(at):
            return LifeSpan(found.low, at, at)
        case NotReached(last_good):
            return LifeSpan(last_good, None, None)
        case BeforeFirstCheck(first_check):
            return LifeSpan(0.0, first_check, 0.5 * first_check)


@dataclass(frozen=True)
class LifeFigures:
    """A life as files and the contract have it; `extrapolated` where its end was not reached and
    the curve was carried on.
    """

    estimate: float | None
    low: float
    high: float | None
    status: LifeStatus
    extrapolated: bool = False


def figures_of(found: Found) -> LifeFigures:
    """The figures of a life, in the unit of the counts; a bracket has no estimate."""
    match found:
        case Crossed(estimate, low, high):
            return LifeFigures(estimate, low, high, "crossed")
        case Bracketed(last_pass, first_fail):
            return LifeFigures(None, last_pass, first_fail, "bracketed")
        case AsWritten(at):
            return LifeFigures(at, found.low, at, "bracketed")
        case BeforeFirstCheck(first_check):
            return LifeFigures(None, 0.0, first_check, "before_first_check")
        case NotReached(last_good, ahead):
            if ahead is None:
                return LifeFigures(None, last_good, None, "not_reached")
            return LifeFigures(ahead.estimate, last_good, ahead.high, "not_reached", True)


@dataclass(frozen=True)
class Life:
    """How far one run went at one stage, with what the plain rule gives beside it."""

    stage: str
    found: Found
    by_rule: ByRule


@dataclass(frozen=True)
class RunLife:
    """A life with what a comparison needs of it: the likelihood, None where nothing but a bracket
    is known.
    """

    life: Life
    likelihood: EdgeLikelihood | None


def force_readings(run: RunSeries) -> ForceReadings:
    """Unstruck force readings of a run, in order of count."""
    checks = sorted(run.force_checks(), key=lambda check: check.count)
    return ForceReadings(
        np.array([check.count for check in checks], dtype=float),
        np.array([check.force_gf for check in checks], dtype=float),
    )


def force_lives(
    runs: Sequence[RunSeries], stage: str, limit_gf: float, studied: float | None = None
) -> list[RunLife | None]:
    """Lives of the runs of one blade to a force limit, fitted jointly; None for a run without force
    readings. `studied` is the scatter of one reading that a gauge study found, s.d. of ln.
    """
    plain: list[Found | None] = []
    likelihoods: list[EdgeLikelihood | None] = []
    for run in runs:
        checks = run.force_checks()
        found = _without_curve(checks, limit_gf)
        fitted = bool(checks) and found is None
        likely = known_likelihood(force_readings(run), limit_gf, studied) if fitted else None
        likelihoods.append(likely)
        plain.append(found)
    curves = [likelihood for likelihood in likelihoods if likelihood is not None]
    masses = iter(life_masses(curves)) if curves else iter(())
    lives: list[RunLife | None] = []
    for run, known, likelihood in zip(runs, plain, likelihoods, strict=True):
        checks = run.force_checks()
        if not checks:
            lives.append(None)
            continue
        rule = by_rule(checks, limit_gf)
        found = (
            _from_curve(checks, limit_gf, rule, likelihood, next(masses)) if likelihood else known
        )
        assert found is not None
        lives.append(RunLife(Life(stage, found, rule), likelihood))
    return lives


def _without_curve(checks: Sequence[Check], limit_gf: float) -> Found | None:
    """The answer where no curve can be fitted: dull from the first check on, or never cut."""
    groups = [(count, mean_force_gf(group)) for count, group in by_count(checks)]
    if not groups:
        return None
    beyond = [force > limit_gf for _, force in groups]
    if all(beyond[:2]):
        return BeforeFirstCheck(groups[0][0])
    if all(count == 0 for count, _ in groups):
        return NotReached(0.0)
    return None


def _from_curve(
    checks: Sequence[Check],
    limit_gf: float,
    rule: ByRule,
    likelihood: EdgeLikelihood,
    known: LifeMass,
) -> Found:
    low, median, high = _quantiles(likelihood, known.mass)
    mean = float(known.mass @ likelihood.log_life)
    middle = math.exp(0.5 * (math.log(median) + mean))
    last = max(check.count for check in checks)
    if rule.confirmed or middle <= last:
        least, _, most = _quantiles(likelihood, known.conservative)
        return Crossed(middle, min(least, middle), max(most, middle))
    good = [count for count, group in by_count(checks) if mean_force_gf(group) <= limit_gf]
    supported = high / low <= _EXTRAPOLATION_WIDTH and middle <= _EXTRAPOLATION_REACH * last
    return NotReached(max(good, default=0.0), Crossed(middle, low, high) if supported else None)


def _quantiles(likelihood: EdgeLikelihood, mass: Floats) -> tuple[float, float, float]:
    """The ends of the 95 % interval, with the median between them."""
    low, median, high = quantiles(likelihood.log_life, mass, (0.025, 0.5, 0.975))
    return float(low), float(median), float(high)
