"""Rust in words: areas, hours, ratings, and what stands against a picture."""

from collections.abc import Sequence

from kessik.core.corrosion.course import NOTHING_PERCENT, Bounds, FirstRust
from kessik.core.corrosion.methods import InspectionStage
from kessik.core.corrosion.photo.area import Doubt
from kessik.core.corrosion.photo.outline import Unsure
from kessik.core.corrosion.photo.spots import Spots
from kessik.core.corrosion.ranking import RankEntry
from kessik.core.corrosion.ratings import Rating, Standard
from kessik.core.words.sentences import counted

DOUBT_WORDS: dict[Doubt, str] = {
    "too_fine": "The spots are too fine to be measured here: move closer, or count them.",
    "dark_steel": "The steel is too dark for its colour to be told from rust: mark the rust with"
    " the brush.",
    "black": "There are dark places without colour: black rust, an etched mark or a pit in"
    " shadow. Leave marks out, or mark it with the brush; they count in the upper bound only.",
    "tint": "Part of the steel is tinted without a border: straw, oil or a warm reflection. It is"
    " not counted as rust.",
    "salt": "There are light grains on the steel: rust may lie under a crust of salt. Rinse and"
    " inspect again.",
    "burnt": "Part of the blade is overexposed: turn the light, and take the picture again.",
    "small": "The blade is small in this picture: move closer.",
    "no_card": "No white card was pointed out, so colours lean on the steel being grey.",
    "wide_mask": "The mask reaches past the blade; what looks like the ground was left out."
    " Move it.",
}  # fmt: skip


UNSURE_WORDS: dict[Unsure, str] = {
    "which_part": "Blade and handle are hard to tell apart here.",
    "unsteady": "The blade's border is not found the same way twice.",
    "faint": "Much of the blade's border is as light as the ground beside it.",
    "dark": "What was found is mostly too dark for bare steel.",
    "little_steel": "Little of what was found is grey like steel.",
    "two_alike": "Two pieces that look alike lie in this picture: outline each by itself.",
}  # fmt: skip
TAP_BOTH_ENDS = "Press on the plunge line, then on the tip."


def unsure_words(unsure: Sequence[Unsure]) -> str:
    """Why an outline was not proposed, and what to do; empty where it was."""
    return f"{UNSURE_WORDS[unsure[0]]} {TAP_BOTH_ENDS}" if unsure else ""


AFTER_STAGE: dict[InspectionStage, str] = {
    "as_found": "as found", "rinsed": "after rinsing", "wiped": "after wiping",
    "scoured": "after scouring",
}  # fmt: skip


def percent_words(value: float) -> str:
    """An area with honest digits."""
    if value < 0.005:
        return "0"
    return f"{value:.2f}" if value < 1 else f"{value:.1f}" if value < 20 else f"{value:.0f}"


def area_words(area: Bounds) -> str:
    """An area with its bounds, once."""
    low, high = percent_words(area.low), percent_words(area.high)
    if low == high:
        return f"{low} %"
    span = f"{low} to {high} %"
    return span if area.best is None else f"{percent_words(area.best)} %, {span}"


def spots_words(spots: Spots) -> str:
    """How many spots there are, and how large where a length in the picture is known."""
    said = counted(spots.count, "spot")
    if spots.per_cm2 is None or spots.middle_mm is None or spots.largest_mm is None:
        return said
    return (
        f"{said}, {spots.per_cm2:.2g} to a cm²; half of them under {spots.middle_mm:.2g} mm, the"
        f" largest {spots.largest_mm:.2g} mm"
    )


def hours_words(hours: float) -> str:
    """Hours of a soak, in days from three on."""
    if hours < 1:
        return f"{60 * hours:.0f} min"
    if hours < 10:
        whole, minutes = divmod(round(60 * hours), 60)
        return f"{whole} h {minutes} min" if minutes else f"{whole} h"
    if hours < 72:
        return f"{hours:.0f} h"
    days = hours / 24
    return f"{days:.3g} days"


def entry_words(entry: RankEntry) -> str:
    """The area of a coupon; sides too far apart for a mean, each by itself."""
    if not entry.unlike_sides:
        return area_words(entry.area)
    return "; ".join(f"{side} {area_words(area)}" for side, area in entry.unlike_sides)


def superficial_words(area: Bounds) -> str:
    """How much of what was found wiped off."""
    if area.high <= NOTHING_PERCENT:
        return "nothing wiped off"
    if area.middle <= NOTHING_PERCENT:
        return f"at most {percent_words(area.high)} % wiped off"
    return f"{area_words(area)} wiped off: superficial"


def first_words(first: FirstRust) -> str:
    """When rust was first seen, between looks."""
    if first.by_h is None:
        return f"no rust by {hours_words(first.after_h)}" if first.after_h else "not inspected"
    if first.after_h == 0:
        return f"rust by {hours_words(first.by_h)}"
    return f"first rust between {hours_words(first.after_h)} and {hours_words(first.by_h)}"


def doubts_words(doubts: Sequence[Doubt]) -> list[str]:
    """What stands against an area read from a picture."""
    return [DOUBT_WORDS[doubt] for doubt in doubts]


STANDARD_WORDS: dict[Standard, str] = {
    "iso_10289": "ISO 10289", "astm_d610": "ASTM D610", "iso_4628_3": "ISO 4628-3",
}  # fmt: skip
BORROWED = "These grades are from standards written for coatings."


def rating_words(rating: Rating) -> str:
    """A grade, or between which grades it lies."""
    prefix = "Ri " if rating.standard == "iso_4628_3" else ""
    name = STANDARD_WORDS[rating.standard]
    if rating.is_one:
        return f"{name}: {prefix}{rating.worst}"
    low, high = sorted((rating.worst, rating.best))
    span = f"{prefix}{low} to {high}"
    return f"{name}: {span}" if rating.grade is None else f"{name}: {prefix}{rating.grade} ({span})"
