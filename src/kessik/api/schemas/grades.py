"""Grades over the wire."""

from kessik.api.schemas.common import Finite, ShortText, Wire
from kessik.api.schemas.records import Answer, Body
from kessik.core.composition.derived import Derived
from kessik.core.composition.grades import Equivalent, Grade, Range, RangeStanding
from kessik.services.assays.grade_pages import GradePage


class RangeBody(Body[Range]):
    """What a grade promises of one element, mass per cent; an open end is null."""

    low_percent: Finite | None = None
    high_percent: Finite | None = None
    standing: RangeStanding = "guessed"


class EquivalentBody(Body[Equivalent]):
    """Another standard's name for a grade."""


class GradeBody(Body[Grade], without="name"):
    """What is said of a grade: its usual hardness, its ranges, how it is made."""


class GradeOut(Answer[Grade]):
    """A grade as it stands, whether the tester said something of it, and whether any value of it
    is recalled from memory.
    """

    name: str
    own: bool
    is_recalled: bool


class GradesOut(Wire):
    """The library."""

    grades: list[GradeOut]


class DerivedOut(
    Answer[Derived], without="by_standard in_knives carbides_hold_chromium nitrogen_counted"
):
    """Derived figures of the middle of a grade, mass per cent, with what is to be said of each."""

    ms_c: float
    retained_percent: float
    notes: list[str]


class NeighbourOut(Wire):
    """A grade that looks most alike to an analyser: how far, and what separates the two."""

    name: str
    overlap: float
    separated_by: str


class EffectOut(Wire):
    """What an element does in a blade, in plain words, with where that stops being true."""

    element: str
    name: str
    says: str
    until: str


class BladeOfGradeOut(Wire):
    """A blade that is sold as a grade, and how it has done."""

    id: str
    code: str
    mark: int
    verdict: str
    lives: list[str]


class GradePageOut(Answer[GradePage], without="own martensite"):
    """All that is known of one grade."""

    grade: GradeOut
    neighbours: list[NeighbourOut]
    effects: list[EffectOut]
    blades: list[BladeOfGradeOut]


class ConfirmBody(Wire):
    """What the values were held against."""

    source: ShortText


class KeptGradesOut(Wire):
    """What a grades file brought."""

    grades: list[str]
    notes: list[str]


class AlikeOut(Wire):
    """Grades that no analyser in air tells apart, and what would."""

    grades: list[str]
    separated_by: str


class ConfusionOut(Wire):
    """Which grades of the library no analyser separates."""

    groups: list[AlikeOut]
    grades: int
