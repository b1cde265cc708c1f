"""Runs and the bench log over the wire."""

from collections.abc import Sequence
from dataclasses import replace
from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Id, Place, ShortText, Wire
from kessik.api.schemas.edges import DamageBody, ZoneBody
from kessik.api.schemas.events import EventOut
from kessik.api.schemas.methods import MethodOut
from kessik.api.schemas.trials import TrialOut
from kessik.core.planning.bench_card import BenchCard
from kessik.core.protocols.checks import check_name
from kessik.core.protocols.corrections import put_right_by
from kessik.core.protocols.counting import amount_of
from kessik.core.protocols.events import BenchEvent, CheckPlanned
from kessik.core.protocols.run_state import LoggedCheck, Plan, RunState, RunStatus
from kessik.core.shelf.facts import stations_mm
from kessik.core.trials.next_step import NextStep, alternates
from kessik.core.words.upkeep import ability_words
from kessik.services.bench.beside import BenchNews
from kessik.services.bench.runs import RunView

LOG_SHOWN = 1000
"""Events that come with a run; the earlier ones of a very long one are asked for."""
CHECKS_ACKNOWLEDGED = 20
"""Checks that come with an acknowledgement at most, so that it stays small however little
its device has seen."""


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

    @classmethod
    def of(cls, state: RunState, since: int = 0, at_most: int | None = None) -> "StateOut":
        shown, since = _checks_behind(state, since, at_most)
        return cls(
            status=state.status,
            count=state.count,
            position=state.position,
            checks_since=since,
            rewritten_at=state.rewritten_at,
            checks=[
                CheckOut(
                    event_id=logged.event_id,
                    position=logged.position,
                    count=logged.check.count,
                    kind=logged.check.kind,
                    force_gf=logged.check.force_gf,
                    value=logged.check.value,
                    outcome=logged.check.outcome,
                    seen=logged.check.seen,
                    position_mm=logged.check.position_mm,
                    struck=logged.check.struck,
                )
                for logged in shown
            ],
            stages=dict(state.stages),
            plan=PlanOut.of(state.plan) if state.plan else None,
            plan_is_current=state.plan_is_current,
            confirmation_wanted=state.confirmation_wanted,
            check_due=state.check_due,
            readings_wanted=state.readings_wanted,
            asked=state.progress.asked,
            asked_words=check_name(state.progress.asked),
            asked_at_mm=state.asked_at_mm,
            places_mm=list(state.places_mm),
            stopped_by=state.stopped_by,
            withdrawn=sorted(state.withdrawn),
            holder=state.holder,
            proposals=[
                ProposalOut(event_id=cut.id, device=cut.device, amount=amount_of(cut))
                for cut in state.proposals
            ],
            strokes=state.strops[-1].strokes if state.strops else 0.0,
            not_understood=len(state.not_understood),
        )


def _checks_behind(
    state: RunState, since: int, at_most: int | None
) -> tuple[list[LoggedCheck], int]:
    """The checks logged behind a position, at most so many; and the position they are told from."""
    if since < state.rewritten_at:
        return list(state.checks), 0
    found = [logged for logged in state.checks if logged.position > since]
    if at_most is not None and len(found) > at_most:
        newest = sorted(logged.position for logged in found)
        since = newest[-at_most - 1]
        found = [logged for logged in found if logged.position > since]
    return found, since


def open_state(
    state: RunState, sealed: bool, since: int = 0, at_most: int | None = None
) -> StateOut:
    """The state as the bench may see it: while it is sealed, of what is ahead only the next
    check.
    """
    shown = StateOut.of(state, since, at_most)
    if sealed and shown.plan is not None:
        bare = shown.plan.model_copy(
            update={"band_low": None, "band_high": None, "why": "", "stage": None}
        )
        return shown.model_copy(update={"plan": bare})
    return shown


def seen_events(events: Sequence[BenchEvent], state: RunState, sealed: bool) -> list[BenchEvent]:
    """Events as the bench may see them: those that the run does not understand as such; while it is
    sealed, a planned check says where and how often, and not why.
    """
    unread = {event.id: event for event in state.not_understood}
    events = [unread.get(event.id, event) for event in events]
    if not sealed:
        return events
    return [
        replace(e, payload=_bare(e.payload)) if isinstance(e.payload, CheckPlanned) else e
        for e in events
    ]


def _bare_event(event: BenchEvent) -> BenchEvent:
    planned = event.payload
    return replace(event, payload=_bare(planned)) if isinstance(planned, CheckPlanned) else event


def _bare(planned: CheckPlanned) -> CheckPlanned:
    return CheckPlanned(
        next_count=planned.next_count, readings=planned.readings, check=planned.check
    )


class RecipeStepOut(Wire):
    """One step of a recipe: from which count to which, and what is counted in it."""

    medium: str
    begins_at: float
    ends_at: float
    unit: str


