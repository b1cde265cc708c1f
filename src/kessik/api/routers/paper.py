"""Results that exist already: finished runs from paper."""

from fastapi import APIRouter

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.paper import KeptRunsOut, PaperBody, PaperCheckedOut, PaperFormOut
from kessik.api.views.paper import paper_checked_out, paper_form_out
from kessik.services.clock import now
from kessik.services.paper.runs import Entered, checked, keep_lines, paper_form

router = APIRouter(tags=["paper"])


@router.get("/trials/{trial_id}/paper-form")
def get_paper_form(trial_id: Id, store: Store) -> PaperFormOut:
    """What may be written down of a finished run of this trial."""
    return paper_form_out(paper_form(store, trial_id))


@router.post("/trials/{trial_id}/paper-runs")
def post_paper_runs(trial_id: Id, body: PaperBody, store: Store) -> KeptRunsOut:
    """Keep finished runs from paper, all or none; a line of the same id twice is one run.

    Every slip is told by the number of its line and the key of its column.
    """
    entered = Entered(body.by, body.cut_on, now(), body.check_every)
    lines = [line.to_core() for line in body.lines]
    return KeptRunsOut(run_ids=keep_lines(store, trial_id, lines, entered))


@router.post("/trials/{trial_id}/paper-checks")
def post_paper_checks(trial_id: Id, body: PaperBody, store: Store) -> PaperCheckedOut:
    """Every slip in lines that are still being written, and whether the gap of their checks has to
    be asked for; nothing is kept.
    """
    lines = [line.to_core() for line in body.lines]
    entered = Entered(body.by, body.cut_on, now(), body.check_every)
    return paper_checked_out(checked(store, trial_id, lines, entered))
