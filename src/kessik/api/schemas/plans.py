"""Plans over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Wire
from kessik.api.schemas.methods import MethodOut
from kessik.api.schemas.records import Answer, Body
from kessik.core.planning.budget import Budget, Pace
from kessik.core.planning.calendar import WorkKind
from kessik.core.planning.expected import ExpectedRun
from kessik.core.planning.order import Third
from kessik.core.stock import StockUse
from kessik.core.trials.trial import Plan
from kessik.services.trials.plans import ScheduleAhead, Strokes


class PaceBody(Body[Pace]):
    """How much each thing takes."""

    cuts_a_day: Annotated[int, Field(ge=-(2**53), le=2**53)] = 250


class PlanBody(Body[Plan]):
    """What is planned of a trial."""

    edges_per_blade: Annotated[int, Bounded("edges_per_blade")] = 2


class ExpectedOut(Answer[ExpectedRun], without="log_sd"):
    """One run ahead, as it is expected to go."""

    low: float
    high: float


class BladeAheadOut(Wire):
    """What is still to be cut on one blade."""

    code: str
    mark: int
    expected: ExpectedOut
    life_from: str = Field(description="where the life planned with comes from")
    still_to_cut: int
    waits: bool


class ScheduleAheadOut(Answer[ScheduleAhead]):
    """One check schedule for a middling blade, with the method that it would be."""

    name: str


class DetectableOut(Wire):
    """What so many edges a blade can show."""

    edges: int
    percent: float


class CostOut(Answer[Budget]):
    """What the plan costs."""


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


class StrokesOut(Answer[Strokes]):
    """What the sharpenings ahead ask of one abrasive."""


class WorkOut(Wire):
    """A piece of work on its day."""

    on: str
    kind: WorkKind
    block: int
    blades: list[str]
    hours: float
    cuts: float


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
    edge_spread_percent: float
    reading_scatter_percent: float
    by_edges: list[DetectableOut]
    edges_for_wanted: int | None
    one_blade: str = Field(description="what it saves that one blade carries all arms, in words")
    schedules: list[ScheduleAheadOut]
    shortfalls: list[str]
