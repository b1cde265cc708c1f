"""What must agree for lives to be compared, and the classes of lives that do."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field

from kessik.core.errors import OutOfRangeError
from kessik.core.standings.records import LifeRecord


@dataclass(frozen=True)
class Criterion:
    """A trait in which lives must agree, unless the tester loosens it."""

    key: str
    label: str
    explained: str
    is_usual: bool = True


CRITERIA = (
    Criterion("school", "school", "the way of testing"),
    Criterion("medium", "medium", "rope, board, cards or several; lots may differ"),
    Criterion("cut", "kind of cut", "sliced, pushed or stroked by a machine"),
    Criterion("end", "limit or ability", "the force limit or the ability whose loss ends a life"),
    Criterion(
        "hardness_reading",
        "hardness question",
        "blades of one hardness, or each as its grade is usually hardened",
        is_usual=False,
    ),
    Criterion(
        "edge_length",
        "edge length",
        "known of every run of a trial, so that lives are scaled to one length",
        is_usual=False,
    ),
)
USUAL = tuple(criterion.key for criterion in CRITERIA if criterion.is_usual)
_KNOWN = {criterion.key: criterion for criterion in CRITERIA}
_WANTED = {"edge_length": "known"}
"""Traits of which only one value is asked for: what is not known agrees with nothing."""


@dataclass(frozen=True)
class TrialLife:
    """One edge's life in a trial with its traits, by criterion; `unlike` names the variables in
    which its edge was not matched there, and `ends_run` tells whether the end is its method's last.
    `of` is the tester who sent its trial, empty for those made here.
    """

    arm: str
    blade_id: str
    code: str
    tester: str
    block: str
    edge: str
    lower: float | None
    upper: float | None
    log_sd: float
    unit: str
    stage: str = ""
    traits: Mapping[str, str] = field(default_factory=dict)
    unlike: tuple[str, ...] = ()
    ends_run: bool = False
    of: str = ""

    @property
    def hand(self) -> str:
        """Who cut it: hands of one name of two testers are two."""
        return f"{self.of}/{self.tester}" if self.of else self.tester


@dataclass(frozen=True)
class LikeClass:
    """Lives that agree: the traits they share, and of how many arms, trials and edges they are.

    `mixed` holds what they do not agree in, by criterion: the values that there are.
    """

    traits: tuple[tuple[str, str], ...]
    arms: int
    trials: int
    lives: int
    mixed: Mapping[str, tuple[str, ...]] = field(default_factory=dict, hash=False)
    ends_run: bool = False


LivesByTrial = Mapping[str, Sequence[TrialLife]]


def check_criteria(keys: Collection[str]) -> tuple[str, ...]:
    """The criteria in their order; OutOfRangeError for one that is none."""
    for key in keys:
        if key not in _KNOWN:
            raise OutOfRangeError(
                f"{key!r} is not one of {', '.join(_KNOWN)}", field="agree", value=key
            )
    return tuple(key for key in _KNOWN if key in keys)


def classes_of(lives: LivesByTrial, agree: Collection[str]) -> list[LikeClass]:
    """The classes of lives that agree in these criteria, the one with most arms first; of several
    ends of a method the last goes first.
    """
    keys = check_criteria(agree)
    members: dict[tuple[str, ...], list[tuple[str, TrialLife]]] = {}
    for trial, own in lives.items():
        for life in own:
            if _is_wanted(life, keys):
                values = tuple(life.traits.get(key, "") for key in keys)
                members.setdefault(values, []).append((trial, life))
    found = [_class_of(keys, values, own) for values, own in members.items()]
    return sorted(found, key=_size, reverse=True)


def _size(like: LikeClass) -> tuple[int, int, bool, int]:
    return like.arms, like.trials, like.ends_run, like.lives


def _class_of(
    keys: Sequence[str], values: Sequence[str], members: Sequence[tuple[str, TrialLife]]
) -> LikeClass:
    mixed = {
        key: tuple(sorted({life.traits.get(key, "") for _, life in members}))
        for key in _KNOWN
        if key not in keys
    }
    return LikeClass(
        tuple(zip(keys, values, strict=True)),
        len({life.arm for _, life in members}),
        len({trial for trial, _ in members}),
        len(members),
        {key: there for key, there in mixed.items() if len(there) > 1},
        all(life.ends_run for _, life in members),
    )


def records_in(lives: LivesByTrial, like: LikeClass, fair_only: bool = False) -> list[LifeRecord]:
    """The lives of a class as the network takes them.

    Where an edge has lives at several ends, as a loosened class can have, the last one counts.
    """
    wanted = dict(like.traits)
    found: dict[tuple[str, ...], LifeRecord] = {}
    for trial, own in lives.items():
        for number, life in enumerate(own):
            if any(life.traits.get(key, "") != value for key, value in wanted.items()):
                continue
            if fair_only and life.unlike:
                continue
            edge = life.edge or str(number)
            key = (trial, life.block, life.arm, edge, "" if "end" not in wanted else str(number))
            found[key] = LifeRecord(
                trial, life.block, life.arm, life.hand, life.lower, life.upper, life.log_sd, edge
            )
    return list(found.values())


def _is_wanted(life: TrialLife, keys: Collection[str]) -> bool:
    return all(life.traits.get(key) == value for key, value in _WANTED.items() if key in keys)
