"""Answers of the reckoner over the wire."""

from dataclasses import asdict

from kessik.api.schemas.common import Wire
from kessik.core.facts import Provenance
from kessik.core.geometry import Bevel
from kessik.core.reckoner import FormulaBasis
from kessik.core.sharpening.abrasives import SCALES, Grit


class FootingOut(Wire):
    """What a calculation stands on."""

    formula: str
    holds: str
    source: str

    @classmethod
    def of(cls, footing: FormulaBasis) -> "FootingOut":
        return cls(**asdict(footing))


class BevelOut(Wire):
    """A wedge: angles in degrees, lengths in mm."""

    thickness_mm: float
    side_angle_deg: float
    face_width_mm: float
    height_mm: float

    @classmethod
    def of(cls, bevel: Bevel) -> "BevelOut":
        return cls(**asdict(bevel))


class BevelReckonedOut(Wire):
    """The bevel asked for; `main` is what stands behind a micro-bevel. `thickness_thou` beside the
    mm.
    """

    whole: BevelOut
    thickness_thou: float
    included_deg: float
    main: BevelOut
    micro: BevelOut | None
    cutting_included_deg: float
    remarks: list[str]
    footing: FootingOut


class NumberOut(Wire):
    """One figure with its unit."""

    value: float
    unit: str
    footing: FootingOut


class ExposureOut(Wire):
    """Exposure by one cut, and a count put on the reference length."""

    area_mm2: float
    exposure_mm2_per_mm: float
    cuts_at_reference: float | None
    footing: FootingOut


class GritOut(Wire):
    """A grit of one scale."""

    scale: str
    name: str
    what: str
    grit: float
    size_um: float
    listed: bool
    standing: Provenance
    source: str

    @classmethod
    def of(cls, grit: Grit) -> "GritOut":
        scale = SCALES[grit.scale]
        return cls(**asdict(grit), name=f"{scale.prefix}{grit.grit:g}", what=scale.what)


class AbrasiveReckonedOut(Wire):
    """A grain size with its names on every scale that reaches so far."""

    size_um: float
    grits: list[GritOut]
    footing: FootingOut


class HardnessReckonedOut(Wire):
    """Rockwell C and Vickers."""

    hrc: float
    hv: float
    footing: FootingOut


class LengthOut(Wire):
    """Millimetres and thousandths of an inch."""

    mm: float
    thou: float
    footing: FootingOut
