"""Composition against performance, and two recipes side by side, in words."""

from collections.abc import Sequence

from kessik.core.heat_treatment import Caveat
from kessik.core.trials.performance import FEWEST_THAT_SAY_MUCH, Trend
from kessik.core.trials.points import BladePoint, FarBelowUsual
from kessik.core.units import format_to_uncertainty
from kessik.core.words.sentences import as_sentence, counted


def trend_words(found: Trend, x: str, y: str) -> str:
    """What so few blades say of a trend, and how little that is."""
    of = counted(found.blades, "blade")
    if found.rho is None:
        return f"{of.capitalize()} of known {x}: too few, or too alike, for any trend."
    way = "rises" if found.rho > 0 else "falls"
    if found.low is None or found.high is None:
        return f"Over {of} {y} {way} with {x}; with so few, chance does the same often."
    span = f"{found.rho:+.2f}, {found.low:+.2f} to {found.high:+.2f}".replace("-", "−")
    interval = f"rank correlation {span}"
    if found.low <= 0.0 <= found.high:
        return f"Over {of} no trend of {y} with {x} can be told from chance ({interval})."
    few = "; few blades prove little" if found.blades < FEWEST_THAT_SAY_MUCH else ""
    return f"Over {of} {y} {way} with {x} ({interval}){few}."


def travel_words(x: str, others: Sequence[str]) -> str:
    """What travels together, and so cannot be credited apart."""
    if not others:
        return ""
    named = ", ".join(others[:5]) + (" and others" if len(others) > 5 else "")
    return (
        f"{as_sentence(x)} varies together with {named} over these blades: the effect may"
        " come from either."
    )


def caveat_words(found: Caveat) -> str:
    """What makes a comparison unequal, or a blade risky, by its heat treatment."""
    values = [f"{value:g}" for value in found.values]
    match found.what:
        case "hardening_unknown":
            return "the hardening of one of them is not recorded: this is not an equal comparison"
        case "unequal_austenitising":
            return (
                f"austenitised at {values[0]} and at {values[1]} °C: the hotter one has more"
                " chromium and carbon in solution, so rust and hardness compare heat treatments"
            )
        case "unequal_sub_zero":
            return "one was cooled below zero and the other not: the other may hold soft austenite"
        case "unequal_temper":
            return (
                f"tempered at {values[0]} and at {values[1]} °C: the hot temper costs stainlessness"
            )
        case "unequal_hardness":
            return (
                f"{values[0]} and {values[1]} HRC: a softer edge wears sooner, whatever its steel"
            )
        case "retained_austenite":
            return (
                f"tempered at {values[0]} °C without a sub-zero step: a high-alloy steel may hold"
                " retained austenite"
            )
        case "secondary_temper":
            return f"tempered at {values[0]} °C: secondary hardening costs stainlessness"


def trial_life_words(trial: str, point: BladePoint) -> str:
    """How far a blade went in a trial."""
    if point.estimate is None or point.low is None or point.high is None:
        return f"{trial}: {point.stage} not bounded on both sides"
    estimate, low, high = (
        format_to_uncertainty(value, point.low, point.high)
        for value in (point.estimate, point.low, point.high)
    )
    return f"{trial}: {estimate} {point.unit} to {point.stage} ({low} to {high})"


def far_below_words(found: FarBelowUsual) -> str:
    """A life far below the usual of its grade, and what to look at."""
    point = found.point
    lives = "life" if found.others == 1 else "lives"
    return (
        f"{point.code} goes {point.estimate:.0f} {point.unit}, where {found.grade} usually gives"
        f" about {found.usual:.0f} ({found.others} {lives}): look at the edge, lot, hardness and"
        " heat treatment, and at whether it is the grade it is sold as."
    )


NOT_MEASURED = "Both columns are what makers claim; nothing in them was measured here."
EQUAL_COMPARISON = (
    "An equal comparison: both hardened by one hand to the same hardness, each"
    " as its steel needs, sub-zero treated alike; or each as it is usually hardened, and named so."
)
