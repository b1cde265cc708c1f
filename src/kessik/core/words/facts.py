"""Facts in words."""

from kessik.core.facts import Expected, Measurement
from kessik.core.heat_treatment import HeatTreatment
from kessik.core.vocabulary import STANDINGS


def expected_words(found: Expected) -> str:
    """A thickness that went stale, and what it should be by now."""
    stale = f"thickness went stale: measured on edge {found.from_edge} ({found.was_mm:.2f} mm),"
    if found.now_mm is None:
        return f"{stale} and how much steel went since is not known"
    return f"{stale} about {found.now_mm:.2f} mm expected now; measure it"


def hardness_words(found: Measurement | None) -> str:
    """A hardness with how it is known."""
    if found is None or found.value is None:
        return "hardness not known"
    return f"{found.value:g} HRC, {STANDINGS[found.standing]}"


def hardening_words(heat: HeatTreatment) -> str:
    """How a blade was hardened, with how that is known."""
    if not heat.is_told:
        return heat.note or "how it was hardened is not known"
    parts = [
        f"austenitised at {heat.austenitising_c:g} °C" if heat.austenitising_c else "",
        f"cooled to {heat.sub_zero_c:g} °C" if heat.sub_zero_c is not None else "",
        f"tempered at {', '.join(f'{t:g}' for t in heat.tempers_c)} °C" if heat.tempers_c else "",
        STANDINGS[heat.standing],
    ]
    return ", ".join(part for part in parts if part)
