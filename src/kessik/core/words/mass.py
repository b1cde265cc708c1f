"""Mass lost to corrosion, in words."""

from collections.abc import Mapping

from kessik.core.corrosion.mass import CabinetCheck, MassGap, MassLoss

_GAPS: Mapping[MassGap, str] = {
    "no_mass_before": "its mass before is not recorded",
    "not_cleaned": "not weighed cleaned yet",
    "no_area": "without its area there is no g/m²",
    "no_density": "without its density there is no mm a year",
    "no_blank": "what the cleaning itself takes off is not subtracted: record a blank",
}


def gap_words(loss: MassLoss) -> str:
    """What is missing for a whole result; empty where nothing is."""
    return "; ".join(_GAPS[gap] for gap in loss.gaps)


def mass_words(value_mg: float | None) -> str:
    """A mass lost or gained, mg; a dash where it is not known."""
    return "–" if value_mg is None else f"{value_mg:.1f}".replace("-", "−")


def loss_words(loss: MassLoss) -> tuple[str, str]:
    """g/m² and mm a year, with honest digits; a dash where either cannot be said."""
    area = "–" if loss.loss_g_m2 is None else f"{loss.loss_g_m2:.3g}".replace("-", "−")
    rate = "–" if loss.rate_mm_a is None else f"{loss.rate_mm_a:.2g}".replace("-", "−")
    return area, rate


def cabinet_words(check: CabinetCheck, name: str) -> str:
    """Whether a cabinet corrodes as it should."""
    lost = f"{name} lost {check.loss_g_m2:.3g} g/m² in 48 h"
    wanted = f"{check.low_g_m2:g} to {check.high_g_m2:g} (ISO 9227, unconfirmed)"
    if check.is_within:
        return f"{lost}, within {wanted}: the cabinet is as severe as it should be."
    way = "milder" if check.loss_g_m2 < check.low_g_m2 else "more severe"
    return f"{lost}, outside {wanted}: the cabinet is {way} than it should be."
