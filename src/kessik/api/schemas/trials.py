"""Trials, blades and edges over the wire."""

from typing import Annotated, Any

from pydantic import Field

from kessik.api.schemas.common import Bounded, Day, Finite, Id, LongText, ShortText, Wire
from kessik.api.schemas.methods import MethodBody, MethodOut
from kessik.api.schemas.records import Answer, PartialBody
from kessik.api.schemas.shelf import BladeOut
from kessik.core.comparison.matching import (
    Cell,
    HardnessReading,
)
from kessik.core.comparison.remedies import WayKind
from kessik.core.comparison.variables import Factor, Variable
from kessik.core.limits import most
from kessik.core.moments import Moment
from kessik.core.protocols.run_state import RunStatus
from kessik.core.sharpening.settled import RuleKind
from kessik.core.shelf.blades import TrialRole
from kessik.core.trials.next_step import StepKind


class TrialBody(Wire):
    """A new trial."""

    id: Id
    name: ShortText
    question: LongText = ""
    factor: Factor = "steel"
    hardness_reading: HardnessReading = "same_hardness"
    tolerances: dict[str, Finite] = Field(default_factory=dict)
    effects: dict[str, Finite] = Field(default_factory=dict)
    let_go: list[ShortText] = Field(default_factory=list, max_length=most("details"))
    scale_edge_length: bool = False
    settled_kind: RuleKind = "edge_number"
    settled_edge_number: Annotated[int, Bounded("settled_edge_number")] = 3
    settled_steel_removed_mm: Finite = 0.5
    method: MethodBody | None = Field(
        default=None, description="empty: the force-limit rope series"
    )
    edges_per_blade: Annotated[int, Bounded("edges_per_blade")] = 2
    medium: ShortText = ""
    rope_diameter_mm: Finite | None = None


class TrialPatch(PartialBody):
    """Settings of a trial to change."""

    emptiable = frozenset({"rope_diameter_mm"})

    name: ShortText | None = None
    question: LongText | None = None
    factor: Factor | None = None
    hardness_reading: HardnessReading | None = None
    tolerances: dict[str, Finite] | None = None
    effects: dict[str, Finite] | None = None
    let_go: list[ShortText] | None = Field(default=None, max_length=most("details"))
    scale_edge_length: bool | None = None
    settled_kind: RuleKind | None = None
    settled_edge_number: Annotated[int, Bounded("settled_edge_number")] | None = None
    settled_steel_removed_mm: Finite | None = None
    edges_per_blade: Annotated[int, Bounded("edges_per_blade")] | None = None
    medium: ShortText | None = None
    rope_diameter_mm: Finite | None = None
    created_on: Day | None = None
    reason: LongText = ""

    def changes(self) -> dict[str, Any]:
        found = super().changes()
        found.pop("reason", None)
        day = found.pop("created_on", None)
        if day:
            found["created"] = Moment(f"{day}T12:00:00.000+00:00")
        return found


class TrialOut(Wire):
    """A trial as it is kept, with its stop rule in words."""

    id: str
    name: str
    question: str
    factor: Factor
    hardness_reading: HardnessReading
    tolerances: dict[str, float]
    effects: dict[str, float]
    let_go: list[str]
    scale_edge_length: bool
    settled_kind: RuleKind
    settled_edge_number: int
    settled_steel_removed_mm: float
    settled_rule: str
    method: MethodOut
    edges_per_blade: int
    medium: str
    rope_diameter_mm: float | None
    created_utc: str
    source: str
    is_blind: bool
    unblinded_utc: str | None
    cautions_seen: bool


class SeenBody(Wire):
    """Whether the cautions of a trial were read and need not be shown again."""

    seen: bool


class RoleBody(Wire):
    """What a blade is in a trial for; `arms` are the preparations it is compared under, where they
    are sent.
    """

    role: TrialRole = ""
    arms: list[ShortText] | None = Field(None, max_length=most("arms"))


class VariableOut(Answer[Variable], without="asked life_percent_per_unit"):
    """A held-equal variable with the tolerance and the assumed effect in force; `held` unless
    knowingly let go.
    """

    usual_tolerance: float
    tolerance_unit: str
    effect_percent: float | None
    held: bool
    recorded: bool
    allowed: str = Field(description="what the trial allows of it, in words")


class CellOut(Answer[Cell], without="finding"):
    """One blade at one variable."""

    standing: str | None
    says: str


class RemedyOut(Wire):
    """One way out of a mismatch, in words; `change` is what it changes of the trial, where it does
    that.
    """

    kind: WayKind
    says: str
    change: TrialPatch | None


class MismatchOut(Wire):
    """A blade that differs at a variable, what that does to the answer, and the ways out of it."""

    blade: str
    variable: str
    says: str
    ways_out: list[RemedyOut]


class RunBrief(Wire):
    """A run in one line."""

    id: str
    blade_id: str
    arm_id: str
    edge_id: str
    edge: int
    number: int
    practice: bool
    status: RunStatus
    count: float
    count_unit: str
    started_utc: str
    zone_from_mm: float | None
    zone_to_mm: float | None
    worn_share: float


class NextStepOut(Wire):
    """What to do next in a trial."""

    kind: StepKind
    says: str
    run_id: str | None
    arm_id: str | None
    edge_id: str | None
    zone_from_mm: float | None
    zone_to_mm: float | None


class LineUpOut(Wire):
    """The line-up: blades by variables, what is open, and what an answer could speak of."""

    trial: TrialOut
    blades: list[BladeOut]
    variables: list[VariableOut]
    cells: list[CellOut]
    pending: list[str]
    taken_as_equal: list[str]
    references: list[str]
    mismatches: list[MismatchOut]
    used_up: list[str] = Field(
        description="ids of the edges that were cut, in this trial or another"
    )
    scope: str
    says: str
    runs: list[RunBrief]
    codes: dict[str, str] = Field(description="by arm id, while the trial is blind")
    next_step: NextStepOut
