"""Answers of the reckoner over the wire."""

from kessik.api.schemas.common import Wire
from kessik.api.schemas.records import Answer
from kessik.core.geometry import Bevel
from kessik.core.reckoner import BevelReckoned, ExposureReckoned, FormulaBasis
from kessik.core.sharpening.abrasives import Grit


class FormulaBasisOut(Answer[FormulaBasis]):
    """What a calculation stands on."""


class BevelOut(Answer[Bevel]):
    """A wedge: angles in degrees, lengths in mm."""


class BevelReckonedOut(Answer[BevelReckoned]):
    """The bevel asked for; `main` is what stands behind a micro-bevel. `thickness_thou` beside the
    mm.
    """

    thickness_thou: float
    remarks: list[str]
    footing: FormulaBasisOut


class NumberOut(Wire):
    """One figure with its unit."""

    value: float
    unit: str
    footing: FormulaBasisOut


class ExposureOut(Answer[ExposureReckoned]):
    """Exposure by one cut, and a count put on the reference length."""

    footing: FormulaBasisOut


class GritOut(Answer[Grit]):
    """A grit of one scale."""

    name: str
    what: str


class AbrasiveReckonedOut(Wire):
    """A grain size with its names on every scale that reaches so far."""

    size_um: float
    grits: list[GritOut]
    footing: FormulaBasisOut


class HardnessReckonedOut(Wire):
    """Rockwell C and Vickers."""

    hrc: float
    hv: float
    footing: FormulaBasisOut


class LengthOut(Wire):
    """Millimetres and thousandths of an inch."""

    mm: float
    thou: float
    footing: FormulaBasisOut


class BrineOut(Wire):
    """A brine in every measure, and the salt for so much water."""

    salt_percent: float
    g_per_l: float
    density_kg_per_l: float
    salt_g: float
    footing: FormulaBasisOut


class BrineChangeOut(Wire):
    """What to add to a brine."""

    salt_g: float
    water_g: float
    says: str
    footing: FormulaBasisOut


class ConditionsOut(Wire):
    """Conditions in words, and what of them a spray cabinet may not have."""

    ph_says: str
    faults: list[str]
    footing: FormulaBasisOut


class RatingsOut(Wire):
    """The grades of an area by every standard."""

    says: list[str]
    footing: FormulaBasisOut
