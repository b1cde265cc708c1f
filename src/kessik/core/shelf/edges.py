"""Edges of blades, and what they are sharpened by."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal

from kessik.core.facts import Measurement, Provenance, check, used
from kessik.core.geometry import Zone
from kessik.core.limits import check_limit
from kessik.core.records import Day, Id, LongText, Within
from kessik.core.sharpening.regimes import Step, departures
from kessik.core.sharpening.settled import Sharpening

DamageKind = Literal["chip", "roll", "glint", "burr"]
BurrCheck = Literal["", "gone", "traces"]
LampCheck = Literal["", "nothing glints", "glints"]


@dataclass(frozen=True)
class Damage:
    """Something seen at a place on the edge, mm from the heel."""

    position_mm: float
    kind: DamageKind
    note: LongText = ""


@dataclass(frozen=True)
class Edge:
    """One sharpening of one blade; `other` keeps columns of a file that Kessik does not use yet.
    `number_is_least` where it was sharpened so often at least, and its history is not known.

    `overrule` is the tester's own word on whether the edge counts, with its reason. `arm` names the
    preparation it stands for in trials that compare several of one blade.
    """

    id: str
    blade_id: str
    number: Annotated[int, Within("edge_number")]
    arm: str = ""
    measurements: tuple[Measurement, ...] = ()
    made_on: Day = ""
    regime: str = ""
    recipe_id: Id | None = None
    steps: Annotated[tuple[Step, ...], Within("steps")] = ()
    minutes: float | None = None
    trouble: LongText = ""
    burr_check: BurrCheck = ""
    lamp_check: LampCheck = ""
    steel_removed_mm: float | None = None
    factory: bool = False
    damage: Annotated[tuple[Damage, ...], Within("places_listed")] = ()
    zones: Annotated[tuple[Zone, ...], Within("steps")] = ()
    zones_overlap: bool = False
    overrule: bool | None = None
    overrule_reason: str = ""
    note: LongText = ""
    other: Mapping[str, Any] = field(default_factory=dict)
    number_is_least: bool = False

    def value(self, quantity: str) -> float | None:
        """The value in use of a quantity of this edge."""
        found = used(self.measurements, quantity)
        return found.value if found else None

    @property
    def sharpening(self) -> Sharpening:
        """What the settled-edge rule looks at; a chip or a roll is damage, a glint or a burr is
        not.
        """
        damaged = any(mark.kind in ("chip", "roll") for mark in self.damage)
        return Sharpening(
            self.number,
            self.factory,
            damaged,
            self.steel_removed_mm,
            self.overrule,
            self.overrule_reason,
            self.number_is_least,
        )


@dataclass(frozen=True)
class Recipe:
    """A named regime, to be used again."""

    id: Id
    name: str
    steps: Annotated[tuple[Step, ...], Within("steps")] = ()
    note: LongText = ""


@dataclass(frozen=True)
class Abrasive:
    """An abrasive of the tester's own, beside the standard scales."""

    id: Id
    name: str
    kind: str = ""
    size_um: float | None = None
    grit: str = ""
    standing: Provenance = "claimed"
    note: LongText = ""


def check_edge_facts(edge: Edge) -> None:
    """Refuse a number below 1 or a measurement that cannot be."""
    check_limit("edge_number", edge.number, "number")
    for measurement in edge.measurements:
        check(measurement)


def departures_of(edge: Edge, recipes: Sequence[Recipe]) -> list[str]:
    """How an edge departs from the recipe it was made by; empty where it was made by none."""
    recipe = next((r for r in recipes if r.id == edge.recipe_id), None)
    return departures(recipe.steps, edge.steps) if recipe else []
