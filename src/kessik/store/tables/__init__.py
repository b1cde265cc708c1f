"""Typed tables."""

from kessik.store.tables.answers import AnswerRow, BoardRow, RevisionRow
from kessik.store.tables.assays import BatchBladeRow, BatchRow, ShotRow
from kessik.store.tables.base import Base
from kessik.store.tables.bench import EventRow, RunRow
from kessik.store.tables.choice import UseRow
from kessik.store.tables.hanging import CareRow, FieldExposureRow, ToughnessRow
from kessik.store.tables.instruments import InstrumentRow, PairedDeviceRow, ReferenceCheckRow
from kessik.store.tables.packages import (
    KeptElsewhereRow,
    ReportMadeRow,
    SameBladeRow,
    TesterRow,
    TrialOriginRow,
)
from kessik.store.tables.pictures import PictureRow, PictureUseRow, ShotFileRow
from kessik.store.tables.shelf import (
    AbrasiveRow,
    BladeRow,
    EdgeRow,
    GradeRow,
    MeasurementRow,
    RecipeRow,
)
from kessik.store.tables.soaks import CouponRow, LookRow, SoakActRow, SoakRow
from kessik.store.tables.stock import LotCorrectionRow, LotRow
from kessik.store.tables.trainings import GaugeStudyRow, RaterErrorRow, TrainingRow
from kessik.store.tables.trials import MethodRow, TrialBladeRow, TrialRow
from kessik.store.tables.upkeep import ArchivedRow, BinRow, SheetReadingRow, TraceRow

__all__ = [
    "AbrasiveRow",
    "AnswerRow",
    "ArchivedRow",
    "Base",
    "BatchBladeRow",
    "BatchRow",
    "BinRow",
    "BladeRow",
    "BoardRow",
    "CareRow",
    "CouponRow",
    "EdgeRow",
    "EventRow",
    "FieldExposureRow",
    "GaugeStudyRow",
    "GradeRow",
    "InstrumentRow",
    "KeptElsewhereRow",
    "LookRow",
    "LotCorrectionRow",
    "LotRow",
    "MeasurementRow",
    "MethodRow",
    "PairedDeviceRow",
    "PictureRow",
    "PictureUseRow",
    "RaterErrorRow",
    "RecipeRow",
    "ReferenceCheckRow",
    "ReportMadeRow",
    "RevisionRow",
    "RunRow",
    "SameBladeRow",
    "SheetReadingRow",
    "ShotFileRow",
    "ShotRow",
    "SoakActRow",
    "SoakRow",
    "TesterRow",
    "ToughnessRow",
    "TraceRow",
    "TrainingRow",
    "TrialBladeRow",
    "TrialOriginRow",
    "TrialRow",
    "UseRow",
]
