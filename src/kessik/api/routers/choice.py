"""Choice: which blade for a use; and what each blade asks for."""

from typing import Annotated

from fastapi import APIRouter, Query, Response

from kessik.api.dependencies import Served, Store
from kessik.api.schemas.choice import ChoiceOut, UpkeepRowOut, UseBody, UseOut
from kessik.api.schemas.common import Id
from kessik.api.views.choice import choice_out, upkeep_rows, use_of, use_out
from kessik.core.choice.uses import Use, check_use
from kessik.services.choice.uses import put_use, remove_use, uses_of
from kessik.services.clock import now

router = APIRouter(tags=["choice"])


@router.get("/uses")
def get_uses(store: Store) -> list[UseOut]:
    """Every use that is kept."""
    return [use_out(use) for use in uses_of(store)]


@router.put("/uses/{use_id}")
def put_one_use(use_id: Id, body: UseBody, store: Store) -> UseOut:
    """Keep a use; the same id twice is one."""
    return use_out(put_use(store, use_of(use_id, body), now()))


@router.delete("/uses/{use_id}", status_code=204)
def delete_use(use_id: Id, store: Store) -> Response:
    """Delete a use."""
    remove_use(store, use_id)
    return Response(status_code=204)


@router.post("/choice")
def post_choice(body: UseBody, server: Served) -> ChoiceOut:
    """Weigh every blade for a use, kept or not."""
    use = use_of("", body)
    check_use(use)
    return choice_out(server.choices.known(use.life, now()), use, server.answers.progress())


@router.get("/upkeep")
def get_upkeep(
    server: Served,
    to_side_deg: Annotated[float | None, Query(ge=5, le=45, allow_inf_nan=False)] = None,
) -> list[UpkeepRowOut]:
    """What each blade asks for, and what bringing it to another angle a side would take."""
    return upkeep_rows(server.choices.known("", now()), Use("", "upkeep"), to_side_deg)
