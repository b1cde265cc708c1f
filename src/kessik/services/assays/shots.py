"""Shots kept: typed, from files, from the analyser's folder, or from its stand-in."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from uuid import uuid4

import numpy as np

from kessik.core.composition.batches import Batch
from kessik.core.composition.grades import Grade
from kessik.core.composition.shots import PlusMinusIs, Shot, check_readings, in_one_sigma
from kessik.core.errors import (
    ConflictError,
    Fault,
    NotAllowedNowError,
    OutOfRangeError,
    RefusedFileError,
    UnknownError,
)
from kessik.core.limits import LIMITS, most
from kessik.core.moments import Moment
from kessik.core.shelf.blades import Blade
from kessik.instruments.stand_ins.analyser import NITRIDE_OF_TITANIUM, AnalyserStandIn
from kessik.instruments.virtual_bench.melts import melt_of
from kessik.interchange.csv_tables import Row
from kessik.interchange.faults import together
from kessik.interchange.named_files import NamedFile
from kessik.interchange.shots_csv import read_shots, shots_of
from kessik.services.assays.batches import get_batch, with_blades
from kessik.services.clock import local_day
from kessik.services.reading.grades import get_grade, grades_by_name
from kessik.services.shelf.blades import get_blade, refuse_taken_code
from kessik.services.shelf.checks import check_new_blades
from kessik.store.database import Database, Session
from kessik.store.queries import assays, shelf
from kessik.store.queries import shots as waiting


@dataclass(frozen=True)
class Taken:
    """What a file of shots brought: how many shots, the blades they are of, those that were new,
    and what the reader noticed.
    """

    shots: int
    blade_ids: tuple[str, ...]
    new_codes: tuple[str, ...]
    notes: tuple[str, ...]


@dataclass(frozen=True)
class StandInShot:
    """What the stand-in is asked for: the grade its melt is drawn from, the seconds of counting,
    whether through a coating, whether the file is normalised, and the seed.
    """

    grade: str
    seconds: float = 30.0
    through_coating: bool = False
    normalise: bool = False
    seed: int = 0


def put_shot(db: Database, shot: Shot, now: Moment) -> Shot:
    """Keep a shot; the same request twice keeps one. ConflictError where the id was used for
    another.
    """
    made = _checked(shot)
    with db.write() as session:
        get_blade(session, made.blade_id)
        there = assays.find_shot(session, made.id)
        if there is not None and there.blade_id != made.blade_id:
            raise ConflictError("this id was used for a shot of another blade", field="id")
        _refuse_too_many(session, [made])
        assays.save_shots(session, [made], now.utc)
        if made.batch_id:
            with_blades(session, get_batch(session, made.batch_id), [made.blade_id])
    return made


def exclude_shot(db: Database, blade_id: str, shot_id: str, reason: str, now: Moment) -> Shot:
    """Leave a shot out with a reason, or let it count again; it stays visible."""
    with db.write() as session:
        found = assays.find_shot(session, shot_id)
        if found is None or found.blade_id != blade_id:
            raise UnknownError("there is no such shot", field="shot")
        struck = replace(found, struck=reason.strip())
        assays.save_shots(session, [struck], now.utc)
    return struck


def import_shots(
    db: Database,
    files: Sequence[NamedFile],
    batch_id: str,
    now: Moment,
    plus_minus_is: PlusMinusIs = "one_sigma",
) -> Taken:
    """Keep the shots of result files, all or nothing; a blade that is not on the shelf yet is put
    there.
    """
    tables = [read_shots(file.name, file.data) for file in files]
    together([table.faults for table in tables]).refuse()
    found = [
        in_one_sigma(shot, plus_minus_is)
        for table in tables
        for shot in shots_of(table.rows, table.file)
    ]
    notes = tuple(note for table in tables for note in table.notes)
    return replace(_take(db, found, batch_id, now), notes=notes)


def take_waiting(db: Database, shots_id: str, batch_id: str, now: Moment) -> Taken:
    """Keep shots that an analyser's folder brought; they wait no more."""
    with db.read() as session:
        file = next((f for f in waiting.waiting(session) if f.id == shots_id), None)
    if file is None:
        raise UnknownError("there are no such shots", field="shots")
    rows = [Row(line, dict(values), {}) for line, values in enumerate(file.rows, 2)]
    taken = _take(db, shots_of(rows, file.name), batch_id, now)
    with db.write() as session:
        waiting.delete_shots(session, shots_id)
    return taken


