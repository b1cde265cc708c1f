"""Gauge studies kept with their date, each beside the one before it."""

from dataclasses import dataclass, replace

from kessik.core.errors import ConflictError, UnknownError
from kessik.core.gauge.kept import GaugeDrift, KeptStudy, check_kept, drift, last_before
from kessik.store.database import Database
from kessik.store.queries import gauges


@dataclass(frozen=True)
class StudyBeside:
    """A kept study, and how its gauge changed since the one before; None where it is the first."""

    kept: KeptStudy
    drift: GaugeDrift | None


def studies(db: Database) -> list[StudyBeside]:
    """Every kept study, newest first."""
    with db.read() as session:
        found = gauges.all_studies(session)
    told = []
    for kept in found:
        before = last_before(kept, found)
        told.append(StudyBeside(kept, drift(kept, before) if before else None))
    return told


def keep_study(db: Database, kept: KeptStudy) -> StudyBeside:
    """Keep a study, or say whether it is the one to reckon with among those of its kind; the same
    id twice is one study, and its readings stay as they were.
    """
    check_kept(kept)
    with db.write() as session:
        there = gauges.find_study(session, kept.id)
        if there is not None and there.readings != kept.readings:
            raise ConflictError("this id was used for another study", field="id")
        made = there.made if there else kept.made
        if kept.in_use:
            gauges.use_none(session, kept.measures)
        gauges.save_study(session, replace(kept, made=made))
    return next(each for each in studies(db) if each.kept.id == kept.id)


def delete_study(db: Database, study_id: str) -> None:
    """Delete a study; until another one is taken, what is usual is reckoned with."""
    with db.write() as session:
        if gauges.find_study(session, study_id) is None:
            raise UnknownError("there is no such study", field="study")
        gauges.delete_study(session, study_id)
