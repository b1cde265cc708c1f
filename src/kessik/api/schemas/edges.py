"""Edges over the wire: sharpenings with their steps, zones and what was seen on them."""

from dataclasses import asdict
from typing import Annotated, Any, ClassVar

from pydantic import Field

from kessik.api.schemas.common import Bounded, Day, Finite, Id, LongText, ShortText, Wire
from kessik.api.schemas.measurements import MeasurementOut, histories
from kessik.core.facts import Measurement
from kessik.core.geometry import Zone, ZoneUse
from kessik.core.limits import most
from kessik.core.sharpening.regimes import Step, total_strokes_per_side
from kessik.core.sharpening.settled import SettledState
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import BurrCheck, Damage, DamageKind, Edge, LampCheck
from kessik.core.shelf.facts import expected_thickness, stations_of
from kessik.core.words.facts import expected_words
from kessik.services.shelf.facts import entered


class StepBody(Wire):
    """One step of a regime."""

    abrasive: ShortText
    kind: ShortText = ""
    size_um: Finite | None = None
    grit: ShortText = ""
    side_angle_deg: Finite | None = None
    strokes_per_side: Annotated[int, Bounded("strokes_per_side")] | None = None
    pressure: ShortText = ""
    note: LongText = ""
    repeats: Annotated[int, Bounded("step_repeats")] = 1

    def to_core(self) -> Step:
        return Step(**self.model_dump())


def step_bodies(steps: tuple[Step, ...]) -> list[StepBody]:
    return [StepBody(**asdict(step)) for step in steps]


class ZoneBody(Wire):
    """A stretch of an edge, mm from the heel."""

    from_mm: Finite
    to_mm: Finite
    use: ZoneUse = "cut"
    name: ShortText = ""


class DamageBody(Wire):
    """Something seen at a place on the edge."""

    position_mm: Finite
    kind: DamageKind
    note: LongText = ""


class EdgeBody(Wire):
    """A sharpening, or changes to one: what is not sent stays as it is.

    The three values become measurements, made here; a null among them says that it is not known
    after all.
    """

    stated: ClassVar[tuple[str, ...]] = (
        "side_angle_deg",
        "micro_bevel_side_deg",
        "thickness_behind_edge_mm",
    )

    id: Id
    number: Annotated[int, Bounded("edge_number")] | None = None
    number_is_least: bool = False
    arm: ShortText = ""
    side_angle_deg: Finite | None = None
    micro_bevel_side_deg: Finite | None = None
    thickness_behind_edge_mm: Finite | None = None
    made_on: Day = ""
    regime: ShortText = ""
    recipe_id: Id | None = None
    steps: list[StepBody] = Field(default_factory=list, max_length=most("steps"))
    minutes: Finite | None = None
    trouble: LongText = ""
    burr_check: BurrCheck = ""
    lamp_check: LampCheck = ""
    steel_removed_mm: Finite | None = None
    factory: bool = False
    damage: list[DamageBody] = Field(default_factory=list, max_length=most("places_listed"))
    zones: list[ZoneBody] = Field(default_factory=list, max_length=most("steps"))
    zones_overlap: bool = False
    overrule: bool | None = None
    overrule_reason: ShortText = ""
    note: LongText = ""

    def sent_values(self) -> dict[str, float | None]:
        """The stated values that were sent."""
        return {name: getattr(self, name) for name in self.stated if name in self.model_fields_set}

    def changes(self) -> dict[str, Any]:
        """What was sent of the rest, as the record holds it."""
        sent = self.model_dump(include=self.model_fields_set - set(self.stated) - {"id", "number"})
        if "arm" in sent:
            sent["arm"] = sent["arm"].strip()
        for name, kind in (("steps", Step), ("damage", Damage), ("zones", Zone)):
            if name in sent:
                sent[name] = tuple(kind(**item) for item in sent[name])
        return sent

    def first_values(self, now_utc: str) -> tuple[Measurement, ...]:
        """The stated values of a new edge."""
        sent = self.sent_values()
        return tuple(
            entered(self.id, n, v, "measured_here", now_utc)
            for n, v in sent.items()
            if v is not None
        )


class SettledOut(Wire):
    """Whether an edge counts under a rule, and why."""

    state: SettledState
    says: str


class StationsOut(Wire):
    """Thickness at stations, summed up."""

    mean_mm: float
    low_mm: float
    high_mm: float
    range_mm: float
    uneven: bool


class EdgeOut(Wire):
    """An edge with what is known of it."""

    id: str
    number: int
    number_is_least: bool
    arm: str
    side_angle_deg: float | None
    micro_bevel_side_deg: float | None
    thickness_behind_edge_mm: float | None
    start_gf: float | None
    made_on: str
    regime: str
    recipe_id: str | None
    steps: list[StepBody]
    strokes_per_side: int
    minutes: float | None
    trouble: str
    burr_check: BurrCheck
    lamp_check: LampCheck
    steel_removed_mm: float | None
    factory: bool
    damage: list[DamageBody]
    zones: list[ZoneBody]
    zones_overlap: bool
    overrule: bool | None
    overrule_reason: str
    note: str
    measurements: list[MeasurementOut]
    stations: StationsOut | None
    expected_thickness: str

    @classmethod
    def of(cls, edge: Edge, blade: Blade) -> "EdgeOut":
        stations = stations_of(edge)
        expected = expected_thickness(blade, edge)
        plain = (
            "id",
            "number",
            "number_is_least",
            "arm",
            "made_on",
            "regime",
            "recipe_id",
            "minutes",
            "trouble",
            "steel_removed_mm",
            "factory",
            "zones_overlap",
            "overrule",
            "overrule_reason",
            "note",
            "burr_check",
            "lamp_check",
        )
        return cls(
            **{name: getattr(edge, name) for name in plain},
            side_angle_deg=edge.value("side_angle_deg"),
            micro_bevel_side_deg=edge.value("micro_bevel_side_deg"),
            thickness_behind_edge_mm=edge.value("thickness_behind_edge_mm"),
            start_gf=edge.value("start_gf"),
            steps=step_bodies(edge.steps),
            strokes_per_side=total_strokes_per_side(edge.steps),
            damage=[DamageBody(**asdict(mark)) for mark in edge.damage],
            zones=[ZoneBody(**asdict(zone)) for zone in edge.zones],
            measurements=histories(edge.measurements),
            stations=(
                StationsOut(**asdict(stations), range_mm=stations.range_mm) if stations else None
            ),
            expected_thickness=expected_words(expected) if expected else "",
        )
