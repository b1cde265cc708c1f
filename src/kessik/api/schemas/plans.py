"""Plans over the wire."""

from dataclasses import asdict
from typing import Literal

from pydantic import Field

from kessik.api.schemas.common import Finite, LongText, Wire
from kessik.core.planning.budget import Budget, Pace
from kessik.core.planning.expected import ExpectedRun
from kessik.core.planning.power import Detectable
from kessik.services.plans import TrialPlan
from kessik.store.records import Plan


class PaceBody(Wire):
    """How much each thing takes."""

    cut_s: Finite = 30.0
    reading_s: Finite = 25.0
    sharpening_min: Finite = 20.0
    advance_mm: Finite = 25.0
    offcut_m: Finite = 0.5
    line_mm: Finite = 120.0
    cuts_a_day: int = Field(default=250, ge=-1_000_000, le=1_000_000)

    @classmethod
    def of(cls, pace: Pace) -> "PaceBody":
        return cls(**asdict(pace))


class PlanBody(Wire):
    """What is planned of a trial."""

    edges_per_blade: int = Field(default=2, ge=1, le=100)
    expected_life: Finite | None = None
    wanted_percent: Finite = 20.0
    rope_left_m: Finite | None = None
    line_left_m: Finite | None = None
    pace: PaceBody = Field(default_factory=PaceBody)
    own_pace: bool = False
    order_kind: Literal["latin_square", "abba", "shuffle"] = "latin_square"
    seed: int = Field(default=1, ge=0, le=2**31)
    prediction: LongText = ""

    def record(self) -> Plan:
        plain = self.model_dump(exclude={"edges_per_blade", "pace"})
        return Plan(**plain, pace=Pace(**self.pace.model_dump()))

    @classmethod
    def of(cls, plan: Plan, edges_per_blade: int) -> "PlanBody":
        return cls(**asdict(plan), edges_per_blade=edges_per_blade)


class ExpectedOut(Wire):
    """One run ahead, as it is expected to go."""

    life: float
    cuts: float
    readings: float
    low: float
    high: float

    @classmethod
    def of(cls, run: ExpectedRun) -> "ExpectedOut":
        return cls(**{name: getattr(run, name) for name in cls.model_fields})


class BladeAheadOut(Wire):
    """What is still to be cut on one blade."""

    code: str
    mark: int
    expected: ExpectedOut
    learned: bool
    still_to_cut: int
    waits: bool


class ScheduleAheadOut(Wire):
    """One check schedule for a middling blade."""

    name: str
    chosen: bool
    expected: ExpectedOut


class DetectableOut(Wire):
    """What so many edges a blade can show."""

    edges: int
    percent: float

    @classmethod
    def of(cls, found: Detectable) -> "DetectableOut":
        return cls(edges=found.edges, percent=found.percent)


class CostOut(Wire):
    """What the plan costs."""

    runs: int
    cuts: float
    readings: float
    rope_m: float
    line_m: float
    hours: float
    days: int

    @classmethod
    def of(cls, cost: Budget) -> "CostOut":
        return cls(**asdict(cost))


class PlaceOut(Wire):
    """One run of the order."""

    block: int
    place: int
    blade: str
    edge: int


class TrialPlanOut(Wire):
    """A trial's plan as it stands."""

    plan: PlanBody
    pace: PaceBody
    pace_learned: bool
    repeats_learned: int
    blades: list[BladeAheadOut]
    order: list[PlaceOut]
    cost: CostOut
    shows_percent: float | None
    by_edges: list[DetectableOut]
    edges_for_wanted: int | None
    schedules: list[ScheduleAheadOut]
    shortfalls: list[str]

    @classmethod
    def of(cls, found: TrialPlan) -> "TrialPlanOut":
        blades = [
            BladeAheadOut(
                code=b.code,
                mark=b.mark,
                expected=ExpectedOut.of(b.expected),
                learned=b.learned,
                still_to_cut=b.still_to_cut,
                waits=b.waits,
            )
            for b in found.blades
        ]
        return cls(
            plan=PlanBody.of(found.trial.plan, found.trial.edges_per_blade),
            pace=PaceBody.of(found.pace),
            pace_learned=found.pace_learned,
            repeats_learned=found.repeats_learned,
            blades=blades,
            order=[PlaceOut(**asdict(place)) for place in found.order],
            cost=CostOut.of(found.cost),
            shows_percent=found.shows.percent if found.shows else None,
            by_edges=[DetectableOut.of(d) for d in found.by_edges],
            edges_for_wanted=found.edges_for_wanted,
            schedules=[
                ScheduleAheadOut(name=s.name, chosen=s.chosen, expected=ExpectedOut.of(s.expected))
                for s in found.schedules
            ],
            shortfalls=list(found.shortfalls),
        )
