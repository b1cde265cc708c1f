"""Blades, recipes and the rest of the shelf over the wire."""

from dataclasses import asdict
from typing import Any, ClassVar

from pydantic import Field

from kessik.api.schemas.common import (
    ArmId,
    Day,
    Finite,
    Id,
    LongText,
    ShortText,
    Wire,
)
from kessik.api.schemas.edges import EdgeBody, EdgeOut, SettledOut, StepBody, ZoneBody, step_bodies
from kessik.api.schemas.measurements import MeasurementOut, histories
from kessik.core.facts import Provenance
from kessik.core.heat_treatment import HeatTreatment
from kessik.core.limits import most
from kessik.core.pictures import Shown
from kessik.core.shelf.blades import Blade, TrialRole
from kessik.core.shelf.edges import Abrasive, Edge, Recipe
from kessik.services.shelf.facts import entered


class HeatTreatmentBody(Wire):
    """How a blade was hardened, as far as it is told."""

    austenitising_c: Finite | None = None
    soak_minutes: Finite | None = None
    quench: ShortText = ""
    sub_zero_c: Finite | None = None
    tempers_c: list[Finite] = Field(default_factory=list, max_length=most("tempers"))
    standing: Provenance = "claimed"
    note: LongText = ""

    def to_core(self) -> HeatTreatment:
        return HeatTreatment(**{**self.model_dump(), "tempers_c": tuple(self.tempers_c)})


class BladeBody(Wire):
    """A new blade with its edges; hardness and edge length become its first measurements."""

    id: Id
    code: ShortText
    claimed_grade: ShortText | None = None
    hardness_hrc: Finite | None = None
    hardness_standing: Provenance = "measured_here"
    usual_hardness_low_hrc: Finite | None = None
    usual_hardness_high_hrc: Finite | None = None
    edge_length_mm: Finite | None = None
    owner: ShortText = ""
    price: ShortText = ""
    loan_from: ShortText = ""
    loan_due: Day = ""
    note: LongText = ""
    edges: list[EdgeBody] = Field(default_factory=list)

    def to_core(self, blade_id: str, now_utc: str) -> Blade:
        plain = self.model_dump(
            exclude={"id", "edges", "hardness_hrc", "hardness_standing", "edge_length_mm"}
        )
        measured = []
        if self.hardness_hrc is not None:
            measured.append(
                entered(
                    blade_id, "hardness_hrc", self.hardness_hrc, self.hardness_standing, now_utc
                )
            )
        if self.edge_length_mm is not None:
            measured.append(
                entered(blade_id, "edge_length_mm", self.edge_length_mm, "measured_here", now_utc)
            )
        edges = tuple(
            Edge(
                body.id,
                blade_id,
                body.number or place,
                measurements=body.first_values(now_utc),
                **body.changes(),
            )
            for place, body in enumerate(self.edges, 1)
        )
        return Blade(id=blade_id, measurements=tuple(measured), edges=edges, **plain)


class Patch(Wire):
    """Some fields of a thing; what is not sent stays, and null empties a field that may be
    empty.
    """

    emptiable: ClassVar[frozenset[str]] = frozenset()

    def changes(self) -> dict[str, Any]:
        sent = self.model_dump(exclude_unset=True)
        return {
            name: value
            for name, value in sent.items()
            if value is not None or name in self.emptiable
        }


class BladePatch(Patch):
    """What is said of a blade, to change; hardness and edge length become one more measurement
    each.
    """

    emptiable = frozenset(
        {
            "claimed_grade",
            "hardness_hrc",
            "usual_hardness_low_hrc",
            "usual_hardness_high_hrc",
            "edge_length_mm",
        }
    )

    code: ShortText | None = None
    claimed_grade: ShortText | None = None
    hardness_hrc: Finite | None = None
    hardness_standing: Provenance | None = None
    usual_hardness_low_hrc: Finite | None = None
    usual_hardness_high_hrc: Finite | None = None
    edge_length_mm: Finite | None = None
    owner: ShortText | None = None
    price: ShortText | None = None
    loan_from: ShortText | None = None
    loan_due: Day | None = None
    loan_returned: Day | None = None
    heat_treatment: HeatTreatmentBody | None = None
    note: LongText | None = None

    def changes(self) -> dict[str, Any]:
        changed = super().changes()
        if self.heat_treatment is not None:
            changed["heat_treatment"] = self.heat_treatment.to_core()
        return changed


