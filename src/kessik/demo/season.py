"""Three years of results for the standings: ten more blades, brought in from paper and from the
neighbour's bench, with two references in most trials, an island, and one trial that disagrees.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.facts import entered
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.sharpening.settled import SettledRule
from kessik.core.shelf.blades import Blade, TrialRole
from kessik.core.trials.paper.lines import PaperLine
from kessik.core.trials.trial import Trial
from kessik.demo.cutting import demo_id
from kessik.demo.days import Days
from kessik.services.paper.runs import Entered, keep_lines
from kessik.services.shelf.blades import make_blade
from kessik.services.trials.trials import make_trial, take_from_shelf
from kessik.store.database import Database

SEED = 7719
_EDGE_SD, _TESTER_SD, _LOT_SD = 0.09, 0.05, 0.22
_GAP_SHARE = 0.12
_USUAL_LIFE = 20.0


@dataclass(frozen=True)
class SeasonBlade:
    """A blade of the field: its grade as sold, who forged it, its true life beside 20 cuts, and
    its measured hardness.
    """

    code: str
    grade: str
    forge: str
    life: float
    hrc: float
    years_back: int = 3


BLADES = (
    SeasonBlade("AV-07", "1.4116", "Corran Forge", 0.70, 56.8),
    SeasonBlade("AV-08", "1.3343", "Corran Forge", 1.75, 64.1),
    SeasonBlade("AV-09", "1.2379", "Corran Forge", 1.20, 60.7),
    SeasonBlade("AV-10", "1.2379", "Tidewall Forge", 1.32, 61.2),
    SeasonBlade("AV-11", "1.4116", "Tidewall Forge", 0.78, 57.3),
    SeasonBlade("AV-12", "1.3343", "Tidewall Forge", 1.98, 64.6),
    SeasonBlade("AV-13", "1.2379", "Skerry Smithy", 0.82, 58.0, 2),
    SeasonBlade("AV-14", "1.2842", "Skerry Smithy", 0.62, 59.5, 2),
    SeasonBlade("AV-15", "1.4034", "Skerry Smithy", 0.85, 56.2, 1),
    SeasonBlade("AV-16", "1.2363", "Skerry Smithy", 1.05, 60.1, 1),
)
_LOW, _HIGH = "AV-07", "AV-08"
_ROLES: dict[str, TrialRole] = {_LOW: "low_reference", _HIGH: "high_reference"}
_CREW = {"AV-02": (1.15, 30), "AV-06": (0.95, 30)}
"""Blades of this season's trials that were cut beside the field, with their true lives and the
first edge that they were cut on there."""
_NEIGHBOUR = "Neighbour"
_RE_HARDENED, _SOFTER = (13, "AV-10"), 0.55


@dataclass(frozen=True)
class SeasonTrial:
    """A trial of the field: how long ago, by whom, which blades, and how many edges of each."""

    days_ago: int
    tester: str
    blades: tuple[str, ...]
    edges: int = 2


TRIALS = (
    SeasonTrial(1060, "Operator 1", (_LOW, _HIGH, "AV-09"), 3),
    SeasonTrial(1015, "Operator 1", (_LOW, _HIGH, "AV-10")),
    SeasonTrial(970, "Operator 2", (_LOW, _HIGH, "AV-11"), 3),
    SeasonTrial(930, "Operator 2", (_LOW, "AV-09", "AV-10")),
    SeasonTrial(880, _NEIGHBOUR, (_LOW, _HIGH, "AV-12"), 3),
    SeasonTrial(850, _NEIGHBOUR, (_HIGH, "AV-12")),
    SeasonTrial(800, "Operator 1", (_LOW, _HIGH, "AV-11", "AV-12")),
    SeasonTrial(760, "Operator 2", (_LOW, _HIGH, "AV-09", "AV-11")),
    SeasonTrial(700, "Operator 1", (_LOW, "AV-13"), 3),
    SeasonTrial(665, "Operator 1", (_LOW, _HIGH, "AV-13", "AV-14")),
    SeasonTrial(620, _NEIGHBOUR, (_LOW, "AV-14", "AV-13")),
    SeasonTrial(580, "Operator 2", (_LOW, _HIGH, "AV-10", "AV-13")),
    SeasonTrial(520, "Operator 1", (_HIGH, "AV-09", "AV-10"), 3),
    SeasonTrial(470, "Operator 2", (_LOW, _HIGH, "AV-10"), 4),
    SeasonTrial(430, "Operator 1", (_LOW, _HIGH, "AV-14")),
    SeasonTrial(400, _NEIGHBOUR, (_LOW, _HIGH, "AV-09"), 3),
    SeasonTrial(350, "Operator 2", (_LOW, "AV-11", "AV-14")),
    SeasonTrial(310, "Operator 1", (_HIGH, "AV-12", "AV-09")),
    SeasonTrial(270, "Skerry", ("AV-15", "AV-16"), 3),
    SeasonTrial(250, "Skerry", ("AV-15", "AV-16"), 2),
    SeasonTrial(130, "Operator 1", (_LOW, _HIGH, "AV-11", "AV-13")),
    SeasonTrial(90, "Operator 2", (_LOW, "AV-12", "AV-09")),
    SeasonTrial(4, "Operator 1", (_LOW, _HIGH, "AV-06"), 3),
    SeasonTrial(3, "Operator 2", (_LOW, _HIGH, "AV-02"), 3),
    SeasonTrial(2, "Operator 1", (_LOW, _HIGH, "AV-02", "AV-10")),
)


def build_season(db: Database, days: Days) -> None:
    """Ten blades and 25 trials, the same every time."""
    rng = np.random.default_rng(SEED)
    for blade in BLADES:
        make_blade(db, _blade(blade, days))
    lives = {blade.code: _USUAL_LIFE * blade.life for blade in BLADES}
    lives |= {code: _USUAL_LIFE * life for code, (life, _) in _CREW.items()}
    testers = {trial.tester for trial in TRIALS}
    hands = {(code, t): rng.normal(0.0, _TESTER_SD) for code in lives for t in sorted(testers)}
    next_edge = dict.fromkeys(lives, 3) | {code: first for code, (_, first) in _CREW.items()}
    for number, trial in enumerate(TRIALS):
        true = {
            code: lives[code] * float(np.exp(hands[code, trial.tester])) for code in trial.blades
        }
        if number == _RE_HARDENED[0]:
            true[_RE_HARDENED[1]] *= _SOFTER
        _cut(db, number, trial, true, next_edge, days, rng)


def _blade(blade: SeasonBlade, days: Days) -> Blade:
    blade_id = demo_id(blade.code)
    made = days.moment(365 * blade.years_back, 9)
    own = {"edge_length_mm": 96.0, "hardness_hrc": blade.hrc}
    facts = [
        entered(blade_id, name, value, "measured_here", made.utc) for name, value in own.items()
    ]
    return Blade(
        id=blade_id,
        code=blade.code,
        claimed_grade=blade.grade,
        origin=blade.forge,
        measurements=tuple(facts),
    )


def _cut(
    db: Database,
    number: int,
    trial: SeasonTrial,
    true: dict[str, float],
    next_edge: dict[str, int],
    days: Days,
    rng: np.random.Generator,
) -> None:
    trial_id, cut_on = demo_id("season", number), days.date(trial.days_ago)
    make_trial(
        db,
        Trial(
            id=trial_id,
            name=f"Rope log {cut_on}",
            question="One page of the rope log.",
            created=days.moment(trial.days_ago, 9),
            method=BY_SCHOOL["force_limit_rope"],
            settled_rule=SettledRule("edge_number", 3),
            edges_per_blade=trial.edges,
            medium="32 mm hemp dropper rope",
            rope_diameter_mm=32,
            source="paper",
        ),
    )
    for code in trial.blades:
        take_from_shelf(db, trial_id, demo_id(code), _ROLES.get(code, ""))
    lot = float(np.exp(rng.normal(0.0, _LOT_SD)))
    lines = []
    for code in trial.blades:
        for _ in range(trial.edges):
            life = true[code] * lot * float(np.exp(rng.normal(0.0, _EDGE_SD)))
            lines.append(_line(trial_id, code, next_edge[code], life))
            next_edge[code] += 1
    _keep(db, trial_id, lines, trial, cut_on, days)


def _keep(
    db: Database,
    trial_id: str,
    lines: Sequence[PaperLine],
    trial: SeasonTrial,
    cut_on: str,
    days: Days,
) -> None:
    entered_at = days.moment(max(trial.days_ago - 1, 1), 19)
    keep_lines(db, trial_id, lines, Entered(trial.tester, cut_on, entered_at))


def _line(trial_id: str, code: str, edge: int, life: float) -> PaperLine:
    """A line of the log: between which checks the edge was dull, and when it was keen no more."""
    gap = max(round(_GAP_SHARE * life), 1)
    good = int(life // gap) * gap
    dull = f"{good}-{good + gap}" if good else f"<{gap}"
    cells = {"blade": code, "edge": str(edge), "dull": dull}
    return PaperLine(demo_id(trial_id, code, edge), cells)
