"""Sheets of results as they are: looked over, then brought in."""

from typing import Annotated
from uuid import uuid4

from fastapi import APIRouter, File, Form, UploadFile
from pydantic import ValidationError

from kessik.api.dependencies import ImportDesk, Store
from kessik.api.schemas.common import Day, Id, ShortText
from kessik.api.schemas.sheets import BroughtOut, SheetPreviewOut, SheetReadingBody
from kessik.api.views.sheets import sheet_preview_out
from kessik.core.errors import OutOfRangeError
from kessik.core.trials.paper.sheets import OnThere, SheetReading
from kessik.interchange.named_files import NamedFile
from kessik.interchange.sheets_apart import read_sheet_apart
from kessik.services.clock import now
from kessik.services.paper.runs import Entered
from kessik.services.paper.sheet_import import bring_in, read_watched
from kessik.services.paper.sheet_plans import Sheet, Target
from kessik.services.paper.sheets import preview

router = APIRouter(tags=["paper"])


@router.post("/sheet-previews")
def post_preview(
    store: Store,
    file: Annotated[UploadFile, File()],
    reading: Annotated[str, Form()] = "",
    trial_id: Annotated[ShortText, Form()] = "",
    name: Annotated[ShortText, Form()] = "",
    school: Annotated[ShortText, Form()] = "",
) -> SheetPreviewOut:
    """What would become of a sheet; nothing is stored. Without a `reading` it is guessed."""
    raw = read_sheet_apart(_named(file))
    told = _reading(reading) if reading else None
    found = preview(store, raw, told, Target(trial_id, name, school), Entered("", "", now()))
    return sheet_preview_out(found)


@router.post("/sheet-imports")
def post_import(
    store: Store,
    imports: ImportDesk,
    file: Annotated[UploadFile, File()],
    reading: Annotated[str, Form()],
    trial_id: Annotated[ShortText, Form()] = "",
    name: Annotated[ShortText, Form()] = "",
    school: Annotated[ShortText, Form()] = "",
    on_there: Annotated[OnThere, Form()] = "skip",
    reading_name: Annotated[ShortText, Form()] = "",
    by: Annotated[ShortText, Form()] = "",
    cut_on: Annotated[Day, Form()] = "",
    import_id: Annotated[Id | None, Form()] = None,
) -> BroughtOut:
    """Keep the runs of a sheet, all or none; watched and cancelled as any import, and the same
    `import_id` twice is one.
    """
    own_id = import_id or str(uuid4())
    with imports.working(own_id) as work:
        raw, entered = read_watched(_named(file), work), Entered(by, cut_on, now())
        sheet = Sheet(raw, _reading(reading), entered, own_id)
        target = Target(trial_id, name, school)
        made = bring_in(store, sheet, target, on_there, reading_name, work)
    return BroughtOut.showing(made, trial_id=made.trial.id, trial_name=made.trial.name)


def _named(file: UploadFile) -> NamedFile:
    return NamedFile((file.filename or "pasted.tsv")[:200], file.file.read())


def _reading(text: str) -> SheetReading:
    try:
        return SheetReadingBody.model_validate_json(text).to_core()
    except ValidationError as wrong:
        raise OutOfRangeError(
            "the choice of columns cannot be read; choose them again", field="reading"
        ) from wrong
