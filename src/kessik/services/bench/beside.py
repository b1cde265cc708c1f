"""What stands beside the count: pace of the hand, stock left, and what the strop brought back."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.planning.bench_card import BenchCard, bench_card
from kessik.core.protocols.events import BenchEvent, Cut
from kessik.core.protocols.pace import HandPace, pace
from kessik.core.protocols.run_state import RunState
from kessik.core.trials.blinding import Sealing, sealed_run
from kessik.core.trials.next_step import NextStep, other_blade
from kessik.services.bench.bench import Bench
from kessik.services.clock import seconds_of
from kessik.services.reading.trial_states import state_of_trial
from kessik.services.reading.trials import get_trial, method_of_run
from kessik.services.stock.lots import stocked

_LATELY = 600


@dataclass(frozen=True)
class StockLeft:
    """A lot this run takes from: what is left in its unit, and how many more counts that is, where
    known.
    """

    name: str
    unit: str
    left: float | None
    counts_left: float | None
    is_low: bool


@dataclass(frozen=True)
class BenchNews:
    """What changed at a bench: the state, the events since a log position (`after`), the card and
    the pace.
    """

    after: int
    state: RunState
    events: tuple[BenchEvent, ...]
    card: BenchCard
    pace: HandPace
    paused_since: str | None
    sealed: Sealing | None


def news(bench: Bench, run_id: str, after: int) -> BenchNews:
    """How a run stands, with what was logged behind a position; UnknownError where there is no such
    run.
    """
    with bench.db.read() as session:
        log = bench.logs.log(session, run_id)
        method = method_of_run(session, log.run)
        trial = get_trial(session, log.run.trial_id)
    state = bench.logs.state(log, method)
    return BenchNews(
        after=after,
        state=state,
        events=log.after(after),
        card=bench_card(method, state),
        pace=pace_of(log.events),
        paused_since=paused_since(log.events, state),
        sealed=sealed_run(trial, log.run, state),
    )


def pace_of(events: Sequence[BenchEvent]) -> HandPace:
    """The hand's pace from the times its devices gave; what was taken back moved the hand all the
    same.
    """
    lately = events[-_LATELY:]
    timed = [(at, e) for e in lately if (at := seconds_of(e)) is not None]
    cuts = [(at, e.payload.amount) for at, e in timed if isinstance(e.payload, Cut)]
    breaks = [at for at, e in timed if e.kind in ("pause", "resume")]
    return pace(sorted(cuts), breaks)


def paused_since(events: Sequence[BenchEvent], state: RunState) -> str | None:
    """When the break that lasts now began."""
    if state.status != "paused":
        return None
    return next((event.client_time for event in reversed(events) if event.kind == "pause"), None)


def stock_left(bench: Bench, run_id: str) -> list[StockLeft]:
    """What is left of the lots a run takes from, and how many more counts each lasts."""
    with bench.db.read() as session:
        run = bench.logs.log(session, run_id).run
    lots = {each.lot.id: each for each in stocked(bench.db, bench.logs)} if run.bookings else {}
    found = []
    for booking in run.bookings:
        known = lots.get(booking.lot_id)
        if known is None:
            continue
        counts = (
            known.left / booking.per_count if known.left is not None and booking.per_count else None
        )
        found.append(StockLeft(known.lot.name, known.lot.unit, known.left, counts, known.is_low))
    return found


def other(bench: Bench, run_id: str) -> NextStep | None:
    """The blade that takes its turn after this run's; UnknownError where there is no such run."""
    with bench.db.read() as session:
        run = bench.logs.log(session, run_id).run
        state = state_of_trial(session, run.trial_id)
    return other_blade(state, run_id)
