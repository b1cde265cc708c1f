"""Trials, blades and edges."""

from collections.abc import Sequence

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from kessik.core.comparison.matching import MatchingRule
from kessik.core.protocols.methods import Method
from kessik.store.records import Blade, Edge, Moment, Trial
from kessik.store.tables import BladeRow, EdgeRow, TrialBladeRow, TrialRow


def all_trials(session: Session) -> list[Trial]:
    """Every trial, newest first."""
    rows = session.scalars(select(TrialRow).order_by(TrialRow.created_utc.desc(), TrialRow.id))
    return [_trial(row) for row in rows]


def find_trial(session: Session, trial_id: str) -> Trial | None:
    row = session.get(TrialRow, trial_id)
    return _trial(row) if row else None


def save_trial(session: Session, trial: Trial) -> None:
    """Insert or update."""
    session.merge(
        TrialRow(
            id=trial.id,
            name=trial.name,
            question=trial.question,
            factor=trial.rule.factor,
            hardness_reading=trial.rule.hardness_reading,
            tolerances=dict(trial.rule.tolerances),
            keen_gf=trial.method.keen_gf,
            dull_gf=trial.method.dull_gf,
            schedule=trial.method.schedule,
            check_every=trial.method.every,
            edges_per_blade=trial.edges_per_blade,
            medium=trial.medium,
            rope_diameter_mm=trial.rope_diameter_mm,
            created_utc=trial.created.utc,
            created_offset_minutes=trial.created.offset_minutes,
            source=trial.source,
        )
    )
    session.flush()


def blades_of(session: Session, trial_id: str) -> list[Blade]:
    """The trial's blades in their places, with all their edges."""
    pairs = session.execute(
        select(BladeRow, TrialBladeRow.place)
        .join(TrialBladeRow, TrialBladeRow.blade_id == BladeRow.id)
        .where(TrialBladeRow.trial_id == trial_id)
        .order_by(TrialBladeRow.place)
    ).all()
    edges = session.scalars(
        select(EdgeRow).where(EdgeRow.blade_id.in_([blade.id for blade, _ in pairs])).order_by(EdgeRow.number)
    ).all()
    return [_blade(row, place, [edge for edge in edges if edge.blade_id == row.id]) for row, place in pairs]


def save_blade(session: Session, blade: Blade) -> None:
    """Insert or update the blade's own facts; its edges are saved by themselves."""
    session.merge(
        BladeRow(
            id=blade.id,
            code=blade.code,
            claimed_grade=blade.claimed_grade,
            hardness_hrc=blade.hardness_hrc,
            hardness_standing=blade.hardness_standing,
            usual_hardness_low_hrc=blade.usual_hardness_low_hrc,
            usual_hardness_high_hrc=blade.usual_hardness_high_hrc,
            edge_length_mm=blade.edge_length_mm,
            note=blade.note,
            other=dict(blade.other),
        )
    )
    session.flush()


def place_blade(session: Session, trial_id: str, blade_id: str) -> int:
    """Put a blade in the trial's next free place."""
    taken = session.scalar(select(func.max(TrialBladeRow.place)).where(TrialBladeRow.trial_id == trial_id))
    place = 0 if taken is None else taken + 1
    session.add(TrialBladeRow(trial_id=trial_id, blade_id=blade_id, place=place))
    session.flush()
    return place


def remove_blade(session: Session, trial_id: str, blade_id: str) -> None:
    """Take a blade out of a trial; the blade itself stays."""
    row = session.get(TrialBladeRow, (trial_id, blade_id))
    if row is not None:
        session.delete(row)
        session.flush()


def save_edge(session: Session, edge: Edge) -> None:
    """Insert or update."""
    session.merge(
        EdgeRow(
            id=edge.id,
            blade_id=edge.blade_id,
            number=edge.number,
            side_angle_deg=edge.side_angle_deg,
            micro_bevel_side_deg=edge.micro_bevel_side_deg,
            thickness_behind_edge_mm=edge.thickness_behind_edge_mm,
            note=edge.note,
            other=dict(edge.other),
        )
    )
    session.flush()


def _trial(row: TrialRow) -> Trial:
    return Trial(
        id=row.id,
        name=row.name,
        question=row.question,
        created=Moment(row.created_utc, row.created_offset_minutes),
        rule=MatchingRule(row.factor, row.hardness_reading, row.tolerances),  # type: ignore[arg-type]  # checked on entry
        method=Method(row.keen_gf, row.dull_gf, row.schedule, row.check_every),  # type: ignore[arg-type]  # checked on entry
        edges_per_blade=row.edges_per_blade,
        medium=row.medium,
        rope_diameter_mm=row.rope_diameter_mm,
        source=row.source,
    )


def _blade(row: BladeRow, place: int, edges: Sequence[EdgeRow]) -> Blade:
    return Blade(
        id=row.id,
        code=row.code,
        place=place,
        claimed_grade=row.claimed_grade,
        hardness_hrc=row.hardness_hrc,
        hardness_standing=row.hardness_standing,  # type: ignore[arg-type]  # checked on entry
        usual_hardness_low_hrc=row.usual_hardness_low_hrc,
        usual_hardness_high_hrc=row.usual_hardness_high_hrc,
        edge_length_mm=row.edge_length_mm,
        note=row.note,
        other=row.other,
        edges=tuple(_edge(edge) for edge in edges),
    )


def _edge(row: EdgeRow) -> Edge:
    return Edge(
        id=row.id,
        blade_id=row.blade_id,
        number=row.number,
        side_angle_deg=row.side_angle_deg,
        micro_bevel_side_deg=row.micro_bevel_side_deg,
        thickness_behind_edge_mm=row.thickness_behind_edge_mm,
        note=row.note,
        other=row.other,
    )