class CardOut(Wire):
    """What the bench needs to go on alone while the server is away."""

    checks_at: list[float]
    readings: int
    confirm_above_gf: float | None
    confirm_on_fail: bool
    worn_share: float
    recipe: list[RecipeStepOut]

    @classmethod
    def of(cls, card: BenchCard, sealed: bool) -> "CardOut":
        ahead = card.checks_at[:1] if sealed else card.checks_at
        return cls(
            checks_at=list(ahead),
            readings=card.readings,
            confirm_above_gf=card.confirm_above_gf,
            confirm_on_fail=card.confirm_on_fail,
            worn_share=card.worn_share,
            recipe=[RecipeStepOut.model_validate(step) for step in card.recipe],
        )


class PaceOut(Wire):
    """The hand's pace, and a hint to rest it."""

    per_minute: float | None
    minutes_without_break: float
    cuts_without_break: float
    hint: str


class StockLeftOut(Wire):
    """What is left of a lot the run takes from, and how many more counts that lasts."""

    name: str
    unit: str
    left: float | None
    counts_left: float | None
    is_low: bool


class StropBackOut(Wire):
    """What so many strokes on the strop brought back of the loss, as a share with 95 % bounds."""

    strokes: float
    start_gf: float
    end_gf: float
    after_gf: float
    share: float | None
    low: float | None
    high: float | None


class OtherBladeOut(Wire):
    """The blade whose turn it is after this one: its run under way, or the edge that waits for
    one.
    """

    says: str
    run_id: str | None
    edge_id: str | None
    zone_from_mm: float | None
    zone_to_mm: float | None

    @classmethod
    def of(cls, step: NextStep) -> "OtherBladeOut":
        return cls(**{name: getattr(step, name) for name in cls.model_fields})


class NewsOut(Wire):
    """What changed at a bench since a log position."""

    state: StateOut
    log: list[EventOut]
    card: CardOut
    pace: PaceOut
    paused_since: str | None
    server_utc: str

    @classmethod
    def of(cls, news: BenchNews, server_utc: str) -> "NewsOut":
        sealed = bool(news.sealed)
        return cls(
            state=open_state(news.state, sealed, news.after),
            log=[EventOut.of(event) for event in seen_events(news.events, news.state, sealed)],
            card=CardOut.of(news.card, sealed),
            pace=PaceOut.model_validate(news.pace),
            paused_since=news.paused_since,
            server_utc=server_utc,
        )


class AckOut(Wire):
    """The event is on disk at `position`; the state is the run's with it."""

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

    @classmethod
    def of(cls, view: RunView) -> "BladeAtBench":
        zones = [ZoneBody(from_mm=z.from_mm, to_mm=z.to_mm, use=z.use) for z in view.edge.zones]
        seen = [DamageBody(position_mm=d.position_mm, kind=d.kind) for d in view.edge.damage]
        edge = EdgeAtBench(
            number=view.edge.number,
            zones=zones,
            damage=seen,
            stations_mm=stations_mm(view.edge),
        )
        return cls(
            code=view.shown_as,
            mark=None if view.is_covered else view.blade.mark,
            edge_length_mm=view.blade.edge_length_mm,
            edge=edge,
        )


class RunOut(Wire):
    """A run with all the bench needs."""

    id: str
    number: int
    practice: bool
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

    @classmethod
    def of(cls, view: RunView, found: str | None) -> "RunOut":
        hidden = view.is_covered
        return cls(
            id=view.run.id,
            number=view.run.number,
            practice=view.run.practice,
            count_unit=view.run.count_unit,
            trial=TrialOut.of(view.trial),
            method=MethodOut.of(view.method, view.run.method_id),
            sealed=view.sealed,
            lot_change=view.run.lot_change,
            block=view.run.block,
            blade=BladeAtBench.of(view),
            edge_id=view.edge.id,
            edge=view.edge.number,
            state=open_state(view.state, bool(view.sealed)),
            card=CardOut.of(view.card, bool(view.sealed)),
            pace=PaceOut.model_validate(view.pace),
            paused_since=view.paused_since,
            strop_back=(
                [] if hidden else [StropBackOut.model_validate(test) for test in view.strop_back]
            ),
            abilities_back=(
                [] if hidden else [ability_words(each) for each in view.abilities_back]
            ),
            after_strop_of=view.run.after_strop_of,
            put_right={target: event.id for target, event in put_right_by(view.events).items()},
            from_paper=view.run.from_paper,
            alternates=alternates(view.trial) and not view.run.practice,
            log=[
                EventOut.of(event)
                for event in seen_events(view.events[-LOG_SHOWN:], view.state, bool(view.sealed))
            ],
            earlier_events=max(len(view.events) - LOG_SHOWN, 0),
            zone_from_mm=view.run.zone_from_mm,
            zone_to_mm=view.run.zone_to_mm,
            exposure_per_cut_mm2_per_mm=view.exposure_per_cut_mm2_per_mm,
            found=found,
        )
