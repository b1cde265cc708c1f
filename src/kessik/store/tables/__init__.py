"""Typed tables."""

from kessik.store.tables.base import Base
from kessik.store.tables.bench import EventRow, RunRow
from kessik.store.tables.trials import BladeRow, EdgeRow, TrialBladeRow, TrialRow

__all__ = ["Base", "BladeRow", "EdgeRow", "EventRow", "RunRow", "TrialBladeRow", "TrialRow"]
