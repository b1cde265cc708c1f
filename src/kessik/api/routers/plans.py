"""Plans: what a trial will cost and can show, tried out and kept."""

from fastapi import APIRouter

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.plans import PlanBody, TrialPlanOut
from kessik.services import plans

router = APIRouter(tags=["plan"])


@router.get("/trials/{trial_id}/plan")
def get_plan(trial_id: Id, store: Store) -> TrialPlanOut:
    """The plan as it is kept."""
    return TrialPlanOut.of(plans.plan_of(store, trial_id))


@router.post("/trials/{trial_id}/plan/try")
def try_plan(trial_id: Id, body: PlanBody, store: Store) -> TrialPlanOut:
    """What other figures would cost and show; nothing is kept."""
    return TrialPlanOut.of(plans.plan_of(store, trial_id, body.record(), body.edges_per_blade))


@router.put("/trials/{trial_id}/plan")
def put_plan(trial_id: Id, body: PlanBody, store: Store) -> TrialPlanOut:
    """Keep a plan; one that cannot be met is kept too, and says so."""
    return TrialPlanOut.of(plans.keep_plan(store, trial_id, body.record(), body.edges_per_blade))
