"""Verdicts: a trial's log analysed, in the core, from one snapshot of what is stored."""

from dataclasses import replace

from kessik.core.comparison.analysis import analyse
from kessik.core.shelf.blades import Grade
from kessik.core.trials.run_series import run_series
from kessik.core.trials.state import TrialState
from kessik.core.trials.verdict import Verdict, judged
from kessik.core.words.figures import figures_words
from kessik.core.words.lives import life_words
from kessik.services.bench.runs import RunView
from kessik.services.shelf.blades import grades_by_name
from kessik.services.trials.state import state_of_trial
from kessik.store.database import Database, Session
from kessik.store.queries import stock


def verdict(db: Database, trial_id: str) -> Verdict:
    """Analyse a trial; UnknownError where there is none."""
    with db.read() as session:
        state, grades, lots = evidence(session, trial_id)
    return judged(state, grades, lots)


Evidence = tuple[TrialState, dict[str, Grade], dict[str, str]]


def evidence(session: Session, trial_id: str) -> Evidence:
    """All that an answer rests on: the trial as it stands, grades by name, names of lots by id."""
    lots = {lot.id: lot.name for lot in stock.all_lots(session)}
    return state_of_trial(session, trial_id), grades_by_name(session), lots


def run_words(view: RunView) -> str:
    """What an ended run found, in one sentence."""
    series = replace(run_series(view.run, view.blade, view.edge, view.state), practice=False)
    analysis = analyse([series], {}, view.trial.rule, view.method)
    (result,) = analysis.runs
    if not result.lives and not result.figures:
        return "The run ended without a reading, so nothing can be said of this edge."
    unit = view.run.count_unit
    parts = [
        f"to {stage}: {life_words(known.life.found, unit)}" for stage, known in result.lives.items()
    ]
    parts += figures_words(result.figures)
    said = "; ".join(parts)
    return f"{view.blade.code}, edge {view.edge.number}. {said[:1].upper()}{said[1:]}."
