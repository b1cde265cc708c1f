"""Trials and the places of blades in them."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from sqlalchemy import func, insert, select
from sqlalchemy.orm import Session

from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import KessikError, StoreDamagedError
from kessik.core.moments import Moment
from kessik.core.shelf.blades import Blade, TrialRole
from kessik.core.trials.trial import Trial
from kessik.store.queries.methods import find_version
from kessik.store.queries.records import record_of, row_values
from kessik.store.queries.shelf import whole_blades
from kessik.store.tables import BladeRow, TrialBladeRow, TrialRow
from kessik.store.tables.base import UnreadableJson


def all_trials(session: Session) -> list[Trial]:
    """Every trial that can be read, newest first."""
    return [found for found in _each_trial(session) if isinstance(found, Trial)]


@dataclass(frozen=True)
class SpoiledTrial:
    """A trial that cannot be read, with why."""

    id: str
    name: str
    why: str


def spoiled_trials(session: Session) -> list[SpoiledTrial]:
    """The trials that cannot be read."""
    return [found for found in _each_trial(session) if isinstance(found, SpoiledTrial)]


def _each_trial(session: Session) -> list[Trial | SpoiledTrial]:
    there = select(TrialRow).where(TrialRow.arriving.is_(None))
    rows = session.scalars(there.order_by(TrialRow.created_utc.desc(), TrialRow.id))
    return [_trial_if_whole(session, row) for row in rows]


def _trial_if_whole(session: Session, row: TrialRow) -> Trial | SpoiledTrial:
    try:
        return _trial(session, row)
    except StoreDamagedError as damaged:
        return SpoiledTrial(row.id, row.name, damaged.message)


def find_trial(session: Session, trial_id: str) -> Trial | None:
    row = session.get(TrialRow, trial_id)
    return _trial(session, row) if row and row.arriving is None else None


def save_trial(session: Session, trial: Trial) -> None:
    """Insert or update; the version of its method must be there already."""
    session.merge(
        TrialRow(
            **row_values(TrialRow, trial.rule),
            **row_values(
                TrialRow,
                trial,
                created_utc=trial.created.utc,
                created_offset_minutes=trial.created.offset_minutes,
            ),
        )
    )
    session.flush()


def blades_of(session: Session, trial_id: str) -> list[Blade]:
    """The trial's blades in their places, with all their edges."""
    pairs = session.execute(
        select(BladeRow, TrialBladeRow)
        .join(TrialBladeRow, TrialBladeRow.blade_id == BladeRow.id)
        .where(TrialBladeRow.trial_id == trial_id)
        .order_by(TrialBladeRow.place)
    ).all()
    whole = whole_blades(session, [row for row, _ in pairs])
    return [
        replace(
            blade,
            place=placed.place,
            role=placed.role,  # type: ignore[arg-type]  # checked on entry
            arms=tuple(placed.arms),
        )
        for blade, (_, placed) in zip(whole, pairs, strict=True)
    ]


def place_blade(session: Session, trial_id: str, blade_id: str, role: TrialRole = "") -> int:
    """Put a blade in the trial's next free place; one that is in it already keeps its place."""
    there = session.get(TrialBladeRow, (trial_id, blade_id))
    if there is not None:
        return there.place
    taken = session.scalar(
        select(func.max(TrialBladeRow.place)).where(TrialBladeRow.trial_id == trial_id)
    )
    place = 0 if taken is None else taken + 1
    session.add(TrialBladeRow(trial_id=trial_id, blade_id=blade_id, place=place, role=role))
    session.flush()
    return place


def place_blades(session: Session, trial_id: str, blade_ids: Sequence[str]) -> None:
    """Put many blades in the trial's next free places; those that are in it keep theirs."""
    placed = select(TrialBladeRow.blade_id, TrialBladeRow.place)
    taken = dict(session.execute(placed.where(TrialBladeRow.trial_id == trial_id)).tuples().all())
    coming = [blade_id for blade_id in blade_ids if blade_id not in taken]
    if coming:
        first = 1 + max(taken.values(), default=-1)
        session.execute(
            insert(TrialBladeRow),
            [
                {"trial_id": trial_id, "blade_id": blade_id, "place": place, "arms": []}
                for place, blade_id in enumerate(coming, first)
            ],
        )


def references(session: Session) -> dict[str, TrialRole]:
    """The blades that any trial has as a low or a high reference, by id, as the last one has."""
    placed = select(TrialBladeRow.blade_id, TrialBladeRow.role).where(TrialBladeRow.role != "")
    newest = placed.join(TrialRow, TrialRow.id == TrialBladeRow.trial_id)
    found = session.execute(newest.order_by(TrialRow.created_utc)).tuples().all()
    return dict(found)  # type: ignore[arg-type]  # checked on entry


def set_role(session: Session, trial_id: str, blade_id: str, role: TrialRole) -> None:
    """Say whether a blade is in the trial as a reference."""
    row = session.get_one(TrialBladeRow, (trial_id, blade_id))
    row.role = role
    session.flush()


def set_arms(session: Session, trial_id: str, blade_id: str, arms: Sequence[str]) -> None:
    """Say under which preparations a trial compares a blade."""
    row = session.get_one(TrialBladeRow, (trial_id, blade_id))
    row.arms = list(arms)
    session.flush()


def delete_place(session: Session, trial_id: str, blade_id: str) -> None:
    """Take a blade out of a trial; the blade itself stays."""
    row = session.get(TrialBladeRow, (trial_id, blade_id))
    if row is not None:
        session.delete(row)
        session.flush()


def _trial(session: Session, row: TrialRow) -> Trial:
    """The trial of a row; StoreDamagedError where what is stored of it makes none."""
    kept = (row.tolerances, row.effects, row.let_go, row.settled_rule, row.plan)
    if any(isinstance(part, UnreadableJson) for part in kept):
        raise StoreDamagedError(
            "what is stored of this trial cannot be read; `kessik check` says how a backup is"
            " brought back",
            field="trial",
        )
    try:
        return _whole_trial(session, row)
    except (TypeError, ValueError, KeyError, KessikError) as wrong:
        message = f"what is stored of the trial {row.name} makes no trial"
        raise StoreDamagedError(message, field="trial") from wrong


def _whole_trial(session: Session, row: TrialRow) -> Trial:
    version = find_version(session, row.method_id or "")
    if version is None:
        raise ValueError("a trial's method is kept as long as the trial")
    return record_of(
        Trial,
        row,
        created=Moment(row.created_utc, row.created_offset_minutes),
        rule=record_of(MatchingRule, row),
        method=version.method,
        method_id=version.id,
        method_number=version.number,
    )
