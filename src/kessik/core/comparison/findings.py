"""What matching, analysis and verdicts find, as they find it: what, which blades, how much, why.

Sentences are made from these in `core.words`, last and nowhere else.
"""

from dataclasses import dataclass
from typing import Literal

from kessik.core.facts import Expected, Provenance
from kessik.core.protocols.unlike_methods import MethodDifference
from kessik.core.sharpening.settled import Settled

ClaimStanding = Literal["consistent", "undecidable", "excluded", "away"]


@dataclass(frozen=True)
class Claimed:
    """What an assay says of the grade a blade is sold as: `fitting` the grades that fit as well, or
    instead; *away* where it is at the analyser.
    """

    grade: str
    standing: ClaimStanding
    fitting: tuple[str, ...] = ()


Unlike = Literal[
    "number",
    "percent",
    "kind",
    "word",
    "own_edges",
    "one_edge",
    "has_micro_bevel",
    "lacks_micro_bevel",
    "unusual_hardness",
    "left_out",
    "claim_excluded",
]


@dataclass(frozen=True)
class Mismatch:
    """A blade that differs at a variable from `against`, with both values (of the unit of the
    variable).

    `difference` is how far numbers lie apart; `life_percent` what that alone could make of a life,
    where a size is assumed. `usual_hrc` is how the grade is usually hardened; `edges` are the edges
    that do not count.
    """

    blade: str
    variable: str
    how: Unlike
    value: float | str | None = None
    other: float | str | None = None
    against: str = ""
    difference: float | None = None
    life_percent: float | None = None
    usual_hrc: tuple[float, float] | None = None
    edges: tuple[tuple[int, Settled], ...] = ()
    claim: Claimed | None = None


OpenKind = Literal[
    "not_known",
    "not_measured",
    "stale",
    "micro_bevel_not_recorded",
    "usual_hardness_not_known",
    "settled_not_known",
    "steel_not_named",
    "claim_undecidable",
    "claim_away",
]


@dataclass(frozen=True)
class Open:
    """A fact about a blade that is still unknown and could change what an answer may speak of."""

    blade: str
    variable: str
    why: OpenKind
    standing: Provenance | None = None
    stale: Expected | None = None
    edges: tuple[tuple[int, Settled], ...] = ()
    claim: Claimed | None = None


@dataclass(frozen=True)
class WithinIndifference:
    """The pair's ratio lies within the indifference with 90 % confidence."""


@dataclass(frozen=True)
class SmallButReal:
    """It does so, and its 95 % interval still leaves 1 out."""


@dataclass(frozen=True)
class Apart:
    """The 95 % interval of the pair's ratio leaves 1 out."""


@dataclass(frozen=True)
class NotApart:
    """The 95 % interval of the pair's ratio holds 1."""


@dataclass(frozen=True)
class OneEdgeEach:
    """A blade of the pair has one edge: what re-sharpening changes is not seen."""


@dataclass(frozen=True)
class StartedDuller:
    """One blade of the pair started duller, by so many per cent of the other's start."""

    blade: str
    percent: float


@dataclass(frozen=True)
class EndOpen:
    """A blade of the pair has a life with one open end: not lost by a count, or lost before it."""

    blade: str
    side: Literal["above", "below"]
    at: float
    unit: str


@dataclass(frozen=True)
class InsideBlocks:
    """The pair was compared inside blocks, whatever the level of each."""

    blocks: int


@dataclass(frozen=True)
class HingesOnEdge:
    """A pair's answer hangs on one edge that does not fit its sisters: how long it lasted and they
    did, and life(b) / life(a) with it, every edge weighing alike, and without. `has_one_sister`
    where nothing tells which of the two is off.
    """

    blade: str
    edge: int
    lives: tuple[float, float]
    unit: str
    ratio_with: float
    ratio_without: float
    has_one_sister: bool


Reason = (
    Mismatch
    | HingesOnEdge
    | WithinIndifference
    | SmallButReal
    | Apart
    | NotApart
    | OneEdgeEach
    | StartedDuller
    | EndOpen
    | InsideBlocks
)


