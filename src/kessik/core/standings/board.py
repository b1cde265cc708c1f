"""The board: one question about all trials, answered whole."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from scipy.sparse import csr_array
from scipy.sparse.csgraph import maximum_flow

from kessik.core.errors import NotAllowedNowError, OutOfRangeError
from kessik.core.standings.answer import (
    LifeRatio,
    Progress,
    Standings,
    ratios_by,
    standings,
)
from kessik.core.standings.comparable import (
    USUAL,
    LikeClass,
    LivesByTrial,
    classes_of,
    records_in,
)
from kessik.core.standings.consistency import (
    ConsistencyLevel,
    consistency,
    lives_by_tester,
)
from kessik.core.standings.doubt import NetworkCell
from kessik.core.standings.draws import Normals
from kessik.core.standings.groups import Groups, groups_of
from kessik.core.standings.next_cut import (
    Advice,
    Bridge,
    CuttingWork,
    advise_pair,
    advise_place,
    advise_top,
    bridges,
)
from kessik.core.standings.places import PlaceSpan
from kessik.core.standings.records import one_an_edge
from kessik.core.standings.testers import TesterStanding, tester_standings

GroupBy = Literal["arm", "blade", "grade", "maker", "heat_treatment", "edge_finish"]
Asking = Literal["top", "place", "pair"]
_NAMED_FACTOR = 1.5


@dataclass(frozen=True)
class StandingsQuestion:
    """What is asked of all trials.

    `agree` are the criteria in which lives must agree, `like` the class of them, empty for the one
    with most arms; `fair_only` leaves out edges that were not matched in their trial, and
    `with_doubted` keeps lives that disagree with all others. `asking` is what the next cut is to
    settle, about `first` and `second`.
    """

    agree: tuple[str, ...] = USUAL
    like: tuple[tuple[str, str], ...] = ()
    fair_only: bool = False
    with_doubted: bool = False
    by: GroupBy = "arm"
    reference: str = ""
    asking: Asking = "top"
    first: str = ""
    second: str = ""


@dataclass(frozen=True)
class ArmFacts:
    """What is known of an arm beside its lives; `groups` are the names it goes by in each
    grouping.
    """

    blade_id: str
    code: str
    groups: Mapping[str, str] = field(default_factory=dict)
    archived: bool = False


@dataclass(frozen=True)
class Rung:
    """An arm on the ladder of its island.

    `ratio` is beside the reference, or the island's own where that is on another; `cuts` what that
    makes on a usual block; `paths` how many ways lead to the reference that share no trial of an
    arm; `unlike` in how many trials its edge was not matched, by variable.
    """

    arm: str
    ratio: LifeRatio | None
    place: PlaceSpan
    island: int
    of: int
    trials: tuple[str, ...]
    runs: int
    paths: int
    cuts: float | None
    unlike: Mapping[str, int]
    off_its_group: float | None = None


@dataclass(frozen=True)
class Doubted:
    """A trial that disagrees, by an arm in it; where that arm stands with its lives and without."""

    trial: str
    arm: str
    or_else: tuple[str, ...]
    factor: float
    with_it: LifeRatio | None
    without: LifeRatio | None


@dataclass(frozen=True)
class Power:
    """How many arms in trials could be off without being found: of so many cells those in which a
    factor of 1.5 would be named in 8 of 10, and those in which nothing ever would.
    """

    cells: int
    found: int
    never: int


@dataclass(frozen=True)
class Board:
    """The answer: ladders by island, groups, doubts, bridges and the next cut."""

    question: StandingsQuestion
    like: LikeClass
    classes: tuple[LikeClass, ...]
    reference: str
    rungs: tuple[Rung, ...]
    references: tuple[str, ...]
    of_grades: Groups
    groups: Groups | None
    doubted: tuple[Doubted, ...]
    power: Power
    bridges: tuple[Bridge, ...]
    advice: Advice
    unit: str
    trials: int
    runs: int
    tester_sd: float
    edge_sd: float
    testers: int
    by_tester: tuple[TesterStanding, ...] = ()
    consistency: tuple[ConsistencyLevel, ...] = ()


def board(
    lives: LivesByTrial,
    question: StandingsQuestion,
    facts: Mapping[str, ArmFacts],
    normals: Normals,
    went_on: Progress = lambda _done, _of: None,
) -> Board:
    """Answer a question; NotAllowedNowError where no lives can be compared, and OutOfRangeError
    where it names what is not among them.
    """
    classes = classes_of(lives, question.agree)
    like = _chosen(classes, question)
    records = one_an_edge(records_in(lives, like, question.fair_only))
    if not records:
        raise NotAllowedNowError(
            "none of these lives is of an edge that was matched in its trial", field="fair_only"
        )
    found = standings(records, normals, went_on, without_doubted=not question.with_doubted)
    known = {arm: facts[arm] for arm in found.network.arms if arm in facts}
    ladders = found.ladders()
    reference = _reference(found, question, ladders)
    of_grades = _groups(found, "grade", known, reference)
    groups = None if question.by == "arm" else _groups(found, question.by, known, reference)
    references = tuple(
        reference if reference in arms else found.reference_of(arms) for arms in ladders
    )
    network, unit = found.network, _unit(lives, like)
    owners = _owners(lives)
    return Board(
        question=question,
        like=like,
        classes=tuple(classes),
        reference=reference,
        rungs=tuple(_rungs(found, lives, ladders, references, of_grades)),
        references=references,
        of_grades=of_grades,
        groups=groups,
        doubted=tuple(_doubted(found, references)),
        power=_power(found.doubts.cells),
        bridges=tuple(bridges(found)),
        advice=_advice(found, question, _work(found, unit)),
        unit=unit,
        trials=len(network.trials),
        runs=network.runs,
        tester_sd=found.fit.variances.tester_sd,
        edge_sd=found.fit.variances.common_sd,
        testers=len(network.testers),
        by_tester=tester_standings(found, records, owners, reference, normals),
        consistency=consistency(lives_by_tester(found.fit, owners)),
    )


def _owners(lives: LivesByTrial) -> dict[str, str]:
    return {trial: own[0].of for trial, own in lives.items() if own}


def _chosen(classes: Sequence[LikeClass], question: StandingsQuestion) -> LikeClass:
    if not classes:
        raise NotAllowedNowError(
            "no two trials hold lives to compare yet: finish a run to its limit, or loosen what"
            " must agree",
            field="agree",
        )
    if not question.like:
        return classes[0]
    wanted = dict(question.like)
    for each in classes:
        if all(value == wanted.get(key, value) for key, value in each.traits):
            return each
    raise OutOfRangeError("no lives are of this kind", field="like")


def _reference(found: Standings, question: StandingsQuestion, ladders: Sequence[list[str]]) -> str:
    if question.reference in found.network.arms:
        return question.reference
    return found.reference_of(ladders[0])


def _groups(found: Standings, by: GroupBy, facts: Mapping[str, ArmFacts], reference: str) -> Groups:
    names = {
        arm: known.blade_id if by == "blade" else known.groups.get(by, "")
        for arm, known in facts.items()
    }
    return groups_of(found, names, reference)


def _rungs(
    found: Standings,
    lives: LivesByTrial,
    ladders: Sequence[Sequence[str]],
    references: Sequence[str],
    groups: Groups,
) -> list[Rung]:
    unlike = _unlike(lives, found)
    cuts = _usual_cuts(found)
    paths = _Paths(found)
    out = []
    for island, arms in enumerate(ladders):
        base = references[island]
        for arm in arms:
            rests = found.rests_on(arm)
            out.append(
                Rung(
                    arm,
                    found.ratio(arm, base),
                    found.place(arm),
                    island,
                    len(arms),
                    rests.trials,
                    rests.runs,
                    paths.between(arm, base),
                    cuts.get(arm),
                    unlike.get(arm, {}),
                    groups.unlike.get(arm),
                )
            )
    return out


def _unlike(lives: LivesByTrial, found: Standings) -> dict[str, dict[str, int]]:
    """By arm and variable the number of trials in which its edge was not matched."""
    out: dict[str, dict[str, int]] = {}
    for trial in found.network.trials:
        seen = {(life.arm, name) for life in lives.get(trial, ()) for name in life.unlike}
        for arm, name in seen:
            own = out.setdefault(arm, {})
            own[name] = own.get(name, 0) + 1
    return out


def _usual_cuts(found: Standings) -> dict[str, float]:
    """The life of each arm of the first firm group on a usual block, in the unit of its lives."""
    fit, network = found.fit, found.network
    design = fit.design
    counts = np.bincount(network.group_of[design.arm]) if design.runs.size else np.zeros(1)
    group = int(np.argmax(counts))
    here = network.group_of[design.arm] == group
    levels = (fit.fitted - design.columns @ fit.effects)[here]
    if not levels.size:
        return {}
    by_block = [levels[design.block[here] == block][0] for block in np.unique(design.block[here])]
    effects = fit.arm_effect()
    return {
        arm: float(np.exp(effects[at] + np.mean(by_block)))
        for at, arm in enumerate(network.arms)
        if network.group_of[at] == group and np.isfinite(effects[at])
    }


class _Paths:
    """Ways from arm to arm over trials that share no pair of arm and trial."""

    def __init__(self, found: Standings) -> None:
        network = found.network
        self.number = {arm: at for at, arm in enumerate(network.arms)}
        arms, size = len(network.arms), len(network.arms) + len(network.trials)
        pairs = np.unique(np.stack([network.arm, arms + network.trial], axis=1), axis=0)
        rows = np.concatenate([pairs[:, 0], pairs[:, 1]]).astype(np.int32)
        columns = np.concatenate([pairs[:, 1], pairs[:, 0]]).astype(np.int32)
        ones = np.ones(rows.size, dtype=np.int32)
        self.graph = csr_array((ones, (rows, columns)), shape=(size, size))

    def between(self, a: str, b: str) -> int:
        """How many ways lead from one arm to another."""
        if a == b:
            return 0
        return int(maximum_flow(self.graph, self.number[a], self.number[b]).flow_value)


def _doubted(found: Standings, references: Sequence[str]) -> list[Doubted]:
    cells, network = found.doubts.named, found.network
    if not cells:
        return []
    island = {arm: at for at, arms in enumerate(network.islands()) for arm in arms}
    named = [network.arms[cell.arm] for cell in cells]
    pairs = [(arm, references[island[arm]]) for arm in named]
    with_it, without = ratios_by(found.doubts.whole, pairs), ratios_by(found.doubts.without, pairs)
    return [
        Doubted(
            network.trials[cell.trial],
            network.arms[cell.arm],
            tuple(network.arms[other] for other in cell.or_else),
            cell.factor,
            *ratios,
        )
        for cell, *ratios in zip(cells, with_it, without, strict=True)
    ]


def _power(cells: Sequence[NetworkCell]) -> Power:
    found = sum(cell.could_find <= _NAMED_FACTOR for cell in cells)
    return Power(len(cells), found, sum(cell.could_find > 10.0 for cell in cells))


def _advice(found: Standings, question: StandingsQuestion, work: CuttingWork) -> Advice:
    arms = found.network.arms
    if question.asking == "pair" and {question.first, question.second} <= set(arms):
        if question.first == question.second:
            raise OutOfRangeError("these are one blade; name two", field="second")
        return advise_pair(found, work, question.first, question.second)
    if question.asking == "place" and question.first in arms:
        return advise_place(found, work, question.first)
    return advise_top(found, work)


def _work(found: Standings, unit: str) -> CuttingWork:
    """What cutting takes by the usual lives; a metre of cut length is taken for one cut."""
    cuts = {found.network.arms.index(arm): count for arm, count in _usual_cuts(found).items()}
    usual = float(np.median(list(cuts.values()))) if cuts else CuttingWork.usual
    if unit == "mm":
        minutes = CuttingWork.count_min / 1000
        return CuttingWork(count_min=minutes, count_m=0.001, counts=cuts, usual=usual)
    return CuttingWork(counts=cuts, usual=usual)


def _unit(lives: LivesByTrial, like: LikeClass) -> str:
    """The unit that all lives of the class share; empty where they do not."""
    wanted = dict(like.traits)
    if "medium" not in wanted:
        return ""
    units = {
        life.unit
        for own in lives.values()
        for life in own
        if all(life.traits.get(key, "") == value for key, value in wanted.items())
    }
    return units.pop() if len(units) == 1 else ""
