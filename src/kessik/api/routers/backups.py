"""Copies of the data: seen, made, and kept by a rule."""

from fastapi import APIRouter, Depends

from kessik.api.dependencies import Store, only_with
from kessik.api.schemas.backups import BackupRuleBody, CopiesOut, HoldsOut
from kessik.api.schemas.common import ShortText
from kessik.api.views.backups import copies_out
from kessik.services.upkeep import copies
from kessik.services.upkeep.upkeep import make_copy
from kessik.store.backups import BY_HAND

router = APIRouter(tags=["backups"], dependencies=[Depends(only_with("backups"))])


@router.get("/backups")
def get_backups(store: Store) -> CopiesOut:
    """What copies there are, and by which rule they are kept."""
    return copies_out(copies.copies_of(store))


@router.post("/backups")
def post_backup(store: Store) -> CopiesOut:
    """Make a copy now; taps go on meanwhile."""
    make_copy(store, BY_HAND)
    return copies_out(copies.copies_of(store))


@router.put("/backups/rule")
def put_rule(body: BackupRuleBody, store: Store) -> CopiesOut:
    """Keep by another rule from now on."""
    return copies_out(copies.change_rule(store, body.to_core()))


@router.get("/backups/{name}/holds")
def get_holds(name: ShortText, store: Store) -> HoldsOut:
    """What a copy holds, before it is brought back."""
    return HoldsOut.showing(copies.held_by(store, name))
