"""Blades, recipes and the rest of the shelf over the wire."""

from pydantic import Field

from kessik.api.schemas.common import (
    ArmId,
    Day,
    Finite,
    Id,
    ShortText,
    Wire,
)
from kessik.api.schemas.edges import EdgeBody, EdgeOut, SettledOut, StepBody, ZoneBody
from kessik.api.schemas.measurements import MeasurementOut
from kessik.api.schemas.records import Answer, Body, Patch
from kessik.core.facts import Provenance, entered
from kessik.core.heat_treatment import HeatTreatment
from kessik.core.limits import most
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Abrasive, Recipe
from kessik.services.shelf.blades import Shelved
from kessik.services.shelf.pages import BladePage


class HeatTreatmentBody(Body[HeatTreatment]):
    """How a blade was hardened, as far as it is told."""


_KEPT = "mark place role arms arm blade_code arm_edge_ids origin archived_utc other measurements"
"""What Kessik keeps of a blade, or a trial says of it; nobody sends it with the blade."""


class BladeBody(Body[Blade], without=f"{_KEPT} lent_to loan_returned heat_treatment edges"):
    """A new blade with its edges; hardness and edge length become its first measurements."""

    id: Id
    hardness_hrc: Finite | None = None
    hardness_standing: Provenance = "measured_here"
    edge_length_mm: Finite | None = None
    edges: list[EdgeBody] = Field(default_factory=list)

    def made(self, blade_id: str, now_utc: str) -> Blade:
        """The blade with its first measurements and its edges."""
        stated = {"hardness_hrc": self.hardness_standing, "edge_length_mm": "measured_here"}
        told = [(name, getattr(self, name), standing) for name, standing in stated.items()]
        return self.to_core(
            id=blade_id,
            measurements=tuple(
                entered(blade_id, name, value, standing, now_utc)
                for name, value, standing in told
                if value is not None
            ),
            edges=tuple(
                body.made(blade_id, place, now_utc) for place, body in enumerate(self.edges, 1)
            ),
        )


class BladePatch(Patch[Blade], without=f"{_KEPT} id edges"):
    """What is said of a blade, to change; hardness and edge length become one more measurement
    each.
    """

    emptiable = frozenset({"hardness_hrc", "edge_length_mm"})

    hardness_hrc: Finite | None = None
    hardness_standing: Provenance | None = None
    edge_length_mm: Finite | None = None


class BladeOut(Answer[Blade], without="blade_code arm_edge_ids other"):
    """A blade with what is known of it; `mark` is its own everywhere, `place` its place in a
    trial. In a trial that compares it under several preparations it is one arm: `edges` are those
    prepared so, and `code` is that of the arm.
    """

    arm_id: str
    own_code: str
    next_edge: int
    measurements: list[MeasurementOut]
    edges: list[EdgeOut]
    loan_says: str
    hardness_hrc: float | None
    hardness_standing: Provenance | None
    edge_length_mm: float | None


class ShelvedOut(Answer[Shelved]):
    """A blade on the shelf, with how many runs it has and the trials it is in."""


class AbrasiveBody(Body[Abrasive]):
    """An abrasive of the tester's own."""


class RecipeBody(Body[Recipe]):
    """A named regime."""

    steps: list[StepBody] = Field(max_length=most("steps"))


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


class BladePageOut(Answer[BladePage], without="edges"):
    """All that is known of one blade."""

    runs: list[RunOfBladeOut]
    trials: list["TrialName"]
    edge_standings: list[EdgeStandingOut]
    photos: list[PhotoOut]
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
