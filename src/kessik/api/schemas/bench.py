"""Runs and the bench log over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Id, Place, ShortText, Wire
from kessik.api.schemas.edges import DamageBody, StropBackOut, ZoneBody
from kessik.api.schemas.events import EventOut
from kessik.api.schemas.methods import MethodOut
from kessik.api.schemas.records import Answer
from kessik.api.schemas.trials import TrialOut
from kessik.core.planning.bench_card import RecipeStep
from kessik.core.protocols.pace import HandPace
from kessik.core.protocols.run_state import RunStatus
from kessik.services.bench.beside import StockLeft


class RunBody(Wire):
    """A run to start; `id` is made by the client."""

    id: Id
    edge_id: Id
    practice: bool = False
    practice_seed: Annotated[int, Bounded("seed")] | None = None
    zone_from_mm: Place | None = None
    zone_to_mm: Place | None = None
    operator: ShortText = ""
    verifies_run_id: Id | None = None
    block: Annotated[int, Bounded("run_number")] | None = None
    insist_on_lot: bool = False
    after_strop_of: Id | None = None


class CheckOut(Wire):
    """A check after all corrections, with the log position of its event."""

    event_id: str
    position: int
    count: float
    kind: str
    force_gf: float | None
    value: float | None
    outcome: str | None
    seen: str
    position_mm: float | None
    struck: bool


class PlanOut(Wire):
    """The check the tester was told to make next."""

    next_count: float
    readings: int
    why: str
    stage: str | None
    band_low: float | None
    band_high: float | None


class ProposalOut(Wire):
    """A cut of a device that does not hold the count; it waits to be accepted."""

    event_id: str
    device: str
    amount: float


class StateOut(Wire):
    """The state of a run, folded from its log.

    `checks` are those logged behind the position `checks_since`; 0 where they are all. What was
    logged before stands as it was, unless events were changed at `rewritten_at` or before.
    """

    status: RunStatus
    count: float
    position: int
    checks: list[CheckOut]
    checks_since: int
    rewritten_at: int
    stages: dict[str, float]
    plan: PlanOut | None
    plan_is_current: bool
    confirmation_wanted: bool
    check_due: bool
    readings_wanted: int
    asked: str
    asked_words: str
    asked_at_mm: float | None
    places_mm: list[float] = Field(description="the stations of the coming readings, in order")
    stopped_by: str | None
    withdrawn: list[str]
    holder: str | None
    proposals: list[ProposalOut]
    strokes: float
    not_understood: int


class RecipeStepOut(Answer[RecipeStep]):
    """One step of a recipe: from which count to which, and what is counted in it."""


class CardOut(Wire):
    """What the bench needs to go on alone while the server is away."""

    checks_at: list[float]
    readings: int
    confirm_above_gf: float | None
    confirm_on_fail: bool
    worn_share: float
    recipe: list[RecipeStepOut]


class PaceOut(Answer[HandPace], without="tired_by slower"):
    """The hand's pace, and a hint to rest it."""

    hint: str


class StockLeftOut(Answer[StockLeft]):
    """What is left of a lot the run takes from, and how many more counts that lasts."""


class OtherBladeOut(Wire):
    """The blade whose turn it is after this one: its run under way, or the edge that waits for
    one.
    """

    says: str
    run_id: str | None
    edge_id: str | None
    zone_from_mm: float | None
    zone_to_mm: float | None


class NewsOut(Wire):
    """What changed at a bench since a log position."""

    state: StateOut
    log: list[EventOut]
    card: CardOut
    pace: PaceOut
    paused_since: str | None
    server_utc: str


class AckOut(Wire):
    """Where an event stands in the log, and the state of its run as the bench may see it."""

    position: int
    duplicate: bool
    state: StateOut


class EdgeAtBench(Wire):
    """What is drawn of the edge that is cut: zones, places seen, stations; mm from the heel."""

    number: int
    zones: list[ZoneBody]
    damage: list[DamageBody]
    stations_mm: list[float]


class BladeAtBench(Wire):
    """All that a bench is told of a blade.

    While the blade is covered its code is the one that stands for it and it has no mark; what could
    name it, its grade, owner or notes, has no place here, whatever a blade will come to hold.
    """

    code: str
    mark: int | None
    edge_length_mm: float | None
    edge: EdgeAtBench


class RunOut(Wire):
    """A run with all the bench needs."""

    id: str
    number: int
    practice: bool
    is_virtual: bool
    count_unit: str
    trial: TrialOut
    method: MethodOut
    sealed: str
    lot_change: str
    block: int | None
    blade: BladeAtBench
    edge_id: str
    edge: int
    state: StateOut
    log: list[EventOut]
    earlier_events: int
    put_right: dict[str, str] = Field(
        description="by the id of an event, the strike or correction in force on it"
    )
    from_paper: str
    zone_from_mm: float | None
    zone_to_mm: float | None
    exposure_per_cut_mm2_per_mm: float | None
    found: str | None
    card: CardOut
    pace: PaceOut
    paused_since: str | None
    strop_back: list[StropBackOut]
    abilities_back: list[str] = Field(description="what the edge does again, in words")
    after_strop_of: str | None
    alternates: bool = Field(description="whether blades take turns within one piece")
