"""Runs and their bench log."""

import json
from collections import defaultdict
from collections.abc import Iterable, Sequence
from functools import lru_cache
from typing import Any

from sqlalchemy import Table, bindparam, exists, func, select, text
from sqlalchemy.dialects import sqlite
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from kessik.core.errors import ConflictError, KessikError
from kessik.core.moments import Moment
from kessik.core.protocols.events import (
    BenchEvent,
    Cut,
    NotUnderstood,
    Outcome,
    Payload,
    Start,
    Stop,
    check_count_at,
    plain_fields,
    read_logged,
    read_payload,
)
from kessik.core.runs import Run
from kessik.store.check_sums import SUMMED, check_sum
from kessik.store.queries import pictures
from kessik.store.queries.inserting import insert_many
from kessik.store.queries.records import record_of, row_values
from kessik.store.tables import EventRow, RunRow, TrialRow
from kessik.store.tables.base import JSON_TEXT

_EVENT: Table = EventRow.__table__  # type: ignore[assignment]  # declared as FromClause, and is the table
_RUN: Table = RunRow.__table__  # type: ignore[assignment]  # declared as FromClause, and is the table
_APPEND = sqlite.insert(_EVENT).on_conflict_do_nothing()
# In the order that _event takes them, so that a long log is read row by row without looking up
# names.
_READ = ("position", "check_sum", *SUMMED)
_AS_EVENT = [_EVENT.c[name] for name in _READ]
_LOG_TAIL = (
    select(*_AS_EVENT)
    .where(_EVENT.c.run_id == bindparam("run"), _EVENT.c.position > bindparam("after"))
    .order_by(_EVENT.c.position)
)

IS_SEEN = exists().where(TrialRow.id == RunRow.trial_id, TrialRow.arriving.is_(None))
"""A run is seen unless its trial is on its way in, or out."""
_SEEN = text(
    "SELECT 1 FROM run JOIN trial ON trial.id = run.trial_id"
    " WHERE run.id = :run AND trial.arriving IS NULL"
)


def trials_with(session: Session, kind: str) -> list[str]:
    """The ids of trials in whose logs there is an event of a kind."""
    found = text(
        "SELECT DISTINCT trial_id FROM run JOIN event ON event.run_id = run.id"
        " WHERE event.kind = :kind ORDER BY trial_id"
    )
    return list(session.scalars(found, {"kind": kind}))


def runs_of(session: Session, trial_id: str) -> list[Run]:
    """The trial's runs in the order they were started."""
    rows = session.scalars(
        select(RunRow)
        .where(RunRow.trial_id == trial_id)
        .order_by(RunRow.started_utc, RunRow.number)
    )
    return [_run(row) for row in rows]


def run_ids_of(session: Session, trial_id: str) -> set[str]:
    """The ids of the trial's runs."""
    return set(session.scalars(select(RunRow.id).where(RunRow.trial_id == trial_id)))


def all_runs(session: Session) -> list[Run]:
    """Every run of every trial, in the order they were started."""
    seen = select(RunRow).where(IS_SEEN).order_by(RunRow.started_utc, RunRow.id)
    return [_run(row) for row in session.scalars(seen)]


def runs_on_edge(session: Session, edge_id: str) -> list[Run]:
    """Every run on an edge, of whichever trial, in the order they were started."""
    rows = session.scalars(
        select(RunRow)
        .where(RunRow.edge_id == edge_id, IS_SEEN)
        .order_by(RunRow.started_utc, RunRow.number)
    )
    return [_run(row) for row in rows]


def runs_beside(session: Session, run_ids: Sequence[str]) -> dict[str, list[Run]]:
    """All runs of the edges that these share with others, by the ids of the edges."""
    ids = select(func.json_each(json.dumps(list(run_ids))).table_valued("value").c.value)
    own = select(RunRow.edge_id).where(RunRow.id.in_(ids))
    shared = select(RunRow.edge_id).where(RunRow.edge_id.in_(own), RunRow.id.not_in(ids), IS_SEEN)
    found: dict[str, list[Run]] = defaultdict(list)
    for row in session.scalars(select(RunRow).where(RunRow.edge_id.in_(shared), IS_SEEN)):
        found[row.edge_id].append(_run(row))
    return found


def edge_has_runs(session: Session, edge_id: str) -> bool:
    """Whether anything, practice included, was cut on an edge."""
    return (
        session.scalars(
            select(RunRow.id).where(RunRow.edge_id == edge_id, IS_SEEN).limit(1)
        ).first()
        is not None
    )


def find_run(session: Session, run_id: str) -> Run | None:
    """A run that is seen: none that is on its way in, or into the bin."""
    row = session.get(RunRow, run_id) if is_seen(session, run_id) else None
    return _run(row) if row else None


def is_seen(session: Session, run_id: str) -> bool:
    """Whether there is such a run, and it is not on its way in, or into the bin."""
    return session.connection().execute(_SEEN, {"run": run_id}).first() is not None


def add_run(session: Session, run: Run) -> None:
    session.add(RunRow(**_run_columns(run)))
    session.flush()


def add_runs(session: Session, runs: Sequence[Run]) -> None:
    """Add many runs at once; ConflictError where one of their ids or numbers is taken."""
    try:
        insert_many(session, _RUN, [_run_columns(run) for run in runs])
    except IntegrityError as taken:
        raise ConflictError("one of these ids was used for another run", field="id") from taken


def save_run(session: Session, run: Run) -> None:
    """Change what is said of a run; its log stays."""
    session.merge(RunRow(**_run_columns(run)))
    session.flush()


