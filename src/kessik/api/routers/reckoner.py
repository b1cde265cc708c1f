"""The reckoner: small calculations, nothing stored."""

from typing import Annotated

from fastapi import APIRouter, Query

from kessik.api.schemas.common import Bounded, Finite
from kessik.api.schemas.reckoner import (
    AbrasiveReckonedOut,
    BevelReckonedOut,
    ExposureOut,
    FormulaBasisOut,
    HardnessReckonedOut,
    LengthOut,
    NumberOut,
)
from kessik.api.views.reckoner import grit_out
from kessik.core import reckoner
from kessik.core.errors import OutOfRangeError
from kessik.core.facts import QUANTITIES, remark
from kessik.core.sharpening.abrasives import AbrasiveScale
from kessik.core.units import mm_to_thou, thou_to_mm

router = APIRouter(tags=["reckoner"], prefix="/reckoner")

Number = Annotated[Annotated[Finite, Bounded("reckoned")] | None, Query()]
Needed = Annotated[Finite, Bounded("reckoned"), Query()]


@router.get("/bevel")
def get_bevel(
    thickness_mm: Number = None,
    side_angle_deg: Number = None,
    face_width_mm: Number = None,
    micro_side_angle_deg: Number = None,
    micro_face_width_mm: Number = None,
) -> BevelReckonedOut:
    """Any two of thickness, angle per side and bevel width give the third; micro-bevel included."""
    found = reckoner.reckon_bevel(
        thickness_mm, side_angle_deg, face_width_mm, micro_side_angle_deg, micro_face_width_mm
    )
    whole = found.whole
    asked = {"side_angle_deg": whole.side_angle_deg, "thickness_behind_edge_mm": whole.thickness_mm}
    remarks = [said for name, value in asked.items() if (said := remark(QUANTITIES[name], value))]
    return BevelReckonedOut.showing(
        found,
        thickness_thou=mm_to_thou(whole.thickness_mm),
        remarks=remarks,
        footing=FormulaBasisOut.showing(reckoner.BEVEL),
    )


@router.get("/growth")
def get_growth(height_lost_mm: Needed, primary_grind_side_deg: Needed) -> NumberOut:
    """How much thicker it gets behind the edge as height is ground off."""
    value = reckoner.reckon_growth(height_lost_mm, primary_grind_side_deg)
    return NumberOut(value=value, unit="mm", footing=FormulaBasisOut.showing(reckoner.GROWTH))


@router.get("/convex")
def get_convex(thickness_mm: Needed, height_mm: Needed) -> NumberOut:
    """The angle per side that a convex edge amounts to at a stated height."""
    value = reckoner.reckon_convex(thickness_mm, height_mm)
    return NumberOut(value=value, unit="°", footing=FormulaBasisOut.showing(reckoner.CONVEX))


@router.get("/length")
def get_length(mm: Number = None, thou: Number = None) -> LengthOut:
    """Millimetres from thousandths of an inch, or the other way."""
    if (mm is None) == (thou is None):
        raise OutOfRangeError("give mm or thou", field="mm")
    found = thou_to_mm(thou) if thou is not None else float(mm or 0.0)
    return LengthOut(
        mm=found, thou=mm_to_thou(found), footing=FormulaBasisOut.showing(reckoner.LENGTH)
    )


@router.get("/exposure")
def get_exposure(
    edge_length_mm: Needed,
    diameter_mm: Number = None,
    strands: Annotated[int, Bounded("strands"), Query()] = 1,
    cut_length_mm: Number = None,
    board_mm: Number = None,
    cuts: Number = None,
    reference_mm: Number = None,
) -> ExposureOut:
    """Exposure of the edge by one cut, and a count put on a reference edge length."""
    found = reckoner.reckon_exposure(
        edge_length_mm,
        diameter_mm=diameter_mm,
        strands=strands,
        cut_length_mm=cut_length_mm,
        board_mm=board_mm,
        cuts=cuts,
        reference_mm=reference_mm,
    )
    return ExposureOut.showing(found, footing=FormulaBasisOut.showing(reckoner.EXPOSURE))


@router.get("/abrasive")
def get_abrasive(
    scale: AbrasiveScale | None = None,
    grit: Number = None,
    size_um: Number = None,
) -> AbrasiveReckonedOut:
    """A grain size in µm from a grit, or grits from a size."""
    size, grits = reckoner.reckon_abrasive(scale, grit, size_um)
    return AbrasiveReckonedOut(
        size_um=size,
        grits=[grit_out(g) for g in grits],
        footing=FormulaBasisOut.showing(reckoner.ABRASIVE),
    )


@router.get("/hardness")
def get_hardness(hrc: Number = None, hv: Number = None) -> HardnessReckonedOut:
    """Rockwell C to Vickers, or the other way."""
    found = reckoner.reckon_hardness(hrc, hv)
    return HardnessReckonedOut(
        hrc=found[0], hv=found[1], footing=FormulaBasisOut.showing(reckoner.HARDNESS)
    )
