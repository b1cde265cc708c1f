"""The reckoner: the small calculations of the bench, each with its formula, where it holds and
where it is from.
"""

from dataclasses import dataclass

from kessik.core.errors import OutOfRangeError
from kessik.core.geometry import (
    Bevel,
    bevel,
    equivalent_side_angle_deg,
    included_angle_deg,
    thickness_growth_mm,
    with_micro_bevel,
)
from kessik.core.hardness import hrc_from_hv, hv_from_hrc
from kessik.core.media import (
    board_area_mm2,
    cuts_at_reference_length,
    exposure_mm2_per_mm,
    rope_area_mm2,
)
from kessik.core.sharpening.abrasives import SCALES, Grit, nearest_grit, size_um


@dataclass(frozen=True)
class FormulaBasis:
    """What a calculation stands on: formula, limits of validity, source."""

    formula: str
    holds: str
    source: str


BEVEL = FormulaBasis(
    "w = t ÷ (2 sin θ), h = t ÷ (2 tan θ); with a micro-bevel t is shared by two such wedges",
    "flat bevels, ground alike on both sides; on a convex edge use the equivalent angle at a"
    " stated height",
    "plane trigonometry",
)
GROWTH = FormulaBasis(
    "Δt = 2 × height lost × tan(primary grind per side)",
    "flat primary grind; a hollow one grows slower at first and faster later",
    "plane trigonometry",
)
CONVEX = FormulaBasis(
    "θ = arctan(t ÷ 2h)",
    "says nothing of the curve between the apex and that height",
    "plane trigonometry",
)
EXPOSURE = FormulaBasis(
    "exposure = A ÷ L; rope A = strands × π d² ÷ 4, board A = cut length × thickness; "
    "count at a reference length = n × L ref ÷ L",
    "compares runs in one medium, cut and lot; between media it orders cost, not sharpness. Board"
    " thickness includes the air in the flutes, so only boards of one construction compare",
    "plane geometry; counting by exposure is common practice",
)
ABRASIVE = FormulaBasis(
    "median grain size by grit number; between listed grits along the logarithm",
    "grains of one grit spread widely, and scales differ in how they count; read it as an order of"
    " coarseness",
    "FEPA 42 and 43, ASTM E11; water stones after JIS R 6001, where published tables differ",
)
HARDNESS = FormulaBasis(
    "linear between the entries of the table",
    "non-austenitic steels, 20 to 68 HRC; a converted value is not a measured one",
    "ASTM E140, from memory",
)
LENGTH = FormulaBasis("1 thou = 0.0254 mm", "exact", "the definition of the inch")


@dataclass(frozen=True)
class BevelReckoned:
    """Edge bevel and, where there is one, micro-bevel; angles in degrees, lengths in mm."""

    whole: Bevel
    included_deg: float
    main: Bevel
    micro: Bevel | None
    cutting_included_deg: float


def reckon_bevel(
    thickness_mm: float | None,
    side_angle_deg: float | None,
    face_width_mm: float | None,
    micro_side_angle_deg: float | None,
    micro_face_width_mm: float | None,
) -> BevelReckoned:
    """Any two of thickness, angle per side and bevel width give the third; a micro-bevel takes its
    share of the thickness. The width is that of the bevel without one. OutOfRangeError as the
    geometry says.
    """
    whole = bevel(
        thickness_mm=thickness_mm, side_angle_deg=side_angle_deg, face_width_mm=face_width_mm
    )
    included = included_angle_deg(whole.side_angle_deg)
    if micro_side_angle_deg is None and micro_face_width_mm is None:
        return BevelReckoned(whole, included, whole, None, included)
    if micro_side_angle_deg is None or micro_face_width_mm is None:
        missing = "micro_side_angle_deg" if micro_side_angle_deg is None else "micro_face_width_mm"
        raise OutOfRangeError("a micro-bevel needs its angle and its width", field=missing)
    main, micro = with_micro_bevel(whole, micro_side_angle_deg, micro_face_width_mm)
    return BevelReckoned(whole, included, main, micro, included_angle_deg(micro_side_angle_deg))


def reckon_growth(height_lost_mm: float, primary_grind_side_deg: float) -> float:
    """Growth of the thickness behind the edge, mm."""
    if not 0 < primary_grind_side_deg <= 20:
        raise OutOfRangeError(
            f"a primary grind of {primary_grind_side_deg:g}° per side is out of range: give more"
            " than 0 and up to 20°",
            field="primary_grind_side_deg",
            value=primary_grind_side_deg,
        )
    return thickness_growth_mm(height_lost_mm, primary_grind_side_deg)


def reckon_convex(thickness_mm: float, height_mm: float) -> float:
    """Equivalent angle per side of a convex edge, degrees."""
    return equivalent_side_angle_deg(thickness_mm, height_mm)


@dataclass(frozen=True)
class ExposureReckoned:
    """Area of one cut (mm²), exposure (mm²/mm), and counts put on the reference length."""

    area_mm2: float
    exposure_mm2_per_mm: float
    cuts_at_reference: float | None


def reckon_exposure(
    edge_length_mm: float,
    *,
    diameter_mm: float | None = None,
    strands: int = 1,
    cut_length_mm: float | None = None,
    board_mm: float | None = None,
    cuts: float | None = None,
    reference_mm: float | None = None,
) -> ExposureReckoned:
    """Exposure by one cut of rope (diameter) or of board (cut length and thickness)."""
    if diameter_mm is not None:
        area = rope_area_mm2(diameter_mm, strands)
    elif cut_length_mm is not None and board_mm is not None:
        area = board_area_mm2(cut_length_mm, board_mm)
    else:
        raise OutOfRangeError(
            "give the rope's diameter, or length of cut and thickness of the board", field="medium"
        )
    scaled = None
    if cuts is not None and reference_mm is not None:
        scaled = cuts_at_reference_length(cuts, edge_length_mm, reference_mm)
    return ExposureReckoned(area, exposure_mm2_per_mm(area, edge_length_mm), scaled)


def reckon_abrasive(
    scale: str | None, grit: float | None, wanted_um: float | None
) -> tuple[float, list[Grit]]:
    """A size in µm, from a grit or as given, with the nearest grit of every scale that reaches so
    far.
    """
    asked = None
    if wanted_um is None:
        if scale is None or grit is None:
            raise OutOfRangeError("give a scale and a grit, or a size in µm", field="grit")
        asked = size_um(scale, grit)
        wanted_um = asked.size_um
    found = [asked] if asked else []
    for name in SCALES:
        if asked is not None and name == asked.scale:
            continue
        try:
            found.append(nearest_grit(name, wanted_um))
        except OutOfRangeError:
            if not wanted_um > 0:
                raise
    return wanted_um, found


def reckon_hardness(hrc: float | None, hv: float | None) -> tuple[float, float]:
    """HRC and HV, one from the other."""
    if hrc is not None:
        return hrc, hv_from_hrc(hrc)
    if hv is not None:
        return hrc_from_hv(hv), hv
    raise OutOfRangeError("give a hardness in HRC or in HV", field="hrc")
