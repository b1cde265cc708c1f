"""Batches: blades that go to an analyser together, as they come in the post."""

from dataclasses import dataclass
from typing import Annotated

from kessik.core.composition.reference_alloy import ReferenceShot, check_reference
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS, most
from kessik.core.records import Day, Id, LongText, Within


@dataclass(frozen=True)
class Batch:
    """Blades sent to an analyser together: whose they are, when they left and came back (ISO days,
    empty while not), by which analyser and in whose hand, and what it read of a reference alloy
    before them.
    """

    id: str
    name: str
    blade_ids: Annotated[tuple[Id, ...], Within("shots")] = ()
    owner: str = ""
    sent_on: Day = ""
    back_on: Day = ""
    analyser: str = ""
    operator: str = ""
    note: LongText = ""
    reference: ReferenceShot | None = None
    created_utc: str = ""

    @property
    def is_away(self) -> bool:
        return bool(self.sent_on) and not self.back_on


def check_batch(batch: Batch) -> None:
    """Refuse a batch without a name, that came back before it left, or holds a blade twice, or
    whose reference alloy cannot be held against its certificate.
    """
    if batch.reference is not None:
        check_reference(batch.reference)
    if not batch.name.strip():
        raise OutOfRangeError("name the batch, as you would write it on the parcel", field="name")
    if batch.sent_on and batch.back_on and batch.back_on < batch.sent_on:
        raise OutOfRangeError(
            f"it came back on {batch.back_on}, before it was sent on {batch.sent_on}",
            field="back_on",
        )
    if len(set(batch.blade_ids)) < len(batch.blade_ids):
        raise OutOfRangeError("a blade is listed twice in this batch", field="blade_ids")
    if len(batch.blade_ids) > most("shots"):
        said = LIMITS["shots"].says(str(len(batch.blade_ids)))
        raise OutOfRangeError(said, field="blade_ids")
