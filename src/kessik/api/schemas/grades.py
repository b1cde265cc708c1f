"""Grades over the wire."""

from pydantic import Field

from kessik.api.schemas.common import Finite, ShortText, Wire
from kessik.core.composition.derived import Derived
from kessik.core.composition.elements import Visibility
from kessik.core.composition.grades import Equivalent, Grade, Nearness, Range, RangeStanding, Route
from kessik.core.facts import Provenance
from kessik.core.limits import most
from kessik.services.assays.grade_pages import GradePage, Neighbour
from kessik.services.assays.grades import Library


class RangeBody(Wire):
    """What a grade promises of one element, mass per cent; an open end is null."""

    element: ShortText
    low_percent: Finite | None = None
    high_percent: Finite | None = None
    standing: RangeStanding = "guessed"
    source: ShortText = ""

    def to_core(self) -> Range:
        return Range(**self.model_dump())


class EquivalentBody(Wire):
    """Another standard's name for a grade."""

    name: ShortText
    nearness: Nearness


class GradeBody(Wire):
    """What is said of a grade: its usual hardness, its ranges, how it is made."""

    usual_low_hrc: Finite | None = None
    usual_high_hrc: Finite | None = None
    standing: Provenance = "guessed"
    source: ShortText = ""
    standard: ShortText = ""
    route: Route = ""
    also: list[ShortText] = Field(default_factory=list, max_length=most("elements"))
    ranges: list[RangeBody] = Field(default_factory=list, max_length=most("elements"))
    equivalents: list[EquivalentBody] = Field(default_factory=list, max_length=most("elements"))

    def to_core(self, name: str) -> Grade:
        plain = self.model_dump(exclude={"ranges", "equivalents", "also"})
        return Grade(
            name,
            **plain,
            also=tuple(self.also),
            ranges=tuple(found.to_core() for found in self.ranges),
            equivalents=tuple(Equivalent(e.name, e.nearness) for e in self.equivalents),
        )


class GradeOut(GradeBody):
    """A grade as it stands, whether the tester said something of it, and whether any value of it
    is recalled from memory.
    """

    name: str
    own: bool
    is_recalled: bool

    @classmethod
    def of(cls, grade: Grade, own: bool) -> "GradeOut":
        plain = (
            "name", "usual_low_hrc", "usual_high_hrc", "standing", "source", "standard", "route",
            "is_recalled",
        )  # fmt: skip  # a table is read by its rows
        return cls(
            **{name: getattr(grade, name) for name in plain},
            own=own,
            also=list(grade.also),
            ranges=[RangeBody.model_validate(found) for found in grade.ranges],
            equivalents=[EquivalentBody.model_validate(found) for found in grade.equivalents],
        )


class GradesOut(Wire):
    """The library."""

    grades: list[GradeOut]

    @classmethod
    def of(cls, library: Library) -> "GradesOut":
        return cls(grades=[GradeOut.of(g, g.name in library.own) for g in library.grades.values()])


class DerivedOut(Wire):
    """Derived figures of the middle of a grade, mass per cent, with what is to be said of each."""

    pren: float
    pren_w: float | None
    carbon_in_mc: float
    carbon_left: float
    chromium_in_solution: list[float]
    ms_c: float
    retained_percent: float
    notes: list[str]

    @classmethod
    def of(cls, found: Derived, ms_c: float, retained: float, notes: list[str]) -> "DerivedOut":
        return cls(
            pren=found.pren,
            pren_w=found.pren_w,
            carbon_in_mc=found.carbon_in_mc,
            carbon_left=found.carbon_left,
            chromium_in_solution=list(found.chromium_in_solution),
            ms_c=ms_c,
            retained_percent=retained,
            notes=notes,
        )


class NeighbourOut(Wire):
    """A grade that looks most alike to an analyser: how far, and what separates the two."""

    name: str
    overlap: float
    separated_by: str

    @classmethod
    def of(cls, found: Neighbour) -> "NeighbourOut":
        return cls(name=found.grade.name, overlap=found.overlap, separated_by=found.separated_by)


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


class GradePageOut(Wire):
    """All that is known of one grade."""

    grade: GradeOut
    visible: dict[str, Visibility]
    derived: DerivedOut
    neighbours: list[NeighbourOut]
    effects: list[EffectOut]
    blades: list[BladeOfGradeOut]

    @classmethod
    def of(cls, page: GradePage) -> "GradePageOut":
        return cls(
            grade=GradeOut.of(page.grade, page.own),
            visible=dict(page.visible),
            derived=DerivedOut.of(
                page.derived, page.martensite.ms_c, page.martensite.retained_percent, page.notes
            ),
            neighbours=[NeighbourOut.of(found) for found in page.neighbours],
            effects=[EffectOut.model_validate(effect) for effect in page.effects],
            blades=[BladeOfGradeOut.model_validate(blade) for blade in page.blades],
        )


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
