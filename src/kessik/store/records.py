"""Plain objects that the queries hand out: what is kept of trials, blades, edges and runs."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from kessik.core.comparison.matching import MatchingRule
from kessik.core.facts import Measurement, Standing, used
from kessik.core.geometry import Zone
from kessik.core.planning.budget import Pace
from kessik.core.planning.order import OrderKind
from kessik.core.protocols.methods import Method
from kessik.core.sharpening.regimes import Step
from kessik.core.sharpening.settled import SettledRule, Sharpening

Role = Literal["", "low_reference", "high_reference"]
DamageKind = Literal["chip", "roll", "glint", "burr"]
InstrumentKind = Literal["force", "rockwell", "xrf", "camera", "pedal"]
LotKind = Literal["rope", "board", "card", "paper", "test_line", "abrasive", "salt"]


@dataclass(frozen=True)
class Moment:
    """A time in UTC (ISO 8601) with the offset it was made at, in minutes."""

    utc: str
    offset_minutes: int = 0


@dataclass(frozen=True)
class Plan:
    """What was planned of a trial: how far its blades are expected to go, what is left to cut,
    order and prediction.

    `own_pace` says that the tester set the seconds by hand instead of having them learned.
    """

    expected_life: float | None = None
    wanted_percent: float = 20.0
    rope_left_m: float | None = None
    line_left_m: float | None = None
    pace: Pace = field(default_factory=Pace)
    own_pace: bool = False
    order_kind: OrderKind = "latin_square"
    seed: int = 1
    balance_zones: bool = False
    prediction: str = ""
    starts_on: str = ""
    hours_a_day: float = 4.0
    medium_lot_id: str | None = None
    check_lot_id: str | None = None


@dataclass(frozen=True)
class MethodVersion:
    """A method as it was at one time; versions of one line follow each other, and none is ever
    rewritten.
    """

    id: str
    line_id: str
    number: int
    method: Method
    made_utc: str


@dataclass(frozen=True)
class Trial:
    """One question put to several blades under one method; `method_id` names the version in
    force.
    """

    id: str
    name: str
    created: Moment
    question: str = ""
    rule: MatchingRule = field(default_factory=MatchingRule)
    method: Method = field(default_factory=Method)
    method_id: str = ""
    method_number: int = 1
    settled_rule: SettledRule = field(default_factory=SettledRule)
    plan: Plan = field(default_factory=Plan)
    edges_per_blade: int = 2
    medium: str = ""
    rope_diameter_mm: float | None = None
    source: str = "bench"
    blind_seed: int | None = None
    unblinded_utc: str | None = None
    cautions_seen_utc: str | None = None

    @property
    def is_blind(self) -> bool:
        """Whether codes stand for blades and the running score is hidden, now."""
        return self.blind_seed is not None and self.unblinded_utc is None


@dataclass(frozen=True)
class Damage:
    """Something seen at a place on the edge, mm from the heel."""

    position_mm: float
    kind: DamageKind
    note: str = ""


@dataclass(frozen=True)
class Edge:
    """One sharpening of one blade; `other` keeps columns of a file that Kessik does not use yet.

    `overrule` is the tester's own word on whether the edge counts, with its reason.
    """

    id: str
    blade_id: str
    number: int
    measurements: tuple[Measurement, ...] = ()
    made_on: str = ""
    regime: str = ""
    recipe_id: str | None = None
    steps: tuple[Step, ...] = ()
    minutes: float | None = None
    trouble: str = ""
    burr_check: str = ""
    lamp_check: str = ""
    steel_removed_mm: float | None = None
    factory: bool = False
    damage: tuple[Damage, ...] = ()
    zones: tuple[Zone, ...] = ()
    zones_overlap: bool = False
    overrule: bool | None = None
    overrule_reason: str = ""
    note: str = ""
    other: Mapping[str, Any] = field(default_factory=dict)

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
        )


@dataclass(frozen=True)
class HeatTreatment:
    """How a blade was hardened, as far as it is told; temperatures in °C, times in minutes."""

    austenitising_c: float | None = None
    soak_minutes: float | None = None
    quench: str = ""
    sub_zero_c: float | None = None
    tempers_c: tuple[float, ...] = ()
    standing: Standing = "claimed"
    note: str = ""


@dataclass(frozen=True)
class Blade:
    """A physical specimen with its edges. `mark` is its own everywhere; `place` is its place in a
    trial.
    """

    id: str
    code: str
    mark: int = 0
    place: int = 0
    role: Role = ""
    claimed_grade: str | None = None
    usual_hardness_low_hrc: float | None = None
    usual_hardness_high_hrc: float | None = None
    owner: str = ""
    price: str = ""
    loan_from: str = ""
    loan_due: str = ""
    loan_returned: str = ""
    heat_treatment: HeatTreatment = field(default_factory=HeatTreatment)
    origin: str = ""
    archived_utc: str | None = None
    note: str = ""
    other: Mapping[str, Any] = field(default_factory=dict)
    measurements: tuple[Measurement, ...] = ()
    edges: tuple[Edge, ...] = ()

    def edge(self, number: int) -> Edge | None:
        return next((edge for edge in self.edges if edge.number == number), None)

    def used(self, quantity: str) -> Measurement | None:
        """The measurement of the blade itself that counts."""
        return used(self.measurements, quantity)

    def value(self, quantity: str) -> float | None:
        found = self.used(quantity)
        return found.value if found else None

    @property
    def edge_length_mm(self) -> float | None:
        return self.value("edge_length_mm")


@dataclass(frozen=True)
class Recipe:
    """A named regime, to be used again."""

    id: str
    name: str
    steps: tuple[Step, ...] = ()
    note: str = ""


@dataclass(frozen=True)
class Abrasive:
    """An abrasive of the tester's own, beside the standard scales."""

    id: str
    name: str
    kind: str = ""
    size_um: float | None = None
    grit: str = ""
    standing: Standing = "claimed"
    note: str = ""


