"""Runs and the bench log over the wire."""

from collections.abc import Sequence
from dataclasses import replace

from kessik.api.schemas.bench import (
    BladeAtBench,
    CardOut,
    CheckOut,
    EdgeAtBench,
    NewsOut,
    PaceOut,
    PlanOut,
    ProposalOut,
    RunOut,
    StateOut,
)
from kessik.api.schemas.edges import DamageBody, StropBackOut, ZoneBody
from kessik.api.views.events import event_out
from kessik.api.views.methods import method_out
from kessik.api.views.trials import trial_out
from kessik.core.comparison.results import RunResult
from kessik.core.planning.bench_card import BenchCard
from kessik.core.protocols.checks import check_name
from kessik.core.protocols.corrections import corrected_by
from kessik.core.protocols.counting import amount_of
from kessik.core.protocols.events import BenchEvent, CheckPlanned
from kessik.core.protocols.pace import HandPace
from kessik.core.protocols.run_state import LoggedCheck, PlannedCheck, RunState
from kessik.core.shelf.facts import stations_mm
from kessik.core.trials.next_step import alternates
from kessik.core.words.blinding import sealed_run_words
from kessik.core.words.figures import figures_words
from kessik.core.words.lives import life_words
from kessik.core.words.pace import tired_words
from kessik.core.words.upkeep import ability_words
from kessik.services.bench.beside import BenchNews
from kessik.services.bench.runs import RunView

CHECKS_ACKNOWLEDGED = 20
"""Checks that come with an acknowledgement at most, so that it stays small however little
its device has seen."""
LOG_SHOWN = 1000
"""Events that come with a run; the earlier ones of a very long one are asked for."""


def plan_out(plan: PlannedCheck) -> PlanOut:
    """The check that the tester was told to make next."""
    low, high = plan.band or (None, None)
    return PlanOut.showing(plan, band_low=low, band_high=high)


def state_out(state: RunState, since: int = 0, at_most: int | None = None) -> StateOut:
    """The state of a run, with the checks behind a log position, at most so many."""
    shown, since = _checks_behind(state, since, at_most)
    return StateOut.showing(
        state,
        checks_since=since,
        checks=[
            CheckOut.showing(
                logged,
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
        plan=plan_out(state.plan) if state.plan else None,
        asked=state.progress.asked,
        asked_words=check_name(state.progress.asked),
        withdrawn=sorted(state.withdrawn),
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
    shown = state_out(state, since, at_most)
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


def _bare(planned: CheckPlanned) -> CheckPlanned:
    return CheckPlanned(
        next_count=planned.next_count, readings=planned.readings, check=planned.check
    )


def card_out(card: BenchCard, sealed: bool) -> CardOut:
    """What the bench needs while the server is away; sealed, only the next check."""
    ahead = card.checks_at[:1] if sealed else card.checks_at
    return CardOut.showing(
        card,
        checks_at=list(ahead),
    )


def _pace_out(pace: HandPace) -> PaceOut:
    return PaceOut.showing(pace, hint=tired_words(pace))


def news_out(news: BenchNews, server_utc: str) -> NewsOut:
    """What is new of a run, as the bench may see it."""
    sealed = bool(news.sealed)
    return NewsOut(
        state=open_state(news.state, sealed, news.after),
        log=[event_out(event) for event in seen_events(news.events, news.state, sealed)],
        card=card_out(news.card, sealed),
        pace=_pace_out(news.pace),
        paused_since=news.paused_since,
        server_utc=server_utc,
    )


def blade_at_bench(view: RunView) -> BladeAtBench:
    """The blade and edge at the bench; hidden behind its code where the trial is blind."""
    zones = [ZoneBody.showing(z) for z in view.edge.zones]
    seen = [DamageBody.showing(d) for d in view.edge.damage]
    edge = EdgeAtBench(
        number=view.edge.number,
        zones=zones,
        damage=seen,
        stations_mm=stations_mm(view.edge),
    )
    return BladeAtBench(
        code=view.shown_as,
        mark=None if view.is_covered else view.blade.mark,
        edge_length_mm=view.blade.edge_length_mm,
        edge=edge,
    )


def run_out(view: RunView, found: RunResult | None) -> RunOut:
    """A run as the bench shows it, with what it found where it ended and may be seen."""
    hidden = view.is_covered
    return RunOut.showing(
        view,
        id=view.run.id,
        number=view.run.number,
        practice=view.run.practice,
        is_virtual=view.run.practice_seed is not None,
        count_unit=view.run.count_unit,
        trial=trial_out(view.trial),
        method=method_out(view.method, view.run.method_id),
        sealed=sealed_run_words(view.sealed),
        pace=_pace_out(view.pace),
        lot_change=view.run.lot_change,
        block=view.run.block,
        blade=blade_at_bench(view),
        edge_id=view.edge.id,
        edge=view.edge.number,
        state=open_state(view.state, bool(view.sealed)),
        card=card_out(view.card, bool(view.sealed)),
        strop_back=([] if hidden else [StropBackOut.showing(test) for test in view.strop_back]),
        abilities_back=([] if hidden else [ability_words(each) for each in view.abilities_back]),
        after_strop_of=view.run.after_strop_of,
        put_right={target: event.id for target, event in corrected_by(view.events).items()},
        from_paper=view.run.from_paper,
        alternates=alternates(view.trial) and not view.run.practice,
        log=[
            event_out(event)
            for event in seen_events(view.events[-LOG_SHOWN:], view.state, bool(view.sealed))
        ],
        earlier_events=max(len(view.events) - LOG_SHOWN, 0),
        zone_from_mm=view.run.zone_from_mm,
        zone_to_mm=view.run.zone_to_mm,
        found=_found_words(view, found),
    )


def _found_words(view: RunView, found: RunResult | None) -> str | None:
    """What an ended run found, in one sentence."""
    if view.state.status not in ("stopped", "abandoned"):
        return None
    if found is None:
        return "The run is saved; its result is shown when the codes are revealed."
    if not found.lives and not found.figures:
        return "The run ended without a reading, so nothing can be said of this edge."
    unit = view.run.count_unit
    parts = [
        f"to {stage}: {life_words(known.life.found, unit)}" for stage, known in found.lives.items()
    ]
    said = "; ".join([*parts, *figures_words(found.figures)])
    alone = ". This is one edge; the spread between edges is not included" if found.lives else ""
    return f"{view.blade.code}, edge {view.edge.number}. {said[:1].upper()}{said[1:]}{alone}."
