"""The words of the job: every choice that a tester meets, with the label that screens, files and
sentences give it.

One table a list. The contract prints them for the web side, whose lists and labels follow.
"""

from collections.abc import Mapping
from typing import Any, get_args

from kessik.core.choice.uses import ChosenBy
from kessik.core.comparison.matching import HardnessReading, MatchState
from kessik.core.comparison.variables import Factor
from kessik.core.composition.grades import Route
from kessik.core.composition.shots import Normalised, PlusMinusIs, Surface
from kessik.core.corrosion import fairness
from kessik.core.corrosion.action import PART_STATES
from kessik.core.corrosion.fairness import HeldStatus, SoakFactor
from kessik.core.corrosion.methods import CouponSide, InspectionStage, Scale, TendKind
from kessik.core.corrosion.soaks import (
    OF_ONE_COUPON,
    ActKind,
    CouponRole,
    Discolouration,
    Region,
)
from kessik.core.devices import Grant, InstrumentKind
from kessik.core.facts import Provenance
from kessik.core.finding import FoundKind
from kessik.core.gauge.kept import GaugeMeasures
from kessik.core.geometry import ZoneUse
from kessik.core.packages import Hidden
from kessik.core.planning.calendar import WorkKind
from kessik.core.planning.order import OrderKind
from kessik.core.planning.suiting import InHand, TestQuestion
from kessik.core.protocols.checks import SharpIs
from kessik.core.protocols.methods import (
    Confirmation,
    CountUnit,
    CutKind,
    MediumKind,
    ScheduleKind,
    StopKind,
    Together,
)
from kessik.core.sharpening.abrasives import AbrasiveScale
from kessik.core.sharpening.settled import RuleKind
from kessik.core.shelf.blades import TrialRole
from kessik.core.shelf.care import CareKind, TookOff
from kessik.core.shelf.edges import BurrCheck, DamageKind, LampCheck
from kessik.core.shelf.field_exposures import FieldSeen
from kessik.core.shelf.toughness import Orientation, ToughnessTest
from kessik.core.standings.board import Asking, GroupBy
from kessik.core.stock import LotKind
from kessik.core.trials.paper.sheets import (
    AngleIs,
    BladeKnown,
    Change,
    ForceUnit,
    OnThere,
    Shape,
    SheetStatus,
)
from kessik.core.trials.performance import YieldKind
from kessik.core.units import MM_PER_LENGTH

Words = Mapping[str, str]

