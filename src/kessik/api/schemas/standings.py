"""Standings over the wire: ladders, groups, doubts, bridges and the next cut."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import ArmId, Bounded, Id, LongText, Wire
from kessik.core.standings.board import Asking, GroupBy


class CriterionOut(Wire):
    """A trait in which lives must agree, or need not."""

    key: str
    label: str
    explained: str
    agrees: bool


class LikeClassOut(Wire):
    """Lives that agree, as they can be asked for: `like` is `key:value` of each trait."""

    like: list[str]
    says: str
    size: str
    is_shown: bool


class RungOut(Wire):
    """An arm on the ladder; bounds are those of a 95 % interval, empty where an end is open."""

    arm: str
    blade_id: str
    code: str
    mark: int
    grade: str
    maker: str
    heat_treatment: str
    edge_finish: str
    edge_length_mm: float | None
    archived: bool
    island: int
    best: int
    worst: int
    place: str
    ratio: float | None
    low: float | None
    high: float | None
    says: str
    cuts: float | None
    trials: list[str]
    rests: str
    marks: list[str]
    off_group: str


class GroupOut(Wire):
    """A grade, a maker or the like: its mean with the interval for another blade of it."""

    name: str
    arms: list[str]
    ratio: float
    low: float
    high: float
    lowest: float
    highest: float
    says: str


class IslandOut(Wire):
    """Blades that no path connects with the others, and the blade they are put beside."""

    reference: str
    arms: int


class SpreadShareOut(Wire):
    """A part of the whole spread of lives."""

    label: str
    percent: float


class DoubtedOut(Wire):
    """A trial that disagrees with all others."""

    trial_id: str
    trial: str
    arm: str
    says: str
    with_and_without: str
    checklist: list[str]


class ProposedTrialOut(Wire):
    """Two blades to be cut side by side, as a trial that can be made of it."""

    arms: list[str]
    edges_per_blade: int
    like_trial_id: str
    question: str


class UsefulCutOut(Wire):
    """A cut with what it is expected to do."""

    says: str
    trial: ProposedTrialOut


class AdviceOut(Wire):
    """The next most useful cuts for what was asked."""

    says: str
    is_enough: bool
    cuts: list[UsefulCutOut]


class BridgeOut(Wire):
    """How an island would be connected."""

    island: int
    says: str
    trial: ProposedTrialOut


class OwnRungOut(Wire):
    """Where a tester's own trials alone put an arm."""

    arm: str
    says: str
    place: str


class TesterStandingOut(Wire):
    """A tester's own standings beside the common ones."""

    name: str
    says: str
    rungs: list[OwnRungOut]


class ConsistencyOut(Wire):
    """Mandel's h and k of one tester's lives of one blade, and Cochran's figure of the blade."""

    code: str
    name: str
    runs: int
    h: str
    k: str
    cochran: str


class BoardOut(Wire):
    """Standings: one ladder an island, the longest life on top."""

    headline: str
    basis: list[str]
    loosened: list[str]
    criteria: list[CriterionOut]
    classes: list[LikeClassOut]
    reference: str
    unit: str
    by: GroupBy
    asking: Asking
    first: str
    second: str
    fair_only: bool
    with_doubted: bool
    rungs: list[RungOut]
    islands: list[IslandOut]
    groups: list[GroupOut]
    spread: list[SpreadShareOut]
    doubted: list[DoubtedOut]
    power: str
    advice: AdviceOut
    bridges: list[BridgeOut]
    trials: dict[str, str] = Field(description="names of trials by id")
    testers: list[TesterStandingOut]
    consistency: list[ConsistencyOut]
    apart: list[str] = Field(description="lives of one tester that stand apart from the others")
    repeats: str


class StandingsOut(Wire):
    """The last answer there is, none while it is worked out for the first time; `refused` says why
    there can be none. While a newer one is on its way, so many trials of all are worked out.
    """

    answer: BoardOut | None
    refused: str
    is_behind: bool
    trials_done: int
    trials: int


class ReferenceCurveOut(Wire):
    """A reference's curve, its counts put on the scale of the trial."""

    counts: list[float]
    middle_gf: list[float]
    low_gf: list[float]
    high_gf: list[float]


class ReferenceOut(Wire):
    """A reference of earlier trials, as far as it would have gone in this one."""

    blade_id: str
    code: str
    mark: int
    grade: str | None
    says: str
    estimate: float
    low: float
    high: float
    curve: ReferenceCurveOut | None


class TrialOfCutBody(Wire):
    """A trial to be made of a proposed cut; the id is the client's own."""

    id: Id
    arms: Annotated[list[ArmId], Field(min_length=2, max_length=8)]
    edges_per_blade: Annotated[int, Bounded("edges_per_blade")] = 2
    like_trial_id: Id
    question: LongText = ""