def _run_columns(run: Run) -> dict[str, Any]:
    return row_values(
        RunRow,
        run,
        started_utc=run.started.utc,
        started_offset_minutes=run.started.offset_minutes,
        method_id=run.method_id or None,
    )


def events_of(session: Session, run_id: str, after: int = 0) -> list[BenchEvent]:
    """The run's log in log order, from behind a position on."""
    rows = session.connection().execute(_LOG_TAIL, {"run": run_id, "after": after})
    return [_event(*row) for row in rows]


def events_by_run(session: Session, run_ids: Sequence[str]) -> dict[str, list[BenchEvent]]:
    """The logs of several runs at once."""
    logs: dict[str, list[BenchEvent]] = {run_id: [] for run_id in run_ids}
    wanted = select(*_AS_EVENT).where(_EVENT.c.run_id.in_(run_ids)).order_by(_EVENT.c.position)
    for row in session.execute(wanted):
        logs[row.run_id].append(_event(*row))
    return logs


def has_event(session: Session, event_id: str) -> bool:
    """Whether an event of this id is in any run's log."""
    return (
        session.execute(select(_EVENT.c.position).where(_EVENT.c.id == event_id)).first()
        is not None
    )


def next_sequence(session: Session) -> int:
    """A sequence number that no event had before, those of runs that were taken away included: the
    number of the event itself.
    """
    last = session.execute(text("SELECT seq FROM sqlite_sequence WHERE name = 'event'")).scalar()
    return 1 + (int(last) if last is not None else 0)


def take_sequence(session: Session) -> int:
    """The same for an event that has a number in the log already; no other gets it any more."""
    taken = next_sequence(session)
    given = text("UPDATE sqlite_sequence SET seq = :seq WHERE name = 'event'")
    session.execute(given, {"seq": taken})
    return taken


def append(session: Session, run_id: str, event: BenchEvent, server_utc: str) -> int | None:
    """Append one event and return the log position it got; None where its id or its sequence number
    is taken.
    """
    result = session.connection().execute(_APPEND, _columns(run_id, event, server_utc))
    if result.rowcount != 1:
        return None
    if isinstance(event.payload, Outcome) and event.payload.picture:
        pictures.show_if_kept(session, event.payload.picture, "event", event.id, server_utc)
    return int(result.lastrowid)


def append_many(
    session: Session, run_id: str, events: Sequence[BenchEvent], server_utc: str
) -> None:
    """Append events in their order, as an import does."""
    append_rows(session, rows_of(run_id, events, server_utc))


def rows_of(run_id: str, events: Iterable[BenchEvent], server_utc: str) -> list[dict[str, Any]]:
    """Events as rows, made before the write lock is taken."""
    return [_columns(run_id, event, server_utc) for event in events]


def append_rows(session: Session, rows: Sequence[dict[str, Any]]) -> None:
    """Append rows in their order."""
    insert_many(session, _EVENT, rows)


def _columns(run_id: str, event: BenchEvent, server_utc: str) -> dict[str, Any]:
    """An event as its row, refused where it could not be read back."""
    assert not isinstance(event.payload, NotUnderstood), "it came out of the log and never goes in"
    check_count_at(event.count_at)
    put = _put_often if _is_often_said(event.payload) else _put
    summed: dict[str, Any] = {
        "run_id": run_id,
        "kind": event.kind,
        "device": event.device,
        "device_sequence": event.device_sequence,
        "last_seen_position": event.last_seen_position,
        "count_at": float(event.count_at),
        "client_time": event.client_time,
        "payload": put(event.kind, event.payload),
    }
    return {
        "id": event.id,
        "server_utc": server_utc,
        "check_sum": check_sum(event.id, **summed),
        **summed,
    }


def _put(kind: str, said: Payload) -> str:
    """What an event says as it is stored, refused where it could not be read back."""
    fields_said = plain_fields(said)
    read_payload(kind, fields_said)
    return JSON_TEXT.encode(fields_said)


def _is_often_said(said: Payload) -> bool:
    """Whether an import says the same again and again."""
    return isinstance(said, Start | Cut | Stop) or (
        isinstance(said, Outcome) and said.extra is None
    )


_put_often = lru_cache(maxsize=4096)(_put)


def _event(
    position: int,
    kept_sum: int | None,
    event_id: str,
    run_id: str,
    kind: str,
    device: str,
    device_sequence: int,
    last_seen_position: int,
    count_at: float,
    client_time: str,
    payload: str,
) -> BenchEvent:
    """A row as an event; what cannot be read back is an event that is not understood, and spoils
    nothing else.
    """
    row = (
        run_id,
        kind,
        device,
        device_sequence,
        last_seen_position,
        count_at,
        client_time,
        payload,
    )
    said = _said(kind, payload, count_at)
    if kept_sum is not None and kept_sum != check_sum(event_id, *row):
        said = NotUnderstood(
            kind, payload, "it was changed since it was stored: its check sum does not fit"
        )
    if isinstance(said, NotUnderstood):
        count_at = 0.0
    return BenchEvent(
        event_id, said, device, device_sequence, last_seen_position, count_at, client_time, position
    )


def _said(kind: str, payload: str, count_at: float) -> Payload | NotUnderstood:
    try:
        check_count_at(count_at)
        fields_said = json.loads(payload)
    except KessikError as wrong:
        return NotUnderstood(kind, payload, wrong.message)
    except (ValueError, RecursionError):
        return NotUnderstood(kind, payload, "it is no JSON")
    return read_logged(kind, fields_said, payload)


def _run(row: RunRow) -> Run:
    started = Moment(row.started_utc, row.started_offset_minutes)
    return record_of(Run, row, started=started, method_id=row.method_id or "")
