"""Played plans over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Finite, Id, ShortText, Wire
from kessik.core.planning.played import Outcome


class StatedBody(Wire):
    """What a plan is played with; `id` names the work, which is watched as an import is."""

    id: Id
    lives: Annotated[dict[ShortText, Finite], Field(max_length=100)] = Field(
        default_factory=dict, description="lives by the code of a blade; others as the plan has"
    )
    edge_spread_percent: Annotated[float, Bounded("edge_spread_percent")]
    reading_scatter_percent: Annotated[float, Bounded("reading_scatter_percent")] = 7
    trials: Annotated[int, Bounded("played_trials")] = 100
    seed: Annotated[int, Bounded("seed")] = 1


class PlayedVerdictOut(Wire):
    """What one trial said of a pair, in per cent by which b outlasts a."""

    number: int
    percent: float | None
    low: float | None
    high: float | None
    outcome: Outcome


class PlayedPairOut(Wire):
    """A pair over all trials: the difference stated, how often each outcome came, and how often of
    100 the plan expects it to be told apart.
    """

    a: str
    b: str
    percent: float
    right: int
    wrong: int
    silent: int
    expected: float
    verdicts: list[PlayedVerdictOut]


class PlayedOut(Wire):
    """A played plan."""

    id: str
    trials: int
    says: list[str]
    pairs: list[PlayedPairOut]


class OpenedOut(Wire):
    """A played trial as a full one, in the practice folder."""

    trial_id: str
