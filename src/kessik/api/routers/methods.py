"""Methods: the ready ones, the tester's own, and the one a trial goes by."""

from fastapi import APIRouter, Response

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.methods import KnownMethodsOut, MethodChoice, MethodOut
from kessik.api.schemas.shelf import ArchivedBody
from kessik.api.schemas.trials import TrialOut
from kessik.api.views.methods import known_methods_out, method_version_out
from kessik.api.views.trials import trial_out
from kessik.services.clock import now
from kessik.services.trials import methods

router = APIRouter(tags=["methods"])


@router.get("/methods")
def get_methods(store: Store) -> KnownMethodsOut:
    """What a trial can take its method from."""
    return known_methods_out(methods.known_methods(store))


@router.put("/methods/{line_id}/archived", status_code=204)
def put_method_archived(line_id: Id, body: ArchivedBody, store: Store) -> Response:
    """Put a method of one's own into the archive, or take it out."""
    methods.put_method_away(store, line_id, body.archived, now().utc)
    return Response(status_code=204)


@router.put("/trials/{trial_id}/method")
def put_method(trial_id: Id, body: MethodChoice, store: Store) -> TrialOut:
    """Give a trial a method; one that a run was cut under stays, and this becomes its next
    version.
    """
    return trial_out(
        methods.change_method(
            store, trial_id, body.method.to_core(), now().utc, body.from_method_id
        )
    )


@router.get("/trials/{trial_id}/methods")
def get_versions(trial_id: Id, store: Store) -> list[MethodOut]:
    """The versions the runs of a trial were cut under, and the one in force, oldest first."""
    return [method_version_out(version) for version in methods.versions_of(store, trial_id)]
