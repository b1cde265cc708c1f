"""Plans: what a trial will cost and can show, tried out and kept."""

from fastapi import APIRouter, Response

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.plans import CoverBody, PlanBody, TrialPlanOut
from kessik.api.views.plans import calendar_entries, trial_plan_out
from kessik.interchange.calendar_ics import write_calendar
from kessik.services.clock import now
from kessik.services.files.trial_export import slug
from kessik.services.trials import blind, plans

router = APIRouter(tags=["plan"])


@router.get("/trials/{trial_id}/plan")
def get_plan(trial_id: Id, store: Store) -> TrialPlanOut:
    """The plan as it is kept."""
    return trial_plan_out(plans.plan_of(store, trial_id))


@router.post("/trials/{trial_id}/plan/try")
def try_plan(trial_id: Id, body: PlanBody, store: Store) -> TrialPlanOut:
    """What other figures would cost and show; nothing is kept."""
    return trial_plan_out(plans.plan_of(store, trial_id, body.to_core(), body.edges_per_blade))


@router.put("/trials/{trial_id}/plan")
def put_plan(trial_id: Id, body: PlanBody, store: Store) -> TrialPlanOut:
    """Keep a plan; one that cannot be met is kept too, and says so."""
    return trial_plan_out(plans.keep_plan(store, trial_id, body.to_core(), body.edges_per_blade))


@router.put("/trials/{trial_id}/covered")
def put_covered(trial_id: Id, body: CoverBody, store: Store) -> TrialPlanOut:
    """Hide the blades behind codes, or uncover them; the time of uncovering is kept, and it is not
    undone.
    """
    if body.covered:
        blind.cover(store, trial_id, body.seed)
    else:
        blind.uncover(store, trial_id, now().utc)
    return trial_plan_out(plans.plan_of(store, trial_id))


@router.get("/trials/{trial_id}/calendar.ics", response_class=Response)
def get_calendar(trial_id: Id, store: Store) -> Response:
    """The plan's dated work as a calendar file."""
    found = plans.plan_of(store, trial_id)
    text = write_calendar(found.trial.name, calendar_entries(found), now().utc)
    headers = {"Content-Disposition": f'attachment; filename="{slug(found.trial.name)}.ics"'}
    return Response(text, media_type="text/calendar", headers=headers)
