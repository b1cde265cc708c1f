"""Trials: one question put to several blades under one method, with its plan."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated

from kessik.core.comparison.findings import UnlikeMethod
from kessik.core.comparison.matching import FACTORS, MatchingRule
from kessik.core.comparison.variables import BY_NAME, MOST_TOLERANCE
from kessik.core.errors import OutOfRangeError
from kessik.core.moments import Moment
from kessik.core.planning.budget import Pace
from kessik.core.planning.order import OrderKind
from kessik.core.protocols.methods import Method
from kessik.core.protocols.unlike_methods import differences
from kessik.core.records import Day, Id, LongText, Within
from kessik.core.sharpening.settled import SettledRule


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
    seed: Annotated[int, Within("seed")] = 1
    balance_zones: bool = False
    prediction: LongText = ""
    starts_on: Day = ""
    hours_a_day: float = 4.0
    medium_lot_id: Id | None = None
    check_lot_id: Id | None = None


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


def unlike_versions(versions: Mapping[str, MethodVersion], trial: Trial) -> dict[str, UnlikeMethod]:
    """Versions, by id, that do not agree with the one in force on what matters, with the reason."""
    found = {}
    for version in versions.values():
        apart = differences(version.method, trial.method)
        if version.id != trial.method_id and apart:
            found[version.id] = UnlikeMethod(version.number, tuple(apart))
    return found


def check_trial(trial: Trial) -> None:
    """Refuse a trial without a name, with an unknown factor or variable, or with an impossible rope
    or tolerance.
    """
    if not trial.name.strip():
        raise OutOfRangeError("give the trial a name", field="name")
    if trial.rule.factor not in FACTORS:
        raise OutOfRangeError(
            f"the factor {trial.rule.factor!r} is not one of {', '.join(FACTORS)}",
            field="factor",
            value=trial.rule.factor,
        )
    if trial.rope_diameter_mm is not None and not 0 < trial.rope_diameter_mm <= 200:
        raise OutOfRangeError(
            f"a rope of {trial.rope_diameter_mm:g} mm is out of range: give a diameter above 0"
            " and up to 200 mm",
            field="rope_diameter_mm",
            value=trial.rope_diameter_mm,
        )
    _check_variables(trial)
    trial.settled_rule.check()


def _check_variables(trial: Trial) -> None:
    named = {
        "tolerances": trial.rule.tolerances,
        "effects": trial.rule.effects,
        "let_go": trial.rule.let_go,
    }
    for named_in, names in named.items():
        for name in names:
            if name not in BY_NAME:
                known = ", ".join(BY_NAME)
                raise OutOfRangeError(
                    f"{name!r} is not one of the variables held equal: {known}",
                    field=named_in,
                    value=name,
                )
    for name, tolerance in trial.rule.tolerances.items():
        least = 1.0 if BY_NAME[name].kind == "ratio" else 0.0
        if not least <= tolerance <= MOST_TOLERANCE:
            raise OutOfRangeError(
                f"a tolerance of {tolerance:g} for {BY_NAME[name].label} is out of range: give"
                f" {least:g} to {MOST_TOLERANCE:g}",
                field="tolerances",
                value=tolerance,
            )
    for name, effect in trial.rule.effects.items():
        if not 0 <= effect <= 100:
            raise OutOfRangeError(
                f"{effect:g} % of life for each unit of {BY_NAME[name].label} is out of range: give"
                " 0 to 100",
                field="effects",
                value=effect,
            )
