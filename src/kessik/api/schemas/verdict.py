"""Verdicts and Today over the wire."""

from pydantic import Field

from kessik.api.schemas.common import Wire
from kessik.api.schemas.edges import StropBackOut
from kessik.api.schemas.records import Answer
from kessik.api.schemas.shelf import BladeOut
from kessik.api.schemas.trials import CellOut, NextStepOut, RunBrief, TrialOut
from kessik.core.comparison.along import Along
from kessik.core.comparison.analysis import BladeResult
from kessik.core.comparison.results import RunResult
from kessik.core.comparison.verdict import Comparison
from kessik.core.due import Due
from kessik.core.protocols.stop_rules import ByRule
from kessik.core.sharpening.rounds import Round
from kessik.core.sharpness.life import LifeFigures
from kessik.services.finding import Found


class ByRuleOut(Answer[ByRule], without="gaps"):
    """What the plain stop rule gives."""

    rule: str
    schedule: str


class LifeOut(Answer[LifeFigures]):
    """A life: estimate, bounds, status; in the run's count unit, and in words."""

    by_rule: ByRuleOut
    words: str


class BandOut(Wire):
    """A run's curve: median and 95 % band."""

    counts: list[float]
    middle_gf: list[float]
    low_gf: list[float]
    high_gf: list[float]


class ReadingOut(Wire):
    """One reading, struck ones included."""

    count: float
    force_gf: float
    struck: bool


class FigureOut(Wire):
    """Something a run or blade shows besides lives."""

    name: str
    label: str
    unit: str
    value: float


class EffortsOut(Wire):
    """Effort by layers: the counts, means by blade in their order, and from where the blades
    separate.
    """

    layers: list[float]
    by_blade: dict[str, list[float | None]]
    separates_at: float | None


class AlongOut(Answer[Along]):
    """One more axis that the course of a run is drawn along."""


class RunVerdictOut(Answer[RunResult], without="start_readings"):
    """A run in the verdict."""

    run: RunBrief
    blade: str
    mark: int
    readings: list[ReadingOut]
    lives: dict[str, LifeOut]
    along: list[AlongOut] = Field(description="what its course is drawn along besides its count")
    warnings: list[str]
    left_out: str
    figures: list[FigureOut]
    controls: list[str] = Field(description="what was read beside the worked zone, and where")
    band: BandOut | None


class BladeVerdictOut(Answer[BladeResult], without="left_out length_factor"):
    """A blade on the ladder."""

    mark: int
    grade: str | None
    lives: dict[str, LifeOut]
    on_one_length: dict[str, str] = Field(description="lives on one edge length, in words")
    ranked: bool
    figures: list[FigureOut]


class ComparisonOut(Answer[Comparison]):
    """A pair judged."""

    pending: list[str]
    reasons: list[str]
    words: str
    order: list[str] = Field(description="who lasts longer, by the estimate, and the other")
    tag: str = Field(description="the verdict in two or three words, naming who lasts longer")
    size: str = Field(description="by how much the first lasts longer")
    interval: str
    reason_numbers: list[int] = Field(description="its reasons, by their numbers among those told")


class RoundOut(Answer[Round], without="start_log_sd life_log_sd"):
    """One round of the same light sharpening."""


class StroppedOut(StropBackOut):
    """One strop-back: of which edge, after which cutting of it, and what came back."""

    edge: int
    cutting: int


class UpkeepOut(Wire):
    """What one blade asks for: rounds, strop-backs, and what they say."""

    blade: str
    mark: int
    rounds: list[RoundOut]
    restoring: str
    no_longer: bool
    strops: list[StroppedOut]
    abilities: list[str]
    stones: str


class StageAnswerOut(Wire):
    """The answer at one more stage of the method."""

    stage: str
    headline: str
    ladder: list[BladeVerdictOut]
    tie_groups: list[list[str]]
    comparisons: list[ComparisonOut]
    shared_reasons: list[str]
    reasons: list[str] = Field(
        description="the other reasons, each once; pairs name them by number"
    )


class AnswerOut(Wire):
    """A trial's answer: at its main stage, and then at each other one."""

    trial: TrialOut
    blades: list[BladeOut]
    stage: str
    stages: list[str]
    headline: str
    standing: str
    pending: list[str]
    notes: list[str]
    runs: list[RunVerdictOut]
    ladder: list[BladeVerdictOut]
    tie_groups: list[list[str]]
    comparisons: list[ComparisonOut]
    shared_reasons: list[str] = Field(description="what holds for every pair, said once")
    reasons: list[str] = Field(
        description="the other reasons, each once; pairs name them by number"
    )
    other_stages: list[StageAnswerOut]
    sums: list[str] = Field(description="how the stages of each edge and blade make its total")
    ways: list[str] = Field(description="how good each blade was on the way to its life")
    figure_blades: list[BladeVerdictOut]
    figure_comparisons: list[ComparisonOut]
    efforts: EffortsOut | None
    lot_factors: list[str]
    cells: list[CellOut]
    left_out: list[str]
    with_all: str
    prediction: str
    taken_as_equal: list[str]
    let_go: list[str]
    upkeep: list[UpkeepOut]
    next_step: NextStepOut


class SealedAnswerOut(Wire):
    """All that may be shown of an answer while it is hidden, and why it is."""

    trial: TrialOut
    headline: str
    sealed: str
    prediction: str
    next_step: NextStepOut


class VerdictOut(Wire):
    """The last answer of a trial, and how many answers are being worked out, where it is among
    them.
    """

    answer: AnswerOut | SealedAnswerOut
    working_out: int


class TrialHeadOut(Wire):
    """What a trial is, in a line."""

    id: str
    name: str
    question: str
    created_utc: str
    source: str
    factor: str
    medium: str
    school: str
    method_name: str
    ends_when: str


class ArmMarkOut(Wire):
    """A blade or arm as a line of a list shows it."""

    code: str
    mark: int
    steel: str


class TrialTodayOut(Wire):
    """A trial at the front door; one that is finished is told in a line, without what was cut."""

    trial: TrialHeadOut
    is_finished: bool
    last_cut_utc: str
    arms: list[ArmMarkOut]
    blades: list[BladeOut]
    headline: str
    standing: str
    runs: list[RunBrief]
    lives: dict[str, LifeOut]
    next_step: NextStepOut


class TodayOut(Wire):
    """The front door; `archived` names the trials that were put away, and since when."""

    trials: list[TrialTodayOut]
    archived: dict[str, str]
    failed: list["FailedTrialOut"]
    due: list["DueOut"]
    working_out: int


class FailedTrialOut(Wire):
    """A trial that cannot be worked out, and why."""

    trial_id: str
    name: str
    why: str


class DueOut(Answer[Due], without="what"):
    """Something that waits, with what it is of and the day it is due."""

    says: str


class FoundOut(Answer[Found]):
    """Something found by a few letters."""


class ImportOut(Wire):
    """What an import made, and what its reader noticed."""

    trials: list[TrialOut]
    blades: list[str]
    notes: list[str]
