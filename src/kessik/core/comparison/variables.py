"""The held-equal variables: tolerance, unit, whose fact it is, and what a mismatch does to the
answer.

One table feeds matching, the line-up and its explanations. All tolerances are common practice, no
source.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, get_args

from kessik.core.facts import Owner

# "finish" is either, where a file or an older trial does not say which
Factor = Literal[
    "steel",
    "heat_treatment",
    "hardness",
    "edge_finish",
    "flat_finish",
    "finish",
    "angle",
    "geometry",
    "coating",
    "regime",
    "medium",
]
FACTORS: tuple[Factor, ...] = get_args(Factor)

# absolute: within ± tolerance; relative: within ± tolerance per cent; ratio: within a factor, and
# of one kind; alike: the same words; the others have a comparer of their own
VariableKind = Literal[
    "absolute", "relative", "ratio", "alike",
    "steel", "start", "length", "micro_bevel", "hardness", "settled",
]  # fmt: skip  # those that say how, and those that say what


@dataclass(frozen=True)
class Variable:
    """One held-equal variable; `asked` ones are pending even where no blade's value is recorded.

    `factors` are the questions that it may vary for, the likeliest first; `life_percent_per_unit`
    is the assumed size of the effect, None where none is assumed.
    """

    name: str
    label: str
    unit: str
    kind: VariableKind
    tolerance: float
    decimals: int
    factors: tuple[str, ...]
    consequence: str
    explained: str
    of: Owner = "edge"
    asked: bool = False
    life_percent_per_unit: float | None = None

    def shown(self, value: float) -> str:
        """A size of this variable with its unit."""
        space = "" if self.unit == "°" else " "
        return f"{abs(value):.{self.decimals}f}{space}{self.unit}"


VARIABLES: tuple[Variable, ...] = (
    Variable(
        "grade", "steel", "", "steel", 0.0, 0, ("steel",),
        "another steel wears in its own way",
        "The same designation on all; an assay can exclude what one is sold as.", of="blade",
    ),
    Variable(
        "side_angle_deg", "side angle", "°", "absolute", 0.5, 1, ("angle",),
        "a steeper edge wears and rolls differently",
        "Set by jig or guide it repeats within half a degree; by hand rarely.", asked=True,
        life_percent_per_unit=6.0,
    ),
    Variable(
        "micro_bevel_side_deg", "micro-bevel", "°", "micro_bevel", 1.0, 1, ("angle",),
        "the micro-bevel is the angle that cuts",
        "On all blades or on none, and alike where there is one.",
        asked=True, life_percent_per_unit=6.0,
    ),
    Variable(
        "thickness_behind_edge_mm", "thickness behind the edge", "mm", "absolute", 0.05, 2,
        ("geometry",),
        "effort and life both follow it",
        "It decides how hard the medium wedges the edge, and so the effort.",
        asked=True,
    ),
    Variable(
        "hardness_hrc", "hardness", "HRC", "hardness", 1.0, 1, ("hardness",),
        "hardness alone changes the life of one steel",
        "Within what a good tester repeats from day to day.",
        of="blade", asked=True, life_percent_per_unit=4.0,
    ),
    Variable(
        "final_abrasive_um", "edge finish", "µm", "ratio", 1.5, 1,
        ("edge_finish", "regime", "finish"),
        "a coarser finish bites and wears differently",
        "The last abrasive within a factor 1.5, and of one kind.",
    ),
    Variable(
        "start_gf", "start reading", "gf", "start", 15.0, 0, ("edge_finish", "regime", "finish"),
        "an unequal start leaves per cent and end reading in disagreement",
        "Within 15 % beyond the error of the readings themselves.",
    ),
    Variable(
        "settled_edge", "settled edge", "", "settled", 0.0, 0, ("regime",),
        "the first edges of a blade read low", "Which edges count is fixed before cutting.",
    ),
    Variable(
        "edge_length_mm", "edge length in use", "mm", "length", 3.0, 0, ("geometry",),
        "a shorter edge works each millimetre harder",
        "Within 3 %, or counts are scaled to one length.",
    ),
    Variable(
        "grind", "grind", "", "alike", 0.0, 0, ("geometry",),
        "the grind decides what happens behind the edge",
        "Flat, hollow, convex or low bevel, alike on all.", of="blade",
    ),
    Variable(
        "profile", "profile", "", "alike", 0.0, 0, ("geometry",),
        "a belly slices where a straight edge pushes",
        "Straight or belly, alike on all.", of="blade",
    ),
    Variable(
        "stock_mm", "stock", "mm", "absolute", 0.3, 2, ("geometry",),
        "thicker stock wedges in board and thick rope",
        "Alike within three tenths of a millimetre.", of="blade",
    ),
    Variable(
        "finish", "flat finish", "", "alike", 0.0, 0, ("flat_finish", "finish"),
        "a rough flank drags", "The surface of the flats, alike on all.",
        of="blade",
    ),
    Variable(
        "coating", "coating", "", "alike", 0.0, 0, ("coating",),
        "a coating changes the drag on the flanks",
        "The same coating, or none, on all.", of="blade",
    ),
    Variable(
        "grip", "grip", "", "alike", 0.0, 0, ("geometry",),
        "another grip changes the force of the hand",
        "Alike on all.", of="blade",
    ),
)  # fmt: skip  # a table is read by its rows
MOST_TOLERANCE = 1000.0
BY_NAME: Mapping[str, Variable] = {variable.name: variable for variable in VARIABLES}
