"""What is noted of blades and grades over the wire: energies to break, hours wet without a soak,
care.
"""

from kessik.api.schemas.common import Wire
from kessik.api.schemas.records import Answer, Body
from kessik.core.shelf.care import CareAct
from kessik.core.shelf.field_exposures import FieldExposure
from kessik.core.shelf.toughness import Energy, Toughness


class ToughnessBody(Body[Toughness], without="id struck"):
    """An energy to break, of a blade or of a grade."""


class ToughnessOut(Answer[Toughness]):
    """An energy to break, with what it was got under, in words."""

    says: str
    test_says: str
    known_from: str


class ToughnessPlaceOut(Wire):
    """What is known of a toughness, and what others have to hold beside it."""

    values: list[ToughnessOut]
    beside: list[str]


class EnergyOut(Answer[Energy]):
    """An energy with its interval, and in words."""

    says: str


class FieldExposureBody(Body[FieldExposure], without="id blade_id struck"):
    """Hours wet without a soak, with what was seen."""


class FieldExposureOut(Answer[FieldExposure]):
    """Hours wet without a soak, in words."""

    says: str


class CareBody(Body[CareAct], without="id blade_id struck"):
    """What was done to a blade for its care."""


class CareOut(Answer[CareAct]):
    """What was done to a blade for its care, in words, and when it is due again."""

    says: str
    due_says: str
