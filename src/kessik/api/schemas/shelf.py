"""Blades, edges, measurements, recipes and the rest of the shelf over the wire."""

from dataclasses import asdict
from typing import Any, ClassVar, Literal

from pydantic import Field

from kessik.api.schemas.common import Day, Finite, Id, LongText, ShortText, StandingName, Wire
from kessik.core.facts import QUANTITIES, Measurement, Quantity, history, remark
from kessik.core.geometry import Zone
from kessik.core.hardness import HardnessSummary
from kessik.core.sharpening.regimes import Step, total_strokes_per_side
from kessik.services.facts import entered, expected_thickness, hardness_summary, stations_of
from kessik.store.records import (
    Abrasive,
    Blade,
    Damage,
    Edge,
    Grade,
    HeatTreatment,
    Photo,
    Recipe,
)


class QuantityOut(Wire):
    """What can be known of a blade or an edge: bounds, and what is usual."""

    name: str
    label: str
    of: Literal["blade", "edge"]
    unit: str
    low: float | None
    high: float | None
    usual_low: float | None
    usual_high: float | None
    decimals: int
    suggested: list[str]

    @classmethod
    def of_quantity(cls, quantity: Quantity) -> "QuantityOut":
        return cls(**{**asdict(quantity), "suggested": list(quantity.suggested)})


class StationBody(Wire):
    """Thickness at one place, mm from the heel."""

    position_mm: Finite
    value_mm: Finite


class DetailsBody(Wire):
    """What a measurement was made from: caliper stations, or single readings with the day's test block."""

    stations: list[StationBody] = Field(default_factory=list, max_length=100)
    readings: list[Finite] = Field(default_factory=list, max_length=100)
    block_nominal_hrc: Finite | None = None
    block_readings: list[Finite] = Field(default_factory=list, max_length=100)
    after_change: bool = False
    tapered: bool = False
    spacing_mm: Finite | None = None
    from_edge_mm: Finite | None = None


class MeasurementBody(Wire):
    """One more value of a fact; a number may be left out where the details give it."""

    id: Id
    quantity: ShortText
    edge_id: Id | None = None
    value: Finite | None = None
    words: ShortText = ""
    standing: StandingName = "measured_here"
    on: Day = ""
    instrument: ShortText = ""
    note: LongText = ""
    details: DetailsBody = Field(default_factory=DetailsBody)

    def record(self) -> Measurement:
        plain = self.model_dump(exclude={"edge_id", "details"})
        return Measurement(**plain, details=self.details.model_dump(exclude_defaults=True))


class HardnessOut(Wire):
    """Rockwell readings of one day, summed up."""

    mean_hrc: float
    low_hrc: float
    high_hrc: float
    sd_hrc: float | None
    correction_hrc: float
    used: list[float]
    dropped: list[float]
    warnings: list[str]

    @classmethod
    def of(cls, summary: HardnessSummary) -> "HardnessOut":
        return cls(**{name: getattr(summary, name) for name in cls.model_fields})


class MeasurementOut(Wire):
    """A measurement as it is kept; `in_use` marks the one that counts."""

    id: str
    quantity: str
    value: float | None
    words: str
    standing: StandingName
    on: str
    instrument: str
    note: str
    details: DetailsBody
    recorded_utc: str
    struck: str
    in_use: bool
    remark: str
    hardness: HardnessOut | None = None

    @classmethod
    def of(cls, m: Measurement, in_use: bool, blade: Blade | None = None) -> "MeasurementOut":
        quantity = QUANTITIES[m.quantity]
        summed = None
        if blade is not None and m.quantity == "hardness_hrc" and m.details.get("readings"):
            summed = HardnessOut.of(hardness_summary(m.details, blade))
        return cls(
            **{name: getattr(m, name) for name in cls.model_fields if hasattr(m, name) and name != "details"},
            details=DetailsBody(**m.details),
            in_use=in_use,
            remark=remark(quantity, m.value) if m.value is not None else "",
            hardness=summed,
        )


def histories(measurements: tuple[Measurement, ...], blade: Blade | None = None) -> list[MeasurementOut]:
    """All measurements by quantity, the one in use first."""
    out = []
    for name in dict.fromkeys(q for q in QUANTITIES if any(m.quantity == q for m in measurements)):
        for index, m in enumerate(history(measurements, name)):
            out.append(MeasurementOut.of(m, index == 0 and not m.struck, blade))
    return out


class StepBody(Wire):
    """One step of a regime."""

    abrasive: ShortText
    kind: ShortText = ""
    size_um: Finite | None = None
    grit: ShortText = ""
    side_angle_deg: Finite | None = None
    strokes_per_side: int | None = Field(default=None, le=100000)
    pressure: ShortText = ""
    note: LongText = ""
    repeats: int = Field(default=1, le=1000)

    def record(self) -> Step:
        return Step(**self.model_dump())


