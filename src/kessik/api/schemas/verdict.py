"""Verdicts and Today over the wire."""

from typing import Literal

from kessik.api.schemas.common import Wire
from kessik.api.schemas.shelf import BladeOut
from kessik.api.schemas.trials import CellOut, NextStepOut, RunBrief, TrialOut


class ByRuleOut(Wire):
    """What the plain stop rule gives."""

    value: float | None
    rule: str
    schedule: str


class LifeOut(Wire):
    """A life: estimate, bounds, status; in the run's count unit, and in words."""

    estimate: float | None
    low: float | None
    high: float | None
    status: Literal["crossed", "bracketed", "not_reached", "before_first_check"]
    extrapolated: bool = False
    by_rule: ByRuleOut
    words: str


class BandOut(Wire):
    """A run's curve: median and 95 % band."""

    counts: list[float]
    middle_gf: list[float]
    low_gf: list[float]
    high_gf: list[float]


class ReadingOut(Wire):
    """One reading, struck ones included."""

    count: float
    force_gf: float
    struck: bool


class RunVerdictOut(Wire):
    """A run in the verdict."""

    run: RunBrief
    blade: str
    mark: int
    readings: list[ReadingOut]
    start_gf: float | None
    end_gf: float | None
    change_percent: float | None
    lives: dict[str, LifeOut]
    warnings: list[str]
    band: BandOut | None


class BladeVerdictOut(Wire):
    """A blade on the ladder."""

    blade: str
    mark: int
    grade: str | None
    edges: int
    count_unit: str
    lives: dict[str, LifeOut]
    spread_percent: float | None
    ranked: bool


class ComparisonOut(Wire):
    """A pair judged."""

    a: str
    b: str
    stage: str
    ratio: float
    low: float
    high: float
    verdict: Literal["longer", "shorter", "too_close", "not_enough_evidence", "confounded"]
    scope: str
    pending: list[str]
    reasons: list[str]
    edges_to_settle: int | None
    words: str


class VerdictOut(Wire):
    """A trial's answer."""

    trial: TrialOut
    blades: list[BladeOut]
    stage: str
    stages: list[str]
    headline: str
    standing: str
    pending: list[str]
    notes: list[str]
    runs: list[RunVerdictOut]
    ladder: list[BladeVerdictOut]
    tie_groups: list[list[str]]
    comparisons: list[ComparisonOut]
    cells: list[CellOut]
    left_out: list[str]
    with_all: str
    prediction: str
    taken_as_equal: list[str]
    let_go: list[str]
    next_step: NextStepOut


class TrialTodayOut(Wire):
    """A trial at the front door."""

    trial: TrialOut
    blades: list[BladeOut]
    headline: str
    standing: str
    runs: list[RunBrief]
    lives: dict[str, LifeOut]
    next_step: NextStepOut


class TodayOut(Wire):
    """The front door."""

    trials: list[TrialTodayOut]
    due: list["DueOut"]


class DueOut(Wire):
    """Something that waits: a loan to return, a hardness to find out."""

    kind: Literal["loan", "hardness"]
    says: str
    blade_id: str
    mark: int
    on: str
    overdue: bool


class ImportOut(Wire):
    """What an import made, and what its reader noticed."""

    trials: list[TrialOut]
    blades: list[str]
    notes: list[str]
