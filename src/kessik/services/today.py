"""Today: every trial with its one-line answer and the next thing to do in it."""

from dataclasses import dataclass
from typing import Literal

from kessik.services.verdicts import TrialRun, Verdict, verdict
from kessik.store.database import Database
from kessik.store.queries import trials
from kessik.store.records import Blade

StepKind = Literal["add_blades", "go_on", "start_run", "read_verdict"]


@dataclass(frozen=True)
class NextStep:
    """What to do next in a trial, in words, and what it points at."""

    kind: StepKind
    says: str
    run_id: str | None = None
    blade_id: str | None = None


@dataclass(frozen=True)
class TrialToday:
    """A trial as the front door shows it."""

    verdict: Verdict
    open_runs: tuple[TrialRun, ...]
    next_step: NextStep


def today(db: Database) -> list[TrialToday]:
    """All trials, newest first."""
    with db.read() as session:
        found = trials.all_trials(session)
    return [_trial_today(verdict(db, trial.id)) for trial in found]


def _trial_today(answer: Verdict) -> TrialToday:
    unfinished = [r for r in answer.runs if r.state.status in ("fresh", "cutting", "paused") and not r.run.practice]
    return TrialToday(answer, tuple(unfinished), next_step(answer))


def next_step(answer: Verdict) -> NextStep:
    """Go on with what is open, else cut the blade with the fewest edges cut, else read the verdict."""
    counted = [r for r in answer.runs if not r.run.practice]
    unfinished = [r for r in counted if r.state.status in ("fresh", "cutting", "paused")]
    if len(answer.blades) < 2:
        return NextStep("add_blades", "Add the blades to compare")
    if unfinished:
        run = unfinished[0]
        says = f"Go on with {run.blade.code}, edge {run.edge.number}, at {run.state.count:g} {run.run.count_unit}"
        return NextStep("go_on", says, run.run.id, run.blade.id)
    ended = [r for r in counted if r.state.status == "stopped"]

    def cut_edges(blade: Blade) -> int:
        return sum(1 for r in ended if r.blade.id == blade.id)

    waiting = [blade for blade in answer.blades if cut_edges(blade) < answer.trial.edges_per_blade]
    if waiting and answer.trial.source != "import":
        blade = min(waiting, key=cut_edges)
        return NextStep("start_run", f"Cut {blade.code}, run {cut_edges(blade) + 1}", None, blade.id)
    return NextStep("read_verdict", "Read the verdict")
