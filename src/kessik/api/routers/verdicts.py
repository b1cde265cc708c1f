"""Verdicts and Today: answers as they are kept."""

import json

from fastapi import APIRouter, Response

from kessik.api.dependencies import AnswersDep, Served, Store
from kessik.api.kept_json import spliced
from kessik.api.schemas.common import Id, ShortText
from kessik.api.schemas.verdict import FailedTrialOut, FoundOut, TodayOut, VerdictOut
from kessik.api.views.due import due_out
from kessik.services.clock import now
from kessik.services.finding import find
from kessik.services.today import what_waits
from kessik.services.trials.trials import archived_trials

router = APIRouter(tags=["verdict"])


@router.get("/today", response_model=TodayOut)
def get_today(store: Store, kept: AnswersDep, server: Served) -> Response:
    """Every trial with its one-line answer and the next thing to do, and what waits."""
    found = kept.todays()
    if found.behind:
        server.renewing.tell()
    failed = [FailedTrialOut(trial_id=i, name=n, why=w).model_dump() for i, n, w in found.failed]
    due = [due_out(d).model_dump() for d in what_waits(store, now())]
    return spliced(
        {
            "trials": f"[{','.join(found.lines)}]",
            "archived": json.dumps(archived_trials(store)),
            "failed": json.dumps(failed),
            "due": json.dumps(due),
            "working_out": json.dumps(found.behind),
        }
    )


@router.get("/find")
def get_found(store: Store, text: ShortText = "") -> list[FoundOut]:
    """Trials, blades, grades, lots, soaks and notes that hold every word of a text."""
    return [FoundOut.showing(found) for found in find(store, text)]


@router.get("/trials/{trial_id}/verdict", response_model=VerdictOut)
def get_verdict(trial_id: Id, kept: AnswersDep, server: Served) -> Response:
    """The last answer of a trial: sentence, curves, ladder, pairs; `working_out` says how many
    answers are being renewed, this one among them.
    """
    text, behind = kept.page("verdict", trial_id)
    if behind:
        server.renewing.tell()
    return spliced({"answer": text, "working_out": json.dumps(behind)})
