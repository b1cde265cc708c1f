"""Verdicts: a trial's log analysed, in the core, from one snapshot of what is stored."""

from dataclasses import replace

from kessik.core.comparison.analysis import analyse
from kessik.core.protocols.series import RunSeries
from kessik.core.trials.run_series import run_series
from kessik.core.trials.verdict import Evidence, Verdict, judged
from kessik.core.words.figures import figures_words
from kessik.core.words.lives import life_words
from kessik.services.assays.grades import grades_by_name
from kessik.services.assays.verdicts import claims_of
from kessik.services.bench.runs import RunView
from kessik.services.trials.state import state_of_trial
from kessik.store.database import Database, Session
from kessik.store.queries import stock


def verdict(db: Database, trial_id: str) -> Verdict:
    """Analyse a trial; UnknownError where there is none."""
    with db.read() as session:
        known = evidence(session, trial_id)
    return judged(known)


def evidence(session: Session, trial_id: str) -> Evidence:
    """All that an answer rests on, in one state of the data."""
    state = state_of_trial(session, trial_id)
    lots = {lot.id: lot.name for lot in stock.all_lots(session)}
    claims = claims_of(session, [blade.id for blade in state.blades])
    return Evidence(state, grades_by_name(session), lots, claims)


def run_words(db: Database, view: RunView) -> str:
    """What an ended run found, in one sentence; the same figures as in the trial's answer, where
    the edges of one blade inform each other.
    """
    own = replace(run_series(view.run, view.blade, view.edge, view.state), practice=False)
    sisters = [] if view.run.practice else _sisters(db, view)
    analysis = analyse([own, *sisters], {}, view.trial.rule, view.method)
    result = analysis.runs[0]
    if not result.lives and not result.figures:
        return "The run ended without a reading, so nothing can be said of this edge."
    unit = view.run.count_unit
    parts = [
        f"to {stage}: {life_words(known.life.found, unit)}" for stage, known in result.lives.items()
    ]
    parts += figures_words(result.figures)
    said = "; ".join(parts)
    alone = ". Of this edge; how the edges of a blade differ is not in it" if result.lives else ""
    return f"{view.blade.code}, edge {view.edge.number}. {said[:1].upper()}{said[1:]}{alone}."


def _sisters(db: Database, view: RunView) -> list[RunSeries]:
    """The other counted runs of the same arm in the trial."""
    with db.read() as session:
        state = state_of_trial(session, view.trial.id)
    return [
        run_series(r.run, r.blade, r.edge, r.state)
        for r in state.runs
        if r.counts and r.blade.arm_id == view.blade.arm_id and r.run.id != view.run.id
    ]
