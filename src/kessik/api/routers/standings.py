"""Standings: all trials as one network."""

import json
from typing import Annotated

from fastapi import APIRouter, Query, Response

from kessik.api.dependencies import AnswersDep, Served, Store
from kessik.api.kept_json import spliced
from kessik.api.schemas.common import Id, ShortText
from kessik.api.schemas.standings import ReferenceOut, StandingsOut, TrialOfCutBody
from kessik.api.schemas.trials import TrialOut
from kessik.api.views.standings import reference_out
from kessik.api.views.trials import trial_out
from kessik.core.standings.board import Asking, GroupBy, StandingsQuestion
from kessik.core.standings.comparable import USUAL
from kessik.services.clock import now
from kessik.services.standings.references import references_of
from kessik.services.standings.trial_of_cut import trial_of_cut

router = APIRouter(tags=["standings"], prefix="/standings")
_NOTHING = "none"
_Words = Annotated[list[ShortText], Query(max_length=12)]


@router.get("", response_model=StandingsOut)
def get_standings(
    server: Served,
    kept: AnswersDep,
    agree: _Words = list(USUAL),  # noqa: B006 - FastAPI copies it
    like: _Words = [],  # noqa: B006
    fair_only: bool = False,
    with_doubted: bool = False,
    by: GroupBy = "arm",
    reference: ShortText = "",
    asking: Asking = "top",
    first: ShortText = "",
    second: ShortText = "",
) -> Response:
    """Where every blade stands among all that were ever cut; the last answer, at once.

    `agree` is `none` where lives need agree in nothing.
    """
    keys = () if agree == [_NOTHING] else tuple(agree)
    traits = tuple((key, value) for key, _, value in (each.partition(":") for each in like))
    page = server.boards.page(
        StandingsQuestion(
            keys, traits, fair_only, with_doubted, by, reference, asking, first, second
        )
    )
    done, trials = kept.progress() if page.is_behind else (0, 0)
    return spliced(
        {
            "answer": page.answer or "null",
            "refused": json.dumps(page.failed),
            "is_behind": json.dumps(page.is_behind),
            "trials_done": json.dumps(done),
            "trials": json.dumps(trials),
        }
    )


@router.get("/references/{trial_id}")
def get_references(trial_id: Id, store: Store, kept: AnswersDep) -> list[ReferenceOut]:
    """The references that comparable trials had, as far as they would have gone in this one."""
    found = references_of(store, trial_id)
    pages = {each.seen_in: kept.page("verdict", each.seen_in)[0] for each in found if each.seen_in}
    return [reference_out(each, pages.get(each.seen_in, "")) for each in found]


@router.post("/trials")
def post_trial_of_cut(body: TrialOfCutBody, store: Store) -> TrialOut:
    """Make a trial of a proposed cut; the same id twice makes one."""
    made = trial_of_cut(
        store, body.id, body.arms, body.edges_per_blade, body.like_trial_id, body.question, now()
    )
    return trial_out(made)
