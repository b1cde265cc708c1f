"""Plans played on the virtual bench, and one of their trials opened in the practice folder."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from itertools import groupby
from uuid import NAMESPACE_URL, uuid5

import numpy as np

from kessik.core.errors import OutOfRangeError, UnknownError
from kessik.core.limits import check_limit
from kessik.core.moments import Moment
from kessik.core.planning.expected import expected_run
from kessik.core.planning.played import PairTally, tally
from kessik.core.planning.power import power_of
from kessik.core.protocols.events import BenchEvent, Cut, Outcome, Payload, Reading
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.runs import Run
from kessik.core.sharpening.settled import SettledRule
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.trial import Plan, Trial
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import append_event, start_run
from kessik.services.practice.playing import PlayedTrial, PlaySpec, play
from kessik.services.shelf.blades import make_blade
from kessik.services.trials.plans import TrialPlan, plan_of
from kessik.services.trials.trials import make_trial, take_from_shelf
from kessik.services.work import ImportWork
from kessik.store.database import Database
from kessik.store.queries import shelf

SIMULATES = "playing"
MOST_BLADES = 20
_KEPT = 4


@dataclass(frozen=True)
class Stated:
    """What a tester states for playing: lives by the code of a blade (those of the plan where they
    say none), how edges and readings scatter in per cent, and how many trials.
    """

    lives: Mapping[str, float]
    edge_spread_percent: float
    reading_scatter_percent: float
    trials: int
    seed: int


@dataclass(frozen=True)
class Played:
    """A played plan: what was stated, its trials, the outcomes by pair, and how often the plan
    itself expects each pair to be told apart.
    """

    name: str
    spec: PlaySpec
    trials: tuple[PlayedTrial, ...]
    pairs: tuple[PairTally, ...]
    expected: tuple[float, ...]


class PlayedPlans:
    """The plans of one server that were played lately, by the client-made id of the work."""

    def __init__(self) -> None:
        self._played: dict[str, Played] = {}

    def play(
        self, db: Database, trial_id: str, stated: Stated, play_id: str, work: ImportWork
    ) -> Played:
        """Play the plan of a trial as it is saved; the same id twice is played once."""
        if play_id not in self._played:
            played = _play(plan_of(db, trial_id), stated, work)
            self._played = dict([*self._played.items(), (play_id, played)][-_KEPT:])
        return self._played[play_id]

    def trial(self, play_id: str, number: int) -> tuple[Played, PlayedTrial]:
        """One trial of a played plan; UnknownError where it was not played lately."""
        played = self._played.get(play_id)
        found = next((t for t in played.trials if t.number == number), None) if played else None
        if played is None or found is None:
            raise UnknownError("this trial is no longer there; play the plan again", field="play")
        return played, found


def _play(plan: TrialPlan, stated: Stated, work: ImportWork) -> Played:
    lives = {blade.code: stated.lives.get(blade.code, blade.expected.life) for blade in plan.blades}
    _check(stated, lives)
    trial = plan.trial
    spec = PlaySpec(
        trial.method,
        lives,
        trial.edges_per_blade,
        stated.trials,
        stated.edge_spread_percent / 100,
        stated.reading_scatter_percent / 100,
        stated.seed,
    )
    work.begin(SIMULATES, 1)

    def told(done: int, of: int) -> None:
        work.of = of
        work.step(done - work.done)

    trials = play(spec, told)
    pairs = tally([each.pairs for each in trials], lives)
    errors = [expected_run(trial.method, life).log_sd for life in lives.values()]
    error = float(np.sqrt(np.mean(np.square(errors))))
    expected = tuple(
        power_of(pair.true_ratio, spec.edges, error, len(lives), plan.belief, spec.edge_spread)
        for pair in pairs
    )
    return Played(trial.name, spec, tuple(trials), pairs, expected)


def _check(stated: Stated, lives: Mapping[str, float]) -> None:
    if not 2 <= len(lives) <= MOST_BLADES:
        raise OutOfRangeError(
            f"a plan of {len(lives)} blades is not played: give 2 to {MOST_BLADES}", field="lives"
        )
    for code, life in lives.items():
        check_limit("expected_life", life, f"lives.{code}")
    check_limit("edge_spread_percent", stated.edge_spread_percent, "edge_spread_percent")
    check_limit(
        "reading_scatter_percent", stated.reading_scatter_percent, "reading_scatter_percent"
    )
    check_limit("played_trials", stated.trials, "trials")


def open_played(
    bench: Bench, play_id: str, played: Played, chosen: PlayedTrial, now: Moment
) -> str:
    """Make a full trial of a played one, its readings as they were played; twice is one."""
    trial_id = _id(play_id, chosen.number)
    made = make_trial(
        bench.db,
        Trial(
            id=trial_id,
            name=f"Simulated: trial {chosen.number} of {played.name}"[:200],
            question="What one played trial of this plan looks like, read by read.",
            created=now,
            method=played.spec.method,
            settled_rule=SettledRule("every_edge"),
            edges_per_blade=played.spec.edges,
            plan=Plan(),
            source="simulated",
        ),
    )
    for code in played.spec.lives:
        blade_id = _id(trial_id, code)
        edges = tuple(
            Edge(_id(blade_id, number), blade_id, number)
            for number in range(1, played.spec.edges + 1)
        )
        make_blade(bench.db, _named_anew(bench, Blade(blade_id, code, edges=edges)))
        take_from_shelf(bench.db, made.id, blade_id, "")
    for run in chosen.runs:
        _put_run(bench, made.id, run, now)
    return made.id


def _named_anew(bench: Bench, blade: Blade) -> Blade:
    """A blade under a code that no other of the practice folder has."""
    with bench.db.read() as session:
        taken = {code for known, code in shelf.codes_there(session).items() if known != blade.id}
    codes = (blade.code if n == 1 else f"{blade.code} ({n})" for n in range(1, len(taken) + 2))
    return replace(blade, code=next(code for code in codes if code not in taken))


def _put_run(bench: Bench, trial_id: str, series: RunSeries, now: Moment) -> None:
    edge_id = _id(_id(trial_id, series.blade), series.edge)
    run_id = _id(edge_id, "run")
    view = start_run(bench, Run(run_id, trial_id, edge_id, 1, now, practice_seed=series.edge))
    state = view.state
    if state.has_ended:
        return
    for sequence, said in enumerate(_payloads(series), 1):
        event = BenchEvent(
            _id(run_id, sequence),
            said,
            f"virtual-{run_id}",
            sequence,
            state.position,
            state.count,
            now.utc,
        )
        state = append_event(bench, run_id, event, now.utc).state
        if state.has_ended:
            return


def _payloads(series: RunSeries) -> list[Payload]:
    """The log of a series: what was cut up to each check, and its readings and outcomes."""
    found: list[Payload] = []
    before = 0.0
    for count, checks in groupby(series.checks, key=lambda check: check.count):
        if count > before:
            found.append(Cut(amount=count - before))
        found.extend(_said(check) for check in checks)
        before = count
    return found


def _said(check: Check) -> Reading | Outcome:
    if check.force_gf is not None:
        return Reading(value=check.force_gf, unit="gf", source="virtual")
    return Outcome(check=check.kind, outcome=check.seen or check.outcome or "")


def _id(*parts: object) -> str:
    return str(uuid5(NAMESPACE_URL, ":".join(["kessik", "played", *map(str, parts)])))
