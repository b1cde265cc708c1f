"""Strike and look: an answer without some readings or edges beside the answer as it is."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, replace
from uuid import NAMESPACE_URL, uuid5

from kessik.core.errors import OutOfRangeError
from kessik.core.moments import Moment
from kessik.core.protocols.events import BenchEvent, Strike
from kessik.core.trials.looked_at_without import without
from kessik.core.trials.verdict import Verdict, judged
from kessik.core.words.lives import life_words
from kessik.core.words.verdict import answer_headline, answer_standing
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import append_event
from kessik.services.trials.verdicts import evidence
from kessik.store.database import Database
from kessik.store.queries import shelf

_DEVICE = "record"


@dataclass(frozen=True)
class Answered:
    """An answer in a few words: its sentence, what it rests on, and the life of each blade."""

    headline: str
    standing: str
    lives: Mapping[str, str]


@dataclass(frozen=True)
class Compared:
    """The answer as it is, and as it would be."""

    now: Answered
    then: Answered


def looked_without(
    db: Database, trial_id: str, event_ids: Collection[str], run_ids: Collection[str]
) -> Compared:
    """What the answer would be; nothing is stored."""
    with db.read() as session:
        known = evidence(session, trial_id)
    other = without(known.state, set(event_ids), set(run_ids))
    now, then = judged(known), judged(replace(known, state=other))
    return Compared(_answered(now, now.stage), _answered(then, now.stage))


def strike_out(
    bench: Bench,
    trial_id: str,
    event_ids: Collection[str],
    run_ids: Collection[str],
    reason: str,
    now: Moment,
) -> list[str]:
    """Strike readings out for good and let edges not count, with a reason; all stays to be seen.

    Returns the ids of the strikes. The same again is once.
    """
    if not reason.strip():
        raise OutOfRangeError("say why: it stays in the record", field="reason")
    with bench.db.read() as session:
        state = evidence(session, trial_id).state
    without(state, set(event_ids), set(run_ids))
    run_of = {logged.event_id: r for r in state.runs for logged in r.state.checks}
    made = []
    for event_id in event_ids:
        run = run_of[event_id]
        strike = str(uuid5(NAMESPACE_URL, f"kessik:strike:{event_id}:{now.utc[:16]}"))
        said = Strike(target=event_id, reason=reason.strip())
        position = run.state.position
        event = BenchEvent(
            strike, said, f"{_DEVICE}:{strike}", 1, position, run.state.count, now.utc
        )
        append_event(bench, run.run.id, event, now.utc)
        made.append(strike)
    edges = {r.edge.id: r.edge for r in state.runs if r.run.id in set(run_ids)}
    with bench.db.write() as session:
        for edge in edges.values():
            changed = replace(edge, overrule=False, overrule_reason=reason.strip())
            shelf.save_edge(session, changed)
    return made


def _answered(found: Verdict, stage: str) -> Answered:
    lives = {
        blade.blade: life_words(blade.lives[stage].found, blade.count_unit)
        for blade in found.analysis.blades
        if stage in blade.lives
    }
    return Answered(answer_headline(found), answer_standing(found), lives)
