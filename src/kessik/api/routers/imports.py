"""Files brought in: read, checked and stored, with progress, and cancelled if the tester wants."""

from typing import Annotated
from uuid import uuid4

from fastapi import APIRouter, File, Form, Response, UploadFile

from kessik.api.dependencies import ImportDesk, Store
from kessik.api.schemas.common import Id, Wire
from kessik.api.schemas.verdict import ImportOut
from kessik.api.views.trials import trial_out
from kessik.core.comparison.matching import MatchingRule
from kessik.core.comparison.variables import Factor
from kessik.core.limits import most
from kessik.core.protocols.methods import force_limit_rope
from kessik.interchange.named_files import NamedFile
from kessik.services.clock import now
from kessik.services.files.imports import import_files

router = APIRouter(tags=["imports"])
_LIMITS_GF = Annotated[float, Form(allow_inf_nan=False)]


class ImportProgress(Wire):
    """How far an import is: what is being done, and how much of it."""

    stage: str
    done: int
    of: int


@router.post("/imports")
def post_imports(
    store: Store,
    imports: ImportDesk,
    files: Annotated[list[UploadFile], File(max_length=most("files"))],
    factor: Annotated[Factor, Form()] = "steel",
    keen_gf: _LIMITS_GF = 300.0,
    dull_gf: _LIMITS_GF = 400.0,
    import_id: Annotated[Id | None, Form()] = None,
) -> ImportOut:
    """Read series with the runs, blades and edges files beside them, or blades and edges alone onto
    the shelf.

    With any fault nothing is imported. Answered when all is stored; under the client-made
    `import_id` it can be watched and cancelled meanwhile, and the same id twice is one import.
    """
    method = force_limit_rope(keen_gf, dull_gf, "every")
    own_id = import_id or str(uuid4())
    with imports.working(own_id) as work:
        named = [
            NamedFile((file.filename or "file.series.csv")[:200], file.file.read())
            for file in files
        ]
        rule = MatchingRule(factor)
        made = import_files(store, named, now(), rule, method, import_id=own_id, work=work)
    trials = [trial_out(trial) for trial in made.trials]
    return ImportOut(trials=trials, blades=list(made.blades), notes=list(made.notes))


@router.get("/imports/{import_id}")
def get_import(import_id: Id, imports: ImportDesk) -> ImportProgress:
    """How far an import is that is under way."""
    work = imports.find(import_id)
    return ImportProgress(stage=work.stage, done=work.done, of=work.of)


@router.delete("/imports/{import_id}", status_code=204)
def delete_import(import_id: Id, imports: ImportDesk) -> Response:
    """Cancel an import that is under way; nothing of it is kept."""
    imports.find(import_id).cancel()
    return Response(status_code=204)
