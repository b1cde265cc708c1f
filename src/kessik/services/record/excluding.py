"""Strike and look: an answer without some readings or edges beside the answer as it is."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from uuid import uuid4

from kessik.core.errors import NotAllowedNowError, OutOfRangeError
from kessik.core.moments import Moment
from kessik.core.protocols.events import BenchEvent, Correction, Payload, Strike
from kessik.core.trials.exclusion_preview import without
from kessik.core.trials.verdict import Verdict, judged, judged_under
from kessik.core.words.lives import life_words
from kessik.core.words.verdict import answer_headline, answer_standing
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import append_event, run_view
from kessik.services.changes import made_good_by
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


def lives_under(db: Database, trial_id: str, limit_gf: float) -> Answered:
    """How long each blade stays under any force, and who longest; nothing is stored."""
    with db.read() as session:
        known = evidence(session, trial_id)
    if known.state.sealed:
        raise NotAllowedNowError(
            "the answer is hidden until the stop; nothing can be excluded yet", field="trial"
        )
    found = judged_under(known, limit_gf)
    return _answered(found, found.stage)


def exclude(
    bench: Bench,
    trial_id: str,
    event_ids: Collection[str],
    run_ids: Collection[str],
    reason: str,
    now: Moment,
) -> list[str]:
    """Strike readings out for good and let edges not count, with a reason; all stays to be seen.

    Returns the ids of the strikes; what is struck already is not struck again.
    """
    if not reason.strip():
        raise OutOfRangeError("say why: it stays in the record", field="reason")
    with bench.db.read() as session:
        state = evidence(session, trial_id).state
    without(state, set(event_ids), set(run_ids))
    found = {check.event_id: (r, check) for r in state.runs for check in r.state.checks}
    made: list[tuple[str, str]] = []
    made_good_by("left out", lambda: _put_back(bench, made, now))
    for event_id in event_ids:
        r, check = found[event_id]
        if not check.check.struck:
            strike = Strike(target=event_id, reason=reason.strip())
            made.append((r.run.id, _append(bench, r.run.id, strike, now)))
    edges = {r.edge.id: r.edge for r in state.runs if r.run.id in set(run_ids)}
    with bench.db.write() as session:
        for edge in edges.values():
            changed = replace(edge, overrule=False, overrule_reason=reason.strip())
            shelf.save_edge(session, changed)
    return [strike for _, strike in made]


def _put_back(bench: Bench, strikes: Sequence[tuple[str, str]], now: Moment) -> None:
    """Let what was struck count again; that it was struck stays to be seen."""
    for run_id, strike in strikes:
        _append(bench, run_id, Correction(target=strike, becomes=None), now)


def _append(bench: Bench, run_id: str, said: Payload, now: Moment) -> str:
    """Append to the log of a run as it stands; returns the id of the event."""
    event_id, state = str(uuid4()), run_view(bench, run_id).state
    device = f"{_DEVICE}:{event_id}"
    event = BenchEvent(event_id, said, device, 1, state.position, state.count, now.utc)
    append_event(bench, run_id, event, now.utc)
    return event_id


def _answered(found: Verdict, stage: str) -> Answered:
    lives = {
        blade.blade: life_words(blade.lives[stage].found, blade.count_unit)
        for blade in found.analysis.blades
        if stage in blade.lives
    }
    return Answered(answer_headline(found), answer_standing(found), lives)
