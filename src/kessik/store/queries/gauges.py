"""Gauge studies as they are kept."""

from sqlalchemy import delete, select, update
from sqlalchemy.orm import Session

from kessik.core.gauge.kept import GaugeMeasures, KeptStudy
from kessik.core.gauge.study import GaugeReading
from kessik.core.moments import Moment
from kessik.store.tables import GaugeStudyRow


def all_studies(session: Session) -> list[KeptStudy]:
    """Every study, newest first."""
    newest = select(GaugeStudyRow).order_by(GaugeStudyRow.made_utc.desc(), GaugeStudyRow.id)
    return [_study(row) for row in session.scalars(newest)]


def find_study(session: Session, study_id: str) -> KeptStudy | None:
    row = session.get(GaugeStudyRow, study_id)
    return _study(row) if row else None


def save_study(session: Session, kept: KeptStudy) -> None:
    """Insert or update."""
    session.merge(
        GaugeStudyRow(
            id=kept.id,
            instrument=kept.instrument,
            measures=kept.measures,
            unit=kept.unit,
            readings=[[r.part, r.operator, r.value] for r in kept.readings],
            made_utc=kept.made.utc,
            made_offset_minutes=kept.made.offset_minutes,
            in_use=kept.in_use,
        )
    )
    session.flush()


def use_none(session: Session, measures: GaugeMeasures) -> None:
    """Let no study of a kind be the one to reckon with."""
    of_kind = update(GaugeStudyRow).where(GaugeStudyRow.measures == measures)
    session.execute(of_kind.values(in_use=False))


def delete_study(session: Session, study_id: str) -> None:
    session.execute(delete(GaugeStudyRow).where(GaugeStudyRow.id == study_id))


def _study(row: GaugeStudyRow) -> KeptStudy:
    return KeptStudy(
        row.id,
        row.instrument,
        row.measures,  # type: ignore[arg-type]  # checked on entry
        row.unit,
        tuple(GaugeReading(str(p), str(o), float(v)) for p, o, v in row.readings),
        Moment(row.made_utc, row.made_offset_minutes),
        row.in_use,
    )
