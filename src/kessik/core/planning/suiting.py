"""Which ways of testing suit a question, with what is in hand, and what each of them costs.

A measured force beats a felt one; a pass or a fail gives an interval, not a number; a fixed dose is
a poor man's curve. Which way answers what is common practice, no source; costs and edges come from
the same plan that a trial gets.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.methods import METHODS as SOAKS
from kessik.core.corrosion.methods import SoakMethod
from kessik.core.limits import check_limit
from kessik.core.planning.budget import Budget, Pace, budget
from kessik.core.planning.expected import ExpectedRun, expected_run
from kessik.core.planning.power import MOST_EDGES, detectable, edges_needed
from kessik.core.planning.starting_life import starting_life
from kessik.core.protocols.checks import FORCE
from kessik.core.protocols.methods import Method
from kessik.core.protocols.schools import SCHOOLS

TestQuestion = Literal[
    "lasts", "keen", "dies", "effort", "upkeep", "mix", "rust", "stains", "steel"
]
InHand = Literal[
    "rope", "board", "tester", "paper", "hair", "lamp", "abrasives", "machine", "salt", "paste",
    "cabinet",
]  # fmt: skip  # one list
_EDGES_OF_A_DOSE = 3
_MOST_HOURS = 10_000.0


@dataclass(frozen=True)
class Suits:
    """What a way of testing answers, wholly or in part, and what it takes."""

    answers: frozenset[TestQuestion]
    partly: frozenset[TestQuestion]
    needs: frozenset[InHand]


def _suits(
    answers: Sequence[TestQuestion], partly: Sequence[TestQuestion], needs: Sequence[InHand]
) -> Suits:
    return Suits(frozenset(answers), frozenset(partly), frozenset(needs))


OF_SCHOOL: Mapping[str, Suits] = {
    "force_limit_rope": _suits(["lasts", "keen"], ["upkeep"], ["rope", "tester"]),
    "paper_stop_rope": _suits(["lasts"], [], ["rope", "paper"]),
    "two_stage_board": _suits(["lasts", "keen"], ["dies"], ["board", "paper", "hair"]),
    "push_cut_board": _suits(["dies", "keen"], ["lasts"], ["board", "paper", "hair", "lamp"]),
    "fixed_dose": _suits([], ["lasts", "keen"], ["rope", "tester"]),
    "mixed_media_dose": _suits(["mix"], ["lasts"], ["rope", "board", "tester", "abrasives"]),
    "resharpening_cycles": _suits(["upkeep"], ["lasts"], ["rope", "tester", "abrasives"]),
    "geometry_layers": _suits(["effort"], [], ["board"]),
    "machine_card": _suits(["lasts"], ["keen"], ["machine"]),
}
OF_SOAK: Mapping[str, Suits] = {
    "salt_pack": _suits(["rust"], [], ["salt"]),
    "wiped": _suits(["rust"], [], ["salt"]),
    "fresh_then_brine": _suits(["rust"], [], ["salt"]),
    "immersed": _suits(["rust"], [], ["salt"]),
    "acid_paste": _suits(["stains"], [], ["paste"]),
    "paste_then_brine": _suits(["stains", "rust"], [], ["paste", "salt"]),
    "brine_overnight": _suits(["rust"], [], ["salt"]),
    "damp_wrap": _suits(["rust"], [], ["salt"]),
    "salt_spray": _suits(["rust"], [], ["cabinet"]),
}


@dataclass(frozen=True)
class Wanted:
    """A question, what is in hand for it, how many blades, which difference is to be shown (per
    cent) and how many hours there are; None for as many as it takes.
    """

    question: TestQuestion
    in_hand: frozenset[InHand]
    blades: int = 2
    wanted_percent: float = 20.0
    hours: float | None = None


@dataclass(frozen=True)
class CutWay:
    """A school that answers: edges a blade for the wanted difference (None where even many do not
    show it), what those cost, and what the hours at hand would show instead.
    """

    method: Method
    is_partly: bool
    missing: frozenset[InHand]
    run: ExpectedRun
    edges: int | None
    cost: Budget
    in_hours: int | None
    shows_percent: float | None


@dataclass(frozen=True)
class SoakWay:
    """A soak that answers; its hours are those of waiting."""

    method: SoakMethod
    missing: frozenset[InHand]
    fits_hours: bool


@dataclass(frozen=True)
class WaysFound:
    """The ways that answer a question, those that can be had at once first."""

    wanted: Wanted
    cuts: tuple[CutWay, ...]
    soaks: tuple[SoakWay, ...]


def ways_for(wanted: Wanted) -> WaysFound:
    """All ways that answer; OutOfRangeError for a number of blades, a difference or hours that
    cannot be.
    """
    check_limit("blades_compared", wanted.blades, "blades")
    check_limit("wanted_percent", wanted.wanted_percent, "wanted_percent")
    if wanted.hours is not None:
        check_limit("hours_at_hand", wanted.hours, "hours")
    cuts = [
        _cut_way(method, OF_SCHOOL[method.school], wanted)
        for method in SCHOOLS
        if wanted.question in OF_SCHOOL[method.school].answers | OF_SCHOOL[method.school].partly
    ]
    soaks = [
        SoakWay(
            method,
            OF_SOAK[method.key].needs - wanted.in_hand,
            wanted.hours is None or method.hours <= wanted.hours,
        )
        for method in SOAKS
        if wanted.question in OF_SOAK[method.key].answers
    ]
    return WaysFound(
        wanted,
        tuple(sorted(cuts, key=_in_turn)),
        tuple(sorted(soaks, key=lambda way: (len(way.missing), way.method.hours))),
    )


def _in_turn(way: CutWay) -> tuple[int, bool, bool, float]:
    """What can be had, what answers wholly, a measured force before a felt one, then the hours."""
    is_felt = bool(way.method.stages) and not way.method.has(FORCE)
    return len(way.missing), way.is_partly, is_felt, way.cost.hours


def _cut_way(method: Method, suits: Suits, wanted: Wanted) -> CutWay:
    life = starting_life("", None, None, method, ()).life
    run = expected_run(method, life)
    edges: int | None = _EDGES_OF_A_DOSE
    if method.stages:
        ratio = 1.0 + wanted.wanted_percent / 100.0
        edges = edges_needed(ratio, run.log_sd, wanted.blades)
    runs = edges or MOST_EDGES
    cost = budget([run] * (runs * wanted.blades), method, Pace())
    in_hours, shows = _in_hours(method, run, cost.hours / runs, wanted)
    missing = suits.needs - wanted.in_hand
    is_partly = wanted.question in suits.partly
    return CutWay(method, is_partly, missing, run, edges, cost, in_hours, shows)


def _in_hours(
    method: Method, run: ExpectedRun, hours_an_edge: float, wanted: Wanted
) -> tuple[int | None, float | None]:
    """How many edges a blade the hours are enough for, and the difference those show, per cent."""
    if wanted.hours is None:
        return None, None
    edges = min(int(min(wanted.hours, _MOST_HOURS) / hours_an_edge), MOST_EDGES)
    if edges < 1 or not method.stages or wanted.blades < 2:
        return edges, None
    return edges, detectable(edges, run.log_sd, wanted.blades).percent
