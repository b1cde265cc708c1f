"""Choice and upkeep over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Id, LongText, ShortText, Wire
from kessik.core.choice.axes import AxisKey
from kessik.core.choice.decision import MOST_WEIGHT
from kessik.core.choice.uses import ChosenBy

_Weight = Annotated[float, Field(ge=0.0, le=MOST_WEIGHT, allow_inf_nan=False)]


class UseBody(Wire):
    """A use: its name, what matters in it and how much, which lives and which soak count."""

    name: ShortText
    weights: Annotated[dict[AxisKey, _Weight], Field(max_length=12)]
    life: LongText = ""
    soak_id: ShortText = ""
    by: ChosenBy = "blade"
    in_hand: bool = False
    steel_to_lose_mm: Annotated[float, Bounded("steel_to_lose_mm")] = 6.0
    hour_costs: Annotated[float, Bounded("stock")] = 0.0


class UseOut(UseBody):
    """A use that is kept."""

    id: Id


class AxisOut(Wire):
    """A thing that can be weighed, and of how many it is known."""

    key: AxisKey
    label: str
    more_is_better: bool
    known_of: int


class FigureAtOut(Wire):
    """A figure of a candidate on an axis."""

    axis: AxisKey
    value: float
    low: float
    high: float
    says: str
    rests_on: str


class ChosenOut(Wire):
    """A blade or a grade with its figures; `says` is what is to be said of its place."""

    id: str
    name: str
    mark: int
    grade: str
    figures: list[FigureAtOut]
    is_placed: bool
    is_within_doubt: bool
    is_beaten: bool
    says: str


class ChoiceOptionOut(Wire):
    """Lives or a soak that can be chosen to count."""

    value: str
    says: str


class ChoiceOut(Wire):
    """A choice at some weights, the first on top; those that cannot be placed come last. So many of
    all trials are worked out.
    """

    headline: str
    bargain: str
    flips: list[str]
    candidates: list[ChosenOut]
    axes: list[AxisOut]
    lives: list[ChoiceOptionOut]
    soaks: list[ChoiceOptionOut]
    no_lives: str
    notes: list[str]
    trials_done: int
    trials: int


class UpkeepRowOut(Wire):
    """What a blade asks for, figure by figure in words; empty where nothing was noted."""

    blade_id: str
    code: str
    mark: int
    grade: str
    sharpenings: int
    minutes: float | None
    minutes_low: float | None
    minutes_high: float | None
    minutes_says: str
    strokes_says: str
    steel_says: str
    steps_again: str
    trouble: str
    strop: str
    per_cut_says: str
    reangling_says: str
