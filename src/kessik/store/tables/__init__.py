"""Typed tables."""

from kessik.store.tables.base import Base
from kessik.store.tables.bench import EventRow, RunRow
from kessik.store.tables.shelf import (
    AbrasiveRow,
    BladeRow,
    EdgeRow,
    GradeRow,
    MeasurementRow,
    PhotoRow,
    RecipeRow,
)
from kessik.store.tables.trials import TrialBladeRow, TrialRow

__all__ = [
    "AbrasiveRow",
    "Base",
    "BladeRow",
    "EdgeRow",
    "EventRow",
    "GradeRow",
    "MeasurementRow",
    "PhotoRow",
    "RecipeRow",
    "RunRow",
    "TrialBladeRow",
    "TrialRow",
]