@dataclass(frozen=True)
class Grade:
    """A steel designation with how it is usually hardened, as this tester has it."""

    name: str
    usual_low_hrc: float | None = None
    usual_high_hrc: float | None = None
    standing: Standing = "guessed"
    source: str = ""


@dataclass(frozen=True)
class Photo:
    """A picture of a blade, kept by the hash of its content."""

    hash: str
    blade_id: str
    media_type: str
    caption: str = ""
    added_utc: str = ""


@dataclass(frozen=True)
class Lot:
    """One delivery of a medium, a check material, an abrasive or a salt; amounts in `unit`, price
    for all of it.

    `details` say what it is (fibre, lay, strands, walls, flute), `state` how it was kept and cut
    (dry or damp, humidity, direction, what was avoided).
    """

    id: str
    kind: LotKind
    name: str
    unit: str
    bought_amount: float | None = None
    bought_on: str = ""
    price: float | None = None
    currency: str = ""
    details: Mapping[str, Any] = field(default_factory=dict)
    state: Mapping[str, Any] = field(default_factory=dict)
    note: str = ""
    archived_utc: str | None = None


@dataclass(frozen=True)
class LotCorrection:
    """An amount used that no run shows; below zero where more was left than booked."""

    id: str
    lot_id: str
    amount: float
    reason: str
    made_utc: str


@dataclass(frozen=True)
class Booking:
    """What a run takes of a lot, in the lot's unit: for each count, each reading, and once for the
    run.
    """

    lot_id: str
    use: Literal["medium", "check"]
    per_count: float = 0.0
    per_reading: float = 0.0
    per_run: float = 0.0

    def amount(self, count: float, readings: int) -> float:
        used = count * self.per_count + readings * self.per_reading
        return used + self.per_run if count > 0 else used


@dataclass(frozen=True)
class Run:
    """One edge (or zone) cut under one method; `block` and `round` as the plan numbers them."""

    id: str
    trial_id: str
    edge_id: str
    number: int
    started: Moment
    practice: bool = False
    practice_seed: int | None = None
    count_unit: str = "cuts"
    zone_from_mm: float | None = None
    zone_to_mm: float | None = None
    edge_length_used_mm: float | None = None
    method_id: str = ""
    block: int | None = None
    round: int | None = None
    operator: str = ""
    verifies_run_id: str | None = None
    lot_change: str = ""
    after_strop_of: str | None = None
    bookings: tuple[Booking, ...] = ()
    other: Mapping[str, Any] = field(default_factory=dict)

    @property
    def compares(self) -> bool:
        """Whether it stands in comparisons: not practice, and on a fresh edge, not on one that was
        stropped back.
        """
        return not self.practice and self.after_strop_of is None

    @property
    def worked_mm(self) -> tuple[float, float] | None:
        """The stretch of edge that cuts, where the run has one."""
        if self.zone_from_mm is None or self.zone_to_mm is None:
            return None
        return self.zone_from_mm, self.zone_to_mm


@dataclass(frozen=True)
class Instrument:
    """A device and where it is plugged in: a serial port, a TCP line (socket://), or a folder it
    writes to.

    Its range is in its unit; readings beyond it are shown and not recorded.
    """

    id: str
    kind: InstrumentKind
    name: str
    address: str
    baud: int = 9600
    unit: str = ""
    range_low: float | None = None
    range_high: float | None = None
    reference: str = ""
    in_use: bool = True
    archived_utc: str | None = None


@dataclass(frozen=True)
class ReferenceCheck:
    """Readings of an instrument on its reference, in its unit."""

    id: str
    instrument_id: str
    readings: tuple[float, ...]
    reference: str
    note: str
    made: Moment


@dataclass(frozen=True)
class PairedDevice:
    """A device of the local network that may use this bench; of its session only a hash is kept."""

    id: str
    name: str
    session_hash: str
    paired_utc: str