def step_bodies(steps: tuple[Step, ...]) -> list[StepBody]:
    return [StepBody(**asdict(step)) for step in steps]


class ZoneBody(Wire):
    """A stretch of an edge, mm from the heel."""

    from_mm: Finite
    to_mm: Finite
    use: Literal["cut", "control", "taped"] = "cut"
    name: ShortText = ""


class DamageBody(Wire):
    """Something seen at a place on the edge."""

    position_mm: Finite
    kind: Literal["chip", "roll", "glint", "burr"]
    note: LongText = ""


class EdgeBody(Wire):
    """A sharpening, or changes to one: what is not sent stays as it is.

    The three values become measurements, made here; a null among them says that it is not known after all.
    """

    stated: ClassVar[tuple[str, ...]] = ("side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm")

    id: Id
    number: int | None = Field(default=None, ge=1, le=10000)
    side_angle_deg: Finite | None = None
    micro_bevel_side_deg: Finite | None = None
    thickness_behind_edge_mm: Finite | None = None
    made_on: Day = ""
    regime: ShortText = ""
    recipe_id: Id | None = None
    steps: list[StepBody] = Field(default_factory=list, max_length=60)
    minutes: Finite | None = None
    trouble: LongText = ""
    burr_check: Literal["", "gone", "traces"] = ""
    lamp_check: Literal["", "nothing glints", "glints"] = ""
    steel_removed_mm: Finite | None = None
    factory: bool = False
    damage: list[DamageBody] = Field(default_factory=list, max_length=200)
    zones: list[ZoneBody] = Field(default_factory=list, max_length=60)
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
        for name, kind in (("steps", Step), ("damage", Damage), ("zones", Zone)):
            if name in sent:
                sent[name] = tuple(kind(**item) for item in sent[name])
        return sent

    def first_values(self, now_utc: str) -> tuple[Measurement, ...]:
        """The stated values of a new edge."""
        sent = self.sent_values()
        return tuple(entered(self.id, n, v, "measured_here", now_utc) for n, v in sent.items() if v is not None)


class SettledOut(Wire):
    """Whether an edge counts under a rule, and why."""

    state: Literal["settled", "not_yet", "factory", "unknown"]
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
    burr_check: Literal["", "gone", "traces"]
    lamp_check: Literal["", "nothing glints", "glints"]
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
            "id", "number", "made_on", "regime", "recipe_id", "minutes", "trouble", "steel_removed_mm", "factory",
            "zones_overlap", "overrule", "overrule_reason", "note", "burr_check", "lamp_check",
        )  # fmt: skip
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
            stations=StationsOut(**asdict(stations), range_mm=stations.range_mm) if stations else None,
            expected_thickness=expected.words() if expected else "",
        )


class HeatTreatmentBody(Wire):
    """How a blade was hardened, as far as it is told."""

    austenitising_c: Finite | None = None
    soak_minutes: Finite | None = None
    quench: ShortText = ""
    sub_zero_c: Finite | None = None
    tempers_c: list[Finite] = Field(default_factory=list, max_length=10)
    standing: StandingName = "claimed"
    note: LongText = ""

    def record(self) -> HeatTreatment:
        return HeatTreatment(**{**self.model_dump(), "tempers_c": tuple(self.tempers_c)})


class BladeBody(Wire):
    """A new blade with its edges; hardness and edge length become its first measurements."""

    id: Id
    code: ShortText
    claimed_grade: ShortText | None = None
    hardness_hrc: Finite | None = None
    hardness_standing: StandingName = "measured_here"
    usual_hardness_low_hrc: Finite | None = None
    usual_hardness_high_hrc: Finite | None = None
    edge_length_mm: Finite | None = None
    owner: ShortText = ""
    price: ShortText = ""
    loan_from: ShortText = ""
    loan_due: Day = ""
    note: LongText = ""
    edges: list[EdgeBody] = Field(default_factory=list)

    def record(self, blade_id: str, now_utc: str) -> Blade:
        plain = self.model_dump(exclude={"id", "edges", "hardness_hrc", "hardness_standing", "edge_length_mm"})
        measured = []
        if self.hardness_hrc is not None:
            measured.append(entered(blade_id, "hardness_hrc", self.hardness_hrc, self.hardness_standing, now_utc))
        if self.edge_length_mm is not None:
            measured.append(entered(blade_id, "edge_length_mm", self.edge_length_mm, "measured_here", now_utc))
        edges = tuple(
            Edge(body.id, blade_id, body.number or place, measurements=body.first_values(now_utc), **body.changes())
            for place, body in enumerate(self.edges, 1)
        )
        return Blade(id=blade_id, measurements=tuple(measured), edges=edges, **plain)


class Patch(Wire):
    """Some fields of a thing; what is not sent stays, and null empties a field that may be empty."""

    emptiable: ClassVar[frozenset[str]] = frozenset()

    def changes(self) -> dict[str, Any]:
        sent = self.model_dump(exclude_unset=True)
        return {name: value for name, value in sent.items() if value is not None or name in self.emptiable}