COUNT_UNITS: Mapping[CountUnit, str] = {
    "cuts": "cuts", "mm": "mm", "m": "m", "in": "in", "ft": "ft", "cycles": "cycles",
    "layers": "layers", "strokes": "strokes",
}  # fmt: skip  # a table is read by its rows
LENGTH_UNITS: Words = {unit: unit for unit in MM_PER_LENGTH}
MEDIA: Mapping[MediumKind, str] = {
    "rope": "rope", "board": "corrugated board", "card": "card stack",
    "mixed": "several, by a recipe",
}  # fmt: skip  # a table is read by its rows
CUTS: Mapping[CutKind, str] = {"slice": "slice", "push": "push", "stroke": "machine stroke"}
SCHEDULES: Mapping[ScheduleKind, str] = {
    "adaptive": "when Kessik says", "every": "at even gaps", "geometric": "at growing gaps",
    "at": "at counts I name", "ends": "before and after the dose",
}  # fmt: skip  # a table is read by its rows
STOPS: Mapping[StopKind, str] = {
    "limit": "a stage is lost", "stages": "all stages are lost, in order",
    "dose": "an amount is cut", "cycles": "so many rounds are done",
    "tester": "the tester says so",
}  # fmt: skip  # a table is read by its rows
CONFIRMATIONS: Mapping[Confirmation, str] = {
    "none": "nothing more", "same_count": "the next reading at the same count",
    "next_check": "the next check",
}  # fmt: skip  # a table is read by its rows
TOGETHER: Mapping[Together, str] = {
    "any": "any of them fails", "all": "all of them fail at one count",
}  # fmt: skip  # a table is read by its rows
OWN_RESULTS: Words = {
    "pass_fail": "pass or fail", "scale": "a grade on a scale", "number": "a number",
}  # fmt: skip  # a table is read by its rows
SHARP_IS: Mapping[SharpIs, str] = {"": "choose", "low": "a low number", "high": "a high number"}
FACTORS: Mapping[Factor, str] = {
    "steel": "steel", "heat_treatment": "heat treatment", "hardness": "hardness",
    "edge_finish": "edge finish", "flat_finish": "flat finish", "finish": "finish",
    "angle": "edge angle", "geometry": "geometry", "coating": "coating", "regime": "sharpening",
    "medium": "medium",
}  # fmt: skip  # a table is read by its rows
OFFERED_FACTORS: Words = {name: label for name, label in FACTORS.items() if name != "finish"}
"""What a new trial can vary; “finish” is what older trials say that do not tell which."""
HARDNESS_READINGS: Mapping[HardnessReading, str] = {
    "same_hardness": "the same, within ±1 HRC",
    "as_usually_hardened": "as usual for each grade",
}
MATCH_STATES: Mapping[MatchState, str] = {
    "matched": "matched", "factor": "the factor", "confounded": "not matched",
    "pending": "not known",
}  # fmt: skip  # a table is read by its rows
SETTLED_RULES: Mapping[RuleKind, str] = {
    "edge_number": "from a number on, since new or damage",
    "steel_removed": "once enough steel is removed", "every_edge": "every sharpening",
}  # fmt: skip  # a table is read by its rows
TRIAL_ROLES: Mapping[TrialRole, str] = {
    "": "one of those compared", "low_reference": "the low reference",
    "high_reference": "the high reference",
}  # fmt: skip  # a table is read by its rows
ORDERS: Mapping[OrderKind, str] = {
    "latin_square": "Latin square", "abba": "there and back (two blades)",
    "shuffle": "shuffled anew", "alternate": "in turn, within one piece of board",
}  # fmt: skip  # a table is read by its rows
WORK: Mapping[WorkKind, str] = {"prepare": "prepare", "cut": "cut", "verify": "cut again"}
STANDINGS: Mapping[Provenance, str] = {
    "measured_here": "measured here", "measured_elsewhere": "measured elsewhere",
    "standard": "from a standard", "literature": "from the literature",
    "claimed": "claimed by the maker", "guessed": "guessed",
}  # fmt: skip  # a table is read by its rows
BURR_CHECKS: Mapping[BurrCheck, str] = {
    "": "not looked for", "gone": "gone", "traces": "traces left",
}  # fmt: skip  # a table is read by its rows
LAMP_CHECKS: Mapping[LampCheck, str] = {
    "": "not looked at", "nothing glints": "nothing glints", "glints": "glints are seen",
}  # fmt: skip  # a table is read by its rows
DAMAGES: Mapping[DamageKind, str] = {
    "glint": "glint", "roll": "roll", "chip": "chip", "burr": "burr",
}  # fmt: skip  # a table is read by its rows
ZONE_USES: Mapping[ZoneUse, str] = {
    "cut": "to be cut", "control": "control, not cut", "taped": "taped off",
}  # fmt: skip  # a table is read by its rows
LOTS: Mapping[LotKind, str] = {
    "rope": "rope", "board": "board", "card": "card", "paper": "paper", "test_line": "test line",
    "abrasive": "abrasive", "salt": "salt",
}  # fmt: skip  # a table is read by its rows
INSTRUMENTS: Mapping[InstrumentKind, str] = {
    "force": "edge-force tester", "rockwell": "hardness tester", "xrf": "XRF analyser",
    "camera": "camera", "pedal": "foot pedal",
}  # fmt: skip  # a table is read by its rows
ROUTES: Mapping[Route, str] = {
    "": "not known", "ingot": "ingot", "powder": "powder", "spray_formed": "spray forming",
    "remelted": "remelting",
}  # fmt: skip  # a table is read by its rows
SURFACES: Mapping[Surface, str] = {
    "bare": "bare steel", "coated": "a coating", "": "not recorded",
}  # fmt: skip  # a table is read by its rows
NORMALISED: Mapping[Normalised, str] = {"unknown": "not recorded", "yes": "yes", "no": "no"}
SCALES_OF_GRIT: Mapping[AbrasiveScale, str] = {
    "fepa_p": "P, paper", "fepa_f": "F, bonded stones", "jis": "JIS, water stones",
    "mesh": "mesh, plates",
}  # fmt: skip  # a table is read by its rows
YIELDS: Mapping[YieldKind, str] = {
    "life": "life", "strokes": "strokes to sharpen", "minutes": "minutes to sharpen",
}  # fmt: skip  # a table is read by its rows
INSPECTION_STAGES: Mapping[InspectionStage, str] = {
    "as_found": "as found", "rinsed": "rinsed", "wiped": "wiped", "scoured": "scoured",
}  # fmt: skip  # a table is read by its rows
SIDES: Mapping[CouponSide, str] = {"left": "left", "right": "right", "both": "both"}
REGIONS: Mapping[Region, str] = {
    "": "whole side", "edge": "edge", "bevel": "bevel", "flat": "flat", "spine": "spine",
    "worn": "worn place", "etched_mark": "etched mark (does not count)",
    "hardware": "hardware (does not count)", "smear": "smeared tool steel (does not count)",
}  # fmt: skip  # a table is read by its rows
COUPON_ROLES: Mapping[CouponRole, str] = {
    "": "one of those compared", "baseline": "baseline: must rust",
    "reference": "reference: should not rust",
}  # fmt: skip  # a table is read by its rows
RUST_SCALES: Mapping[Scale, str] = {"rust": "rust", "discolouration": "discolouration"}
SOAK_FACTORS: Mapping[SoakFactor, str] = {name: fairness.NAMES[name] for name in fairness.FACTORS}
SOAK_STATES: Mapping[HeldStatus, str] = {
    "matched": "matched", "factor": "the factor", "confounded": "not matched",
    "pending": "not known", "let_go": "accepted as different",
}  # fmt: skip  # a table is read by its rows
DISCOLOURATIONS: Mapping[Discolouration, str] = {
    "none": "unchanged", "haze": "a haze", "tint": "tinted", "dark": "dark",
    "spots": "single dark spots",
}  # fmt: skip  # a table is read by its rows
ACTS: Mapping[ActKind, str] = {
    "sprayed": "sprayed with brine", "sprayed_fresh": "sprayed with fresh water",
    "wiped_on": "brine wiped on", "film_broken": "film broken",
    "topped_up": "topped up with water", "turned": "turned over", "dampened": "cloth dampened",
    "measured": "brine or air measured", "worn": "worn: cuts, splits, scratches",
    "dried": "dried: the clock pauses", "resumed": "wet again: the clock resumes",
    "next_phase": "next phase begun", "prolonged": "made longer", "removed": "one coupon taken out",
    "weighed": "weighed with its rust on", "cleaned": "weighed after cleaning",
    "blank": "blank of the cleaning weighed", "note": "note", "ended": "ended",
}  # fmt: skip  # a table is read by its rows
ACTS_OF_ONE: Mapping[ActKind, str] = {
    kind: says for kind, says in ACTS.items() if kind in OF_ONE_COUPON
}
TENDINGS: Mapping[TendKind, str] = {kind: ACTS[kind] for kind in get_args(TendKind)}
SCRATCHES: Words = {
    "0": "none", "1": "seen in slanting light only", "2": "a few fine", "3": "many fine",
    "4": "deep", "5": "down to bare steel",
}  # fmt: skip  # a table is read by its rows
PIVOT_STATES: Words = {state: state for state in PART_STATES["pivot"]}
LOCK_STATES: Words = {state: state for state in PART_STATES["lock"]}
HANDLE_STATES: Words = {state: state for state in PART_STATES["handle"]}
TOUGHNESS_TESTS: Mapping[ToughnessTest, str] = {
    "charpy_v": "Charpy, V-notch", "charpy_plain": "Charpy, without a notch",
    "charpy_c": "Charpy, C-notch", "izod": "Izod", "bend": "bending, to the break",
    "other": "another",
}  # fmt: skip  # a table is read by its rows
ORIENTATIONS: Mapping[Orientation, str] = {
    "": "not known", "along": "along the rolling", "across": "across the rolling",
}  # fmt: skip  # a table is read by its rows
FIELD_SEEN: Mapping[FieldSeen, str] = {
    "": "not inspected", "none": "no rust", "flash": "flash rust that wiped off",
    "spots": "spots that stayed", "rust": "rust that stayed",
}  # fmt: skip  # a table is read by its rows
CARE_KINDS: Mapping[CareKind, str] = {
    "oiled": "oiled", "dried": "dried", "cleaned": "cleaned", "waxed": "waxed",
}  # fmt: skip  # a table is read by its rows
TOOK_OFF: Mapping[TookOff, str] = {
    "": "not inspected", "nothing": "nothing", "rust": "rust", "patina": "patina",
    "coating": "coating", "finish": "finish: scratches or dull places",
}  # fmt: skip  # a table is read by its rows
TEST_QUESTIONS: Mapping[TestQuestion, str] = {
    "lasts": "Which edge cuts longest?",
    "keen": "Which stays finely sharp longest?",
    "dies": "How do the edges die: wear, rolling, chipping?",
    "effort": "Which cuts with the least effort?",
    "upkeep": "What does sharpening bring back, and for how long?",
    "mix": "Which lasts in my own mix of work?",
    "rust": "Which rusts least?",
    "stains": "Which stains least in acid food?",
    "steel": "What steel is it?",
}
GAUGE_MEASURES: Mapping[GaugeMeasures, str] = {
    "force": "edge force",
    "hardness": "hardness",
    "thickness": "thickness",
    "rust": "rust grades",
    "lives": "lives, edge by edge",
}
IN_HAND: Mapping[InHand, str] = {
    "rope": "rope", "board": "corrugated board", "tester": "a tester for the edge, gf",
    "paper": "paper of one kind", "hair": "hair samples off the body", "lamp": "lamp and magnifier",
    "abrasives": "stones, abrasive sheets", "machine": "card-cutting machine",
    "salt": "salt, brine",
    "paste": "mustard and vinegar", "cabinet": "salt spray cabinet",
}  # fmt: skip  # a table is read by its rows
GRANTS: Mapping[Grant, str] = {
    "delete_for_good": "delete for good", "bring_back": "restore from the bin",
    "undo_others": "undo what others did", "let_in": "pair and unpair devices",
    "backups": "make backups and change their rule",
}  # fmt: skip  # a table is read by its rows
SHEET_SHAPES: Mapping[Shape, str] = {
    "run": "a run", "check": "a check", "wide": "a count, with a column a blade",
}  # fmt: skip  # a table is read by its rows
SHEET_CHANGES: Mapping[Change, str] = {
    "unit": "another unit", "halved": "half of the included angle, per side",
    "decimal": "decimal comma",
}  # fmt: skip  # a table is read by its rows
SHEET_STATUS: Mapping[SheetStatus, str] = {
    "new": "new", "there": "imported already", "faulty": "to be corrected",
}  # fmt: skip  # a table is read by its rows
SHEET_BLADES: Mapping[BladeKnown, str] = {
    "in_trial": "in the trial", "on_shelf": "on the shelf", "archived": "archived", "new": "new",
}  # fmt: skip  # a table is read by its rows
PLUS_MINUS_IS: Mapping[PlusMinusIs, str] = {
    "one_sigma": "one standard deviation", "two_sigma": "two standard deviations",
}  # fmt: skip  # a table is read by its rows
ON_THERE: Mapping[OnThere, str] = {"skip": "skip", "replace": "replace"}
FORCE_UNITS: Mapping[ForceUnit, str] = {"gf": "gf", "N": "N"}
ANGLES_ARE: Mapping[AngleIs, str] = {"side": "per side", "included": "included, both sides"}
RECKONED_MEDIA: Words = {"rope": "rope, cut through", "board": "board"}
DECIMAL_MARKS: Words = {"point": "a point", "comma": "a comma"}
THICKNESS_UNITS: Words = {"mm": "mm", "thou": "thou"}
BEVEL_PARTS: Words = {
    "width": "the bevel width", "angle": "the angle", "thickness": "the thickness",
}  # fmt: skip  # a table is read by its rows
BRINE_MEASURES: Words = {
    "salt_percent": "% by mass", "g_per_l": "g/L", "density_kg_per_l": "kg/L",
    "conductivity_ms_per_cm": "mS/cm",
}  # fmt: skip  # a table is read by its rows
LADDER_BY: Mapping[GroupBy, str] = {
    "arm": "blades and arms", "blade": "blades", "grade": "grades", "maker": "makers",
    "heat_treatment": "heat treatments", "edge_finish": "edge finishes",
}  # fmt: skip  # a table is read by its rows
CHOSEN_BY: Mapping[ChosenBy, str] = {"blade": "blades", "grade": "grades"}
LEFT_OUT: Mapping[Hidden, str] = {
    "owners": "owners and lenders",
    "prices": "prices",
    "notes": "notes",
}
ASKINGS: Mapping[Asking, str] = {
    "top": "Is the top really the top?", "place": "Where does this one stand?",
    "pair": "Which of these two?",
}  # fmt: skip  # a table is read by its rows
FOUND: Mapping[FoundKind, str] = {
    "trial": "Trial", "blade": "Blade", "grade": "Grade", "lot": "Lot", "soak": "Soak",
    "note": "Note in",
}  # fmt: skip  # a table is read by its rows