def shoot_with_stand_in(db: Database, shot: Shot, asked: StandInShot, now: Moment) -> Shot:
    """A shot of the stand-in analyser, kept like any other and said to be simulated."""
    if not 1 <= asked.seconds <= most("shot_seconds"):
        said = LIMITS["shot_seconds"].says(f"{asked.seconds:g}")
        raise OutOfRangeError(said, field="seconds")
    with db.read() as session:
        grade: Grade = get_grade(grades_by_name(session), asked.grade)
    if not grade.ranges:
        raise NotAllowedNowError(f"nothing is known of what {grade.name} is made of")
    melt = melt_of(grade, np.random.default_rng([asked.seed, *shot.blade_id.encode()]))
    analyser = AnalyserStandIn(np.random.default_rng([asked.seed, *shot.id.encode()]))
    made = analyser.shoot(
        melt,
        shot,
        seconds=asked.seconds,
        coating=NITRIDE_OF_TITANIUM if asked.through_coating else None,
        normalise=asked.normalise,
    )
    return put_shot(db, made, now)


def _checked(shot: Shot) -> Shot:
    if not shot.name.strip():
        raise OutOfRangeError("number the shot, or name the place", field="name")
    return replace(shot, name=shot.name.strip(), readings=check_readings(shot.readings))


def _take(db: Database, found: Sequence[Shot], batch_id: str, now: Moment) -> Taken:
    """All is worked out before the write lock is taken; blades that came meanwhile are refused as
    their code would be.
    """
    with db.read() as session:
        known = {b.code.casefold(): b.id for b in shelf.all_blades(session) if not b.archived_utc}
        batch = get_batch(session, batch_id) if batch_id else None
    codes = {shot.blade_id.casefold(): shot.blade_id for shot in reversed(found)}
    new = [Blade(str(uuid4()), code) for key, code in codes.items() if key not in known]
    new.reverse()
    check_new_blades(new)
    ids = {**known, **{blade.code.casefold(): blade.id for blade in new}}
    own = [_of_blade(shot, ids, batch, now) for shot in found]
    rows = assays.shot_rows(own, now.utc)
    with db.write() as session:
        for blade in new[:1]:
            refuse_taken_code(session, blade)
        marks = shelf.next_marks(session, len(new))
        marked = [replace(blade, mark=mark) for blade, mark in zip(new, marks, strict=True)]
        shelf.save_whole_blades(session, marked)
        _refuse_too_many(session, own)
        assays.save_shot_rows(session, rows)
        blade_ids = list(dict.fromkeys(shot.blade_id for shot in own))
        if batch is not None:
            with_blades(session, get_batch(session, batch.id), blade_ids)
    return Taken(len(own), tuple(blade_ids), tuple(blade.code for blade in new), ())


def _of_blade(shot: Shot, ids: Mapping[str, str], batch: Batch | None, now: Moment) -> Shot:
    """A shot of a file as one of the blade whose code it names, and of the batch."""
    day = batch.back_on if batch and batch.back_on else local_day(now).isoformat()
    return replace(
        shot,
        blade_id=ids[shot.blade_id.casefold()],
        batch_id=batch.id if batch else "",
        analyser=batch.analyser if batch else "",
        operator=batch.operator if batch else "",
        on=day,
    )


def _refuse_too_many(session: Session, shots: Sequence[Shot]) -> None:
    ids = dict.fromkeys(shot.blade_id for shot in shots)
    known = assays.shots_by_blade(session, ids)
    for blade_id in ids:
        there = {shot.id for shot in known.get(blade_id, ())}
        coming = there | {shot.id for shot in shots if shot.blade_id == blade_id}
        if len(coming) > most("shots"):
            said = f"{len(coming)} shots of one blade are too many: {most('shots')} can"
            raise RefusedFileError([Fault("shots", 1, "shot", said)])
