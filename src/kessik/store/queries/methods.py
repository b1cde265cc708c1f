"""Methods in their versions."""

import json
from collections.abc import Mapping
from functools import lru_cache
from typing import Any

from pydantic import TypeAdapter
from sqlalchemy import func, select
from sqlalchemy.orm import Session

from kessik.core.protocols.methods import Method
from kessik.core.trials.trial import MethodVersion
from kessik.store.queries.bench_log import IS_SEEN
from kessik.store.tables import MethodRow, RunRow, TrialRow

_METHOD: TypeAdapter[Method] = TypeAdapter(Method)


def method_body(method: Method) -> dict[str, Any]:
    """A method as plain JSON values."""
    return dict(_METHOD.dump_python(method, mode="json"))


def read_method(body: Mapping[str, Any]) -> Method:
    """A method from plain JSON values; ValueError or OutOfRangeError where they make none."""
    return _parsed(json.dumps(body))


@lru_cache(maxsize=256)
def _parsed(text: str) -> Method:
    """Every event of a bench asks for its method anew; the few there are stay parsed."""
    return _METHOD.validate_json(text)


def find_version(session: Session, method_id: str) -> MethodVersion | None:
    row = session.get(MethodRow, method_id)
    return _version(row) if row else None


def add_version(session: Session, version: MethodVersion) -> None:
    session.add(
        MethodRow(
            id=version.id,
            line_id=version.line_id,
            number=version.number,
            body=method_body(version.method),
            made_utc=version.made_utc,
        )
    )
    session.flush()


def next_number(session: Session, line_id: str) -> int:
    highest = session.scalar(select(func.max(MethodRow.number)).where(MethodRow.line_id == line_id))
    return 1 if highest is None else int(highest) + 1


def is_used(session: Session, method_id: str, besides_trial: str) -> bool:
    """Whether a run was cut under this version, or another trial has it in force."""
    if (
        session.scalars(select(RunRow.id).where(RunRow.method_id == method_id).limit(1)).first()
        is not None
    ):
        return True
    others = select(TrialRow.id).where(
        TrialRow.method_id == method_id, TrialRow.id != besides_trial
    )
    return session.scalars(others.limit(1)).first() is not None


def runs_under(session: Session, line_id: str) -> bool:
    """Whether a run was cut under any version of a line."""
    found = select(RunRow.id).join(MethodRow, MethodRow.id == RunRow.method_id).where(IS_SEEN)
    return session.scalars(found.where(MethodRow.line_id == line_id).limit(1)).first() is not None


def rename_number(session: Session, method_id: str) -> None:
    """Free the number of a version that is about to be replaced."""
    row = session.get_one(MethodRow, method_id)
    row.number = -row.number
    session.flush()


def delete_version(session: Session, method_id: str) -> None:
    row = session.get(MethodRow, method_id)
    if row is not None:
        session.delete(row)
        session.flush()


def newest_versions(session: Session) -> list[MethodVersion]:
    """The newest version of every line, newest first."""
    newest = select(MethodRow.line_id, func.max(MethodRow.number).label("number")).group_by(
        MethodRow.line_id
    )
    part = newest.subquery()
    rows = session.scalars(
        select(MethodRow)
        .join(part, (part.c.line_id == MethodRow.line_id) & (part.c.number == MethodRow.number))
        .order_by(MethodRow.made_utc.desc(), MethodRow.id)
    )
    return [_version(row) for row in rows]


def methods_of_runs(session: Session, trial_id: str) -> dict[str, MethodVersion]:
    """The versions the runs of a trial were cut under, by their ids."""
    ids = select(RunRow.method_id).where(RunRow.trial_id == trial_id)
    return {
        row.id: _version(row)
        for row in session.scalars(select(MethodRow).where(MethodRow.id.in_(ids)))
    }


def _version(row: MethodRow) -> MethodVersion:
    return MethodVersion(row.id, row.line_id, row.number, read_method(row.body), row.made_utc)
