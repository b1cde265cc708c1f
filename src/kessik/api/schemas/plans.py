"""Plans over the wire."""

from dataclasses import asdict
from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Day, Finite, Id, LongText, Wire
from kessik.api.schemas.methods import MethodOut
from kessik.core.planning.budget import Budget, Pace
from kessik.core.planning.calendar import WorkKind
from kessik.core.planning.expected import ExpectedRun
from kessik.core.planning.order import OrderKind, Third
from kessik.core.planning.power import Detectable
from kessik.core.protocols.methods import ScheduleKind
from kessik.core.stock import StockUse
from kessik.core.trials.stock_needs import StockNeed
from kessik.core.trials.trial import Plan
from kessik.core.words.plans import basis_words, one_blade_words
from kessik.services.trials.plans import DatedWork, TrialPlan


class PaceBody(Wire):
    """How much each thing takes."""

    cut_s: Finite = 30.0
    reading_s: Finite = 25.0
    sharpening_min: Finite = 20.0
    advance_mm: Finite = 25.0
    offcut_m: Finite = 0.5
    line_mm: Finite = 120.0
    cuts_a_day: Annotated[int, Field(ge=-(2**53), le=2**53)] = 250

    @classmethod
    def of(cls, pace: Pace) -> "PaceBody":
        return cls(**asdict(pace))


class PlanBody(Wire):
    """What is planned of a trial."""

    edges_per_blade: Annotated[int, Bounded("edges_per_blade")] = 2
    expected_life: Finite | None = None
    wanted_percent: Finite = 20.0
    rope_left_m: Finite | None = None
    line_left_m: Finite | None = None
    pace: PaceBody = Field(default_factory=PaceBody)
    own_pace: bool = False
    order_kind: OrderKind = "latin_square"
    seed: Annotated[int, Bounded("seed")] = 1
    balance_zones: bool = False
    starts_on: Day = ""
    hours_a_day: Finite = 4.0
    medium_lot_id: Id | None = None
    check_lot_id: Id | None = None
    prediction: LongText = ""

    def to_core(self) -> Plan:
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
    life_from: str = Field(description="where the life planned with comes from")
    still_to_cut: int
    waits: bool


class ScheduleAheadOut(Wire):
    """One check schedule for a middling blade."""

    name: str
    kind: ScheduleKind
    every: float
    growth: float
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
    medium_m: float
    line_m: float
    tries: float
    hours: float
    sharpening_hours: float
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
    third: Third | None


class StockNeedOut(Wire):
    """What the plan takes of a lot it names, in the lot's unit."""

    use: StockUse
    lot_id: str
    lot: str
    unit: str
    needed: float
    left: float | None
    price: float | None
    currency: str

    @classmethod
    def of(cls, need: StockNeed) -> "StockNeedOut":
        lot = need.lot
        return cls(
            use=need.use,
            lot_id=lot.id,
            lot=lot.name,
            unit=lot.unit,
            needed=need.needed,
            left=need.left,
            price=need.price,
            currency=lot.currency,
        )


class StrokesOut(Wire):
    """What the sharpenings ahead ask of one abrasive."""

    abrasive: str
    strokes: int


class WorkOut(Wire):
    """A piece of work on its day."""

    on: str
    kind: WorkKind
    block: int
    blades: list[str]
    hours: float
    cuts: float

    @classmethod
    def of(cls, dated: DatedWork) -> "WorkOut":
        work = dated.work
        return cls(
            on=dated.on.isoformat(),
            kind=work.kind,
            block=work.block,
            blades=list(work.blades),
            hours=work.hours,
            cuts=work.cuts,
        )


class CoverBody(Wire):
    """Whether the blades are hidden behind codes; the seed draws the codes."""

    covered: bool
    seed: Annotated[int, Bounded("seed")] = 1


class TrialPlanOut(Wire):
    """A trial's plan as it stands; `codes` stand for blades while the trial is blind."""

    plan: PlanBody
    method: MethodOut
    is_blind: bool
    unblinded_utc: str | None
    codes: dict[str, str]
    sealed: str
    needs: list[StockNeedOut]
    strokes: list[StrokesOut]
    work: list[WorkOut]
    pace: PaceBody
    pace_learned: bool
    repeats_learned: int
    blades: list[BladeAheadOut]
    order: list[PlaceOut]
    cost: CostOut
    shows_percent: float | None
    by_edges: list[DetectableOut]
    edges_for_wanted: int | None
    one_blade: str = Field(description="what it saves that one blade carries all arms, in words")
    schedules: list[ScheduleAheadOut]
    shortfalls: list[str]

    @classmethod
    def of(cls, found: TrialPlan) -> "TrialPlanOut":
        blades = [
            BladeAheadOut(
                code=b.code,
                mark=b.mark,
                expected=ExpectedOut.of(b.expected),
                life_from=basis_words(b.starts_with),
                still_to_cut=b.still_to_cut,
                waits=b.waits,
            )
            for b in found.blades
        ]
        return cls(
            plan=PlanBody.of(found.trial.plan, found.trial.edges_per_blade),
            method=MethodOut.of(
                found.trial.method, found.trial.method_id, found.trial.method_number
            ),
            is_blind=found.trial.is_blind,
            unblinded_utc=found.trial.unblinded_utc,
            codes=dict(found.codes),
            sealed=found.sealed,
            strokes=[StrokesOut(abrasive=s.abrasive, strokes=s.strokes) for s in found.strokes],
            needs=[StockNeedOut.of(need) for need in found.needs],
            work=[WorkOut.of(work) for work in found.work],
            pace=PaceBody.of(found.pace),
            pace_learned=found.pace_learned,
            repeats_learned=found.repeats_learned,
            blades=blades,
            order=[PlaceOut(**asdict(place)) for place in found.order],
            cost=CostOut.of(found.cost),
            shows_percent=found.shows.percent if found.shows else None,
            by_edges=[DetectableOut.of(d) for d in found.by_edges],
            one_blade=one_blade_words(found.one_blade) if found.one_blade else "",
            edges_for_wanted=found.edges_for_wanted,
            schedules=[
                ScheduleAheadOut(
                    name=s.name,
                    kind=s.kind,
                    every=s.every,
                    growth=s.growth,
                    chosen=s.chosen,
                    expected=ExpectedOut.of(s.expected),
                )
                for s in found.schedules
            ],
            shortfalls=list(found.shortfalls),
        )