TABLES: Mapping[str, tuple[Any, Mapping[Any, str]]] = {
    "countUnits": (CountUnit, COUNT_UNITS),
    "lengthUnits": (None, LENGTH_UNITS),
    "media": (MediumKind, MEDIA),
    "cuts": (CutKind, CUTS),
    "schedules": (ScheduleKind, SCHEDULES),
    "stops": (StopKind, STOPS),
    "confirmations": (Confirmation, CONFIRMATIONS),
    "together": (Together, TOGETHER),
    "ownResults": (None, OWN_RESULTS),
    "sharpIs": (SharpIs, SHARP_IS),
    "factors": (None, OFFERED_FACTORS),
    "knownFactors": (Factor, FACTORS),
    "hardnessReadings": (HardnessReading, HARDNESS_READINGS),
    "matchStates": (MatchState, MATCH_STATES),
    "settledRules": (RuleKind, SETTLED_RULES),
    "trialRoles": (TrialRole, TRIAL_ROLES),
    "orders": (OrderKind, ORDERS),
    "work": (WorkKind, WORK),
    "standings": (Provenance, STANDINGS),
    "burrChecks": (BurrCheck, BURR_CHECKS),
    "lampChecks": (LampCheck, LAMP_CHECKS),
    "damages": (DamageKind, DAMAGES),
    "zoneUses": (ZoneUse, ZONE_USES),
    "lots": (LotKind, LOTS),
    "instruments": (InstrumentKind, INSTRUMENTS),
    "routes": (Route, ROUTES),
    "surfaces": (Surface, SURFACES),
    "normalised": (Normalised, NORMALISED),
    "gritScales": (AbrasiveScale, SCALES_OF_GRIT),
    "yields": (YieldKind, YIELDS),
    "inspectionStages": (InspectionStage, INSPECTION_STAGES),
    "sides": (CouponSide, SIDES),
    "regions": (Region, REGIONS),
    "couponRoles": (CouponRole, COUPON_ROLES),
    "rustScales": (Scale, RUST_SCALES),
    "soakFactors": (SoakFactor, SOAK_FACTORS),
    "soakStates": (HeldStatus, SOAK_STATES),
    "discolourations": (Discolouration, DISCOLOURATIONS),
    "tendings": (TendKind, TENDINGS),
    "acts": (ActKind, ACTS),
    "actsOfOne": (None, ACTS_OF_ONE),
    "scratches": (None, SCRATCHES),
    "toughnessTests": (ToughnessTest, TOUGHNESS_TESTS),
    "orientations": (Orientation, ORIENTATIONS),
    "fieldSeen": (FieldSeen, FIELD_SEEN),
    "careKinds": (CareKind, CARE_KINDS),
    "tookOff": (TookOff, TOOK_OFF),
    "testQuestions": (TestQuestion, TEST_QUESTIONS),
    "gaugeMeasures": (GaugeMeasures, GAUGE_MEASURES),
    "inHand": (InHand, IN_HAND),
    "grants": (Grant, GRANTS),
    "pivotStates": (None, PIVOT_STATES),
    "lockStates": (None, LOCK_STATES),
    "handleStates": (None, HANDLE_STATES),
    "sheetShapes": (Shape, SHEET_SHAPES),
    "sheetChanges": (Change, SHEET_CHANGES),
    "sheetStatus": (SheetStatus, SHEET_STATUS),
    "sheetBlades": (BladeKnown, SHEET_BLADES),
    "onThere": (OnThere, ON_THERE),
    "plusMinusIs": (PlusMinusIs, PLUS_MINUS_IS),
    "forceUnits": (ForceUnit, FORCE_UNITS),
    "anglesAre": (AngleIs, ANGLES_ARE),
    "reckonedMedia": (None, RECKONED_MEDIA),
    "decimalMarks": (None, DECIMAL_MARKS),
    "thicknessUnits": (None, THICKNESS_UNITS),
    "bevelParts": (None, BEVEL_PARTS),
    "brineMeasures": (None, BRINE_MEASURES),
    "ladderBy": (GroupBy, LADDER_BY),
    "leftOut": (Hidden, LEFT_OUT),
    "chosenBy": (ChosenBy, CHOSEN_BY),
    "askings": (Asking, ASKINGS),
    "found": (FoundKind, FOUND),
}
"""Every list by the name that the web side knows it by, with the type whose words it holds."""