class BladeOut(Wire):
    """A blade with what is known of it; `mark` is its own everywhere, `place` its place in a
    trial. In a trial that compares it under several preparations it is one arm: `edges` are those
    prepared so, and `code` is that of the arm.
    """

    id: str
    arm_id: str
    arm: str
    own_code: str
    arms: list[str]
    next_edge: int
    code: str
    mark: int
    place: int
    role: TrialRole
    claimed_grade: str | None
    hardness_hrc: float | None
    hardness_standing: Provenance | None
    usual_hardness_low_hrc: float | None
    usual_hardness_high_hrc: float | None
    edge_length_mm: float | None
    owner: str
    price: str
    loan_from: str
    loan_due: str
    loan_returned: str
    heat_treatment: HeatTreatmentBody
    origin: str
    archived_utc: str | None
    note: str
    measurements: list[MeasurementOut]
    edges: list[EdgeOut]

    @classmethod
    def of(cls, blade: Blade) -> "BladeOut":
        plain = (
            "id",
            "arm_id",
            "arm",
            "own_code",
            "code",
            "mark",
            "place",
            "role",
            "claimed_grade",
            "usual_hardness_low_hrc",
            "usual_hardness_high_hrc",
            "owner",
            "price",
            "loan_from",
            "loan_due",
            "loan_returned",
            "origin",
            "archived_utc",
            "note",
        )
        hardness = blade.used("hardness_hrc")
        treatment = asdict(blade.heat_treatment)
        return cls(
            **{name: getattr(blade, name) for name in plain},
            hardness_hrc=hardness.value if hardness else None,
            hardness_standing=hardness.standing if hardness else None,
            arms=list(blade.arms),
            next_edge=max((edge.number for edge in blade.edges), default=0) + 1,
            edge_length_mm=blade.edge_length_mm,
            heat_treatment=HeatTreatmentBody(
                **{**treatment, "tempers_c": list(treatment["tempers_c"])}
            ),
            measurements=histories(blade.measurements, blade),
            edges=[EdgeOut.of(edge, blade) for edge in blade.own_edges],
        )


class ShelvedOut(Wire):
    """A blade on the shelf, with how many runs it has and the trials it is in."""

    blade: BladeOut
    runs: int
    trial_ids: list[str]
    waiting: bool


class AbrasiveBody(Wire):
    """An abrasive of the tester's own."""

    id: Id
    name: ShortText
    kind: ShortText = ""
    size_um: Finite | None = None
    grit: ShortText = ""
    standing: Provenance = "claimed"
    note: LongText = ""

    def to_core(self) -> Abrasive:
        return Abrasive(**self.model_dump())

    @classmethod
    def of(cls, abrasive: Abrasive) -> "AbrasiveBody":
        return cls(**asdict(abrasive))


class RecipeBody(Wire):
    """A named regime."""

    id: Id
    name: ShortText
    steps: list[StepBody] = Field(max_length=most("steps"))
    note: LongText = ""

    def to_core(self) -> Recipe:
        return Recipe(
            self.id, self.name.strip(), tuple(step.to_core() for step in self.steps), self.note
        )

    @classmethod
    def of(cls, recipe: Recipe) -> "RecipeBody":
        return cls(
            id=recipe.id, name=recipe.name, steps=step_bodies(recipe.steps), note=recipe.note
        )


class CompoundOut(Wire):
    """A stropping compound or plate sold by size."""

    name: str
    kind: str
    size_um: float
    standing: Provenance


class ShelfOut(Wire):
    """All that stands on the shelf."""

    blades: list[ShelvedOut]
    recipes: list[RecipeBody]
    abrasives: list[AbrasiveBody]
    compounds: list[CompoundOut]
    today: str


class PhotoOut(Wire):
    """A picture of a blade."""

    hash: str
    caption: str
    added_utc: str

    @classmethod
    def of(cls, photo: Shown) -> "PhotoOut":
        return cls(hash=photo.picture.hash, caption=photo.caption, added_utc=photo.added_utc)


class RunOfBladeOut(Wire):
    """A run of a blade in one line, with its trial."""

    run_id: str
    trial_id: str
    trial: str
    edge: int
    number: int
    practice: bool
    status: str
    count: float
    count_unit: str
    started_utc: str
    zone_from_mm: float | None
    zone_to_mm: float | None
    worn_share: float


class EdgeStandingOut(Wire):
    """Of one edge: whether it counts under the usual rule, and how it departs from its recipe."""

    edge_id: str
    settled: SettledOut
    departures: list[str]


class BladePageOut(Wire):
    """All that is known of one blade."""

    blade: BladeOut
    usual_hardness_hrc: list[float] | None
    runs: list[RunOfBladeOut]
    trials: list["TrialName"]
    edge_standings: list[EdgeStandingOut]
    photos: list[PhotoOut]
    recipes: list[RecipeBody]
    settled_rule: str
    hardening: list[str] = Field(description="what its heat treatment risks, and is taught of it")


class TrialName(Wire):
    """A trial by name."""

    id: str
    name: str


class ArchivedBody(Wire):
    """Whether something is archived."""

    archived: bool


class StruckBody(Wire):
    """Why a measurement is struck out; empty lets it stand again."""

    reason: ShortText


class PreparationBody(Wire):
    """The next edge of several blades by one recipe: a client-made edge id for the id of each
    blade, or of each arm where a blade carries several.
    """

    recipe_id: Id
    edge_ids: dict[ArmId, Id] = Field(max_length=most("places_listed"))
    made_on: Day = ""
    zones: list[ZoneBody] = Field(default_factory=list, max_length=most("steps"))


class PreparedOut(Wire):
    """An edge made by recipe, and how it departs from it."""

    blade_id: str
    edge_id: str
    number: int
    departures: list[str]