class BladePatch(Patch):
    """What is said of a blade, to change; hardness and edge length become one more measurement each."""

    emptiable = frozenset(
        {"claimed_grade", "hardness_hrc", "usual_hardness_low_hrc", "usual_hardness_high_hrc", "edge_length_mm"}
    )

    code: ShortText | None = None
    claimed_grade: ShortText | None = None
    hardness_hrc: Finite | None = None
    hardness_standing: StandingName | None = None
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
            changed["heat_treatment"] = self.heat_treatment.record()
        return changed


class BladeOut(Wire):
    """A blade with what is known of it; `mark` is its own everywhere, `place` its place in a trial."""

    id: str
    code: str
    mark: int
    place: int
    role: Literal["", "low_reference", "high_reference"]
    claimed_grade: str | None
    hardness_hrc: float | None
    hardness_standing: StandingName | None
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
            "id", "code", "mark", "place", "role", "claimed_grade", "usual_hardness_low_hrc",
            "usual_hardness_high_hrc", "owner", "price", "loan_from", "loan_due", "loan_returned", "origin",
            "archived_utc", "note",
        )  # fmt: skip
        hardness = blade.used("hardness_hrc")
        treatment = asdict(blade.heat_treatment)
        return cls(
            **{name: getattr(blade, name) for name in plain},
            hardness_hrc=hardness.value if hardness else None,
            hardness_standing=hardness.standing if hardness else None,
            edge_length_mm=blade.edge_length_mm,
            heat_treatment=HeatTreatmentBody(**{**treatment, "tempers_c": list(treatment["tempers_c"])}),
            measurements=histories(blade.measurements, blade),
            edges=[EdgeOut.of(edge, blade) for edge in blade.edges],
        )


class ShelvedOut(Wire):
    """A blade on the shelf, with how many runs it has and the trials it is in."""

    blade: BladeOut
    runs: int
    trial_ids: list[str]
    waiting: bool


class GradeBody(Wire):
    """How a grade is usually hardened."""

    name: ShortText
    usual_low_hrc: Finite | None = None
    usual_high_hrc: Finite | None = None
    standing: StandingName = "guessed"
    source: ShortText = ""

    def record(self) -> Grade:
        return Grade(**{**self.model_dump(), "name": self.name.strip()})


class GradeOut(GradeBody):
    """A grade as it stands, and whether the tester set it."""

    own: bool


class AbrasiveBody(Wire):
    """An abrasive of the tester's own."""

    id: Id
    name: ShortText
    kind: ShortText = ""
    size_um: Finite | None = None
    grit: ShortText = ""
    standing: StandingName = "claimed"
    note: LongText = ""

    def record(self) -> Abrasive:
        return Abrasive(**self.model_dump())

    @classmethod
    def of(cls, abrasive: Abrasive) -> "AbrasiveBody":
        return cls(**asdict(abrasive))


class RecipeBody(Wire):
    """A named regime."""

    id: Id
    name: ShortText
    steps: list[StepBody] = Field(max_length=60)
    note: LongText = ""

    def record(self) -> Recipe:
        return Recipe(self.id, self.name.strip(), tuple(step.record() for step in self.steps), self.note)

    @classmethod
    def of(cls, recipe: Recipe) -> "RecipeBody":
        return cls(id=recipe.id, name=recipe.name, steps=step_bodies(recipe.steps), note=recipe.note)


class CompoundOut(Wire):
    """A stropping compound or plate sold by size."""

    name: str
    kind: str
    size_um: float
    standing: StandingName


class ShelfOut(Wire):
    """All that stands on the shelf."""

    blades: list[ShelvedOut]
    recipes: list[RecipeBody]
    grades: list[GradeOut]
    abrasives: list[AbrasiveBody]
    compounds: list[CompoundOut]
    today: str


class PhotoOut(Wire):
    """A picture of a blade."""

    hash: str
    caption: str
    added_utc: str

    @classmethod
    def of(cls, photo: Photo) -> "PhotoOut":
        return cls(hash=photo.hash, caption=photo.caption, added_utc=photo.added_utc)


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


class TrialName(Wire):
    """A trial by name."""

    id: str
    name: str


class ArchivedBody(Wire):
    """Whether a blade is archived."""

    archived: bool


class StruckBody(Wire):
    """Why a measurement is struck out; empty lets it stand again."""

    reason: ShortText


class PreparationBody(Wire):
    """The next edge of several blades by one recipe: a client-made edge id for each blade id."""

    recipe_id: Id
    edge_ids: dict[Id, Id] = Field(max_length=200)
    made_on: Day = ""
    zones: list[ZoneBody] = Field(default_factory=list, max_length=60)


class PreparedOut(Wire):
    """An edge made by recipe, and how it departs from it."""

    blade_id: str
    edge_id: str
    number: int
    departures: list[str]
