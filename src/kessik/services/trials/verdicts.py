"""Verdicts: a trial's log analysed, in the core, from one snapshot of what is stored."""

from kessik.core.trials.verdict import Evidence, Verdict, judged
from kessik.services.assays.verdicts import claims_of
from kessik.services.reading.grades import grades_by_name
from kessik.services.reading.trial_states import state_of_trial
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