@dataclass(frozen=True)
class UnlikeMethod:
    """A version of the method that differs in what matters from the one in force."""

    number: int
    differs: tuple[MethodDifference, ...]


WhyLeftOut = Settled | UnlikeMethod


@dataclass(frozen=True)
class EdgeLeftOut:
    """An edge that does not count, with the reason."""

    blade: str
    edge: int
    why: WhyLeftOut


@dataclass(frozen=True)
class DoubtfulSpread:
    """The edges of a blade differ by more than re-sharpening usually makes."""

    stage: str
    blade: str
    percent: float


@dataclass(frozen=True)
class OddEdge:
    """An edge that hardly fits the others of its blade; the blade's life (estimate, low, high) with
    it and without.
    """

    stage: str
    blade: str
    edge: int
    life_with: tuple[float, float, float]
    life_without: tuple[float, float, float]
    unit: str


@dataclass(frozen=True)
class Contradicting:
    """Two edges of a blade that contradict each other; a third would tell which is off."""

    stage: str
    blade: str
    edges: tuple[int, int]


@dataclass(frozen=True)
class Verified:
    """A second edge cut to verify the first: both lives in `unit`, by how much they differ, and
    by how much repeats of these blades differ in 95 of 100.
    """

    stage: str
    blade: str
    edges: tuple[int, int]
    lives: tuple[float, float]
    unit: str
    percent: float
    repeats_percent: float

    @property
    def holds(self) -> bool:
        """Whether the two differ by no more than repeats do."""
        return self.percent <= self.repeats_percent


@dataclass(frozen=True)
class PercentMisleads:
    """Of two blades after a dose the first lost less of its own start, and ends duller: change in
    per cent and end readings in gf.
    """

    blades: tuple[str, str]
    percents: tuple[float, float]
    ends_gf: tuple[float, float]


@dataclass(frozen=True)
class GapNotKnown:
    """Edges, by blade and number, whose looks all found the stage lost: how long before nobody
    said.
    """

    stage: str
    edges: tuple[tuple[str, int], ...]


@dataclass(frozen=True)
class WidthAssumed:
    """Totals of so many runs were written down without the gap of their checks: how wide each is
    taken to be, in per cent of the life by stage; from the trial's other runs or common practice.
    """

    runs: int
    widths: tuple[tuple[str, float], ...]
    from_runs: bool


@dataclass(frozen=True)
class OnOneLength:
    """Ratios are put on one edge length."""

    edge_length_mm: float


@dataclass(frozen=True)
class UnlikeCounts:
    """Blades counted in kinds of units that do not convert."""

    stage: str
    kinds: tuple[str, ...]


@dataclass(frozen=True)
class SpoiledCuts:
    """Cuts of a run that struck what they should not have: count and cause."""

    blade: str
    edge: int
    cuts: tuple[tuple[float, str], ...]


@dataclass(frozen=True)
class CorrectedAfterStop:
    """Events of an edge's run were corrected or struck out after it was over."""

    blade: str
    edge: int
    events: int


@dataclass(frozen=True)
class FromPaper:
    """Runs that were written down before and entered later, of how many in all."""

    runs: int
    of: int


@dataclass(frozen=True)
class EventsNotUnderstood:
    """Events of a run that nobody understands, not counted."""

    blade: str
    edge: int
    events: int


@dataclass(frozen=True)
class LotChanged:
    """A run was cut on another lot than its block."""

    blade: str
    edge: int
    says: str


@dataclass(frozen=True)
class VersionsPooled:
    """Runs under several versions of the method stand together."""

    numbers: tuple[int, ...]


Note = (
    EdgeLeftOut
    | DoubtfulSpread
    | OddEdge
    | Contradicting
    | GapNotKnown
    | WidthAssumed
    | Verified
    | PercentMisleads
    | OnOneLength
    | UnlikeCounts
    | SpoiledCuts
    | EventsNotUnderstood
    | CorrectedAfterStop
    | FromPaper
    | LotChanged
    | VersionsPooled
)

Oddity = Literal["read_at_one_count", "reads_ever_sharper", "always_reads_the_same"]
"""What is odd about the readings of one run."""
