"""Runs and the bench log over the wire."""

from typing import Any, Literal

from pydantic import Field

from kessik.api.schemas.common import Finite, Id, ShortText, Wire
from kessik.api.schemas.methods import MethodOut
from kessik.api.schemas.shelf import BladeOut
from kessik.api.schemas.trials import TrialOut
from kessik.core.protocols.events import BenchEvent
from kessik.core.protocols.methods import CHECK_WORDS, CheckKind
from kessik.core.protocols.run_state import Plan, RunState
from kessik.services.bench import RunView

SentKind = Literal[
    "cut", "reading", "outcome", "note", "pause", "resume", "strike", "correction", "stop", "abandon",
    "spoiled",
]  # fmt: skip


class RunBody(Wire):
    """A run to start; `id` is made by the client."""

    id: Id
    edge_id: Id
    practice: bool = False
    practice_seed: int | None = Field(default=None, ge=0, le=2**31)
    zone_from_mm: Finite | None = None
    zone_to_mm: Finite | None = None
    operator: ShortText = ""
    verifies_run_id: Id | None = None
    insist_on_lot: bool = False


class EventBody(Wire):
    """One bench event; its id is in the path."""

    kind: SentKind
    device: Id
    device_sequence: int = Field(ge=1, le=2**53)
    last_seen_position: int = Field(ge=0, le=2**53)
    count_at: Finite = Field(ge=0, le=1e9)
    client_time: str = Field(max_length=40)
    payload: dict[str, Any] = Field(default_factory=dict)

    def event(self, event_id: str) -> BenchEvent:
        return BenchEvent(id=event_id, **self.model_dump())


class EventOut(Wire):
    """An event as the log holds it."""

    id: str
    position: int
    kind: str
    device: str
    count_at: float
    client_time: str
    payload: dict[str, Any]

    @classmethod
    def of(cls, event: BenchEvent) -> "EventOut":
        own = {name: getattr(event, name) for name in cls.model_fields if name != "payload"}
        return cls(**own, payload=dict(event.payload))


class CheckOut(Wire):
    """A check after all corrections."""

    event_id: str
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

    @classmethod
    def of(cls, plan: Plan) -> "PlanOut":
        low, high = plan.band or (None, None)
        return cls(
            next_count=plan.next_count,
            readings=plan.readings,
            why=plan.why,
            stage=plan.stage,
            band_low=low,
            band_high=high,
        )


class StateOut(Wire):
    """The state of a run, folded from its log."""

    status: Literal["fresh", "cutting", "paused", "stopped", "abandoned"]
    count: float
    position: int
    checks: list[CheckOut]
    stages: dict[str, float]
    plan: PlanOut | None
    plan_is_current: bool
    confirmation_wanted: bool
    check_due: bool
    readings_wanted: int
    asked: CheckKind
    asked_words: str
    asked_at_mm: float | None
    stopped_by: str | None
    withdrawn: list[str]

    @classmethod
    def of(cls, state: RunState) -> "StateOut":
        return cls(
            status=state.status,
            count=state.count,
            position=state.position,
            checks=[
                CheckOut(
                    event_id=logged.event_id,
                    count=logged.check.count,
                    kind=logged.check.kind,
                    force_gf=logged.check.force_gf,
                    value=logged.check.value,
                    outcome=logged.check.outcome,
                    seen=logged.check.seen,
                    position_mm=logged.check.position_mm,
                    struck=logged.check.struck,
                )
                for logged in state.checks
            ],
            stages=dict(state.stages),
            plan=PlanOut.of(state.plan) if state.plan else None,
            plan_is_current=state.plan_is_current,
            confirmation_wanted=state.confirmation_wanted,
            check_due=state.check_due,
            readings_wanted=state.readings_wanted,
            asked=state.progress.asked,
            asked_words=CHECK_WORDS[state.progress.asked],
            asked_at_mm=state.asked_at_mm,
            stopped_by=state.stopped_by,
            withdrawn=sorted(state.withdrawn),
        )


def _open_state(view: RunView) -> StateOut:
    """The state as the bench may see it: while it is sealed, of what is ahead only the next check."""
    state = StateOut.of(view.state)
    if view.sealed and state.plan is not None:
        bare = state.plan.model_copy(update={"band_low": None, "band_high": None, "why": "", "stage": None})
        return state.model_copy(update={"plan": bare})
    return state


class AckOut(Wire):
    """The event is on disk at `position`; the state is the run's with it."""

    position: int
    duplicate: bool
    state: StateOut


class RunOut(Wire):
    """A run with all the bench needs."""

    id: str
    number: int
    practice: bool
    count_unit: str
    trial: TrialOut
    method: MethodOut
    shown_as: str
    sealed: str
    lot_change: str
    block: int | None
    recipe_now: str
    blade: BladeOut
    edge_id: str
    edge: int
    state: StateOut
    log: list[EventOut]
    zone_from_mm: float | None
    zone_to_mm: float | None
    exposure_per_cut_mm2_per_mm: float | None
    found: str | None

    @classmethod
    def of(cls, view: RunView, found: str | None) -> "RunOut":
        return cls(
            id=view.run.id,
            number=view.run.number,
            practice=view.run.practice,
            count_unit=view.run.count_unit,
            trial=TrialOut.of(view.trial),
            method=MethodOut.of(view.method, view.run.method_id),
            shown_as=view.shown_as,
            sealed=view.sealed,
            lot_change=view.run.lot_change,
            block=view.run.block,
            recipe_now=view.recipe_now,
            blade=BladeOut.of(view.blade),
            edge_id=view.edge.id,
            edge=view.edge.number,
            state=_open_state(view),
            log=[EventOut.of(event) for event in view.events],
            zone_from_mm=view.run.zone_from_mm,
            zone_to_mm=view.run.zone_to_mm,
            exposure_per_cut_mm2_per_mm=view.exposure_per_cut_mm2_per_mm,
            found=found,
        )


class VirtualReadingOut(Wire):
    """What the virtual tester shows."""

    force_gf: float
