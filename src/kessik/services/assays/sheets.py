"""A batch handed over: as a sheet, a workbook, and the shots themselves."""

from kessik.core.composition.batches import Batch
from kessik.core.words.assay import VERDICT_WORDS, deciding, verdict_sentence
from kessik.interchange.shots_csv import write_shots
from kessik.interchange.workbook import Cell, workbook
from kessik.services.assays.verdicts import AssayedBlade, assayed_batch
from kessik.store.database import Database

_VERDICTS = (
    "blade", "sold as", "verdict", "in a sentence", "element that decides", "shots",
    "grades tried",
)  # fmt: skip  # a table is read by its rows
_MEANS = ("blade", "element", "mean, mass %", "standard uncertainty", "below", "shots")
_SHOTS = ("blade", "shot", "element", "mass %", "±", "detected", "surface", "normalised", "struck")
_WEIGHTS = ("blade", "grade", "weight of evidence", "outside its range")


def batch_xlsx(db: Database, batch_id: str) -> tuple[Batch, bytes]:
    """The batch as a workbook: verdicts, weights of evidence, means, shots."""
    batch, blades = assayed_batch(db, batch_id)
    book = workbook(
        (
            ("Verdicts", _VERDICTS, [_verdict_row(found) for found in blades]),
            ("Evidence", _WEIGHTS, [row for found in blades for row in _weight_rows(found)]),
            ("Means", _MEANS, [row for found in blades for row in _mean_rows(found)]),
            ("Shots", _SHOTS, [row for found in blades for row in _shot_rows(found)]),
        )
    )
    return batch, book


def batch_shots_csv(db: Database, batch_id: str) -> tuple[Batch, str]:
    """The shots of the batch's blades as `*.shots.csv`; those struck out are left out."""
    batch, blades = assayed_batch(db, batch_id)
    pairs = [(f.blade.code, shot) for f in blades for shot in f.shots if not shot.struck]
    return batch, write_shots(pairs)


def _verdict_row(found: AssayedBlade) -> tuple[Cell, ...]:
    assay = found.assay
    return (
        found.blade.code,
        found.blade.claimed_grade,
        VERDICT_WORDS[assay.verdict],
        verdict_sentence(assay),
        deciding(assay),
        float(len(assay.blade.counted)),
        float(assay.grades_tried),
    )


def _weight_rows(found: AssayedBlade) -> list[tuple[Cell, ...]]:
    return [
        (
            found.blade.code,
            candidate.grade.name,
            round(candidate.weight, 4) if candidate.is_in else None,
            ", ".join(f"{d.element} {d.z:+.1f}" for d in candidate.excluded_by),
        )
        for candidate in found.assay.candidates
    ]


def _mean_rows(found: AssayedBlade) -> list[tuple[Cell, ...]]:
    return [
        (
            found.blade.code,
            mean.element,
            round(mean.percent, 4) if mean.detected else None,
            round(mean.uncertainty_percent, 4),
            mean.limit_percent,
            float(mean.shots),
        )
        for mean in found.assay.blade.means
    ]


def _shot_rows(found: AssayedBlade) -> list[tuple[Cell, ...]]:
    return [
        (
            found.blade.code,
            shot.name,
            reading.element,
            reading.percent,
            reading.plus_minus_percent,
            "yes" if reading.detected else "no",
            shot.surface,
            shot.normalised,
            shot.struck,
        )
        for shot in found.shots
        for reading in shot.readings
    ]
