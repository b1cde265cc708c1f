"""Packages of trials, out and in; whose they are, and which blades are one."""

from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Annotated
from uuid import uuid4

from fastapi import APIRouter, BackgroundTasks, Depends, File, Form, Query, UploadFile
from fastapi.responses import FileResponse

from kessik.api.dependencies import ImportDesk, Store, at_home
from kessik.api.schemas.common import Id
from kessik.api.schemas.packages import (
    BladeQuestionOut,
    PackageBroughtOut,
    SameBladeBody,
    TesterBody,
    TestersOut,
)
from kessik.api.views.packages import blade_questions_out, brought_out, testers_out
from kessik.core.packages import Hidden
from kessik.core.shelf.identity import SameBlade
from kessik.services.clock import now
from kessik.services.packages import identities
from kessik.services.packages.bringing import bring_package
from kessik.services.packages.testers import name_here, testers_of
from kessik.services.packages.writing import SUFFIX, PackageWish, write_package

router = APIRouter(tags=["packages"])
_AT_ONCE = 1 << 20


@router.get("/package", response_class=FileResponse)
def get_package(
    store: Store,
    after: BackgroundTasks,
    trial: Annotated[list[Id], Query(max_length=2000)] = [],  # noqa: B006 - FastAPI copies it
    leave_out: Annotated[list[Hidden], Query(max_length=8)] = [],  # noqa: B006
    pictures: bool = False,
) -> FileResponse:
    """Trials with all that belongs to them as one file; all of them where none is named."""
    folder = TemporaryDirectory(prefix="kessik-package-")
    after.add_task(folder.cleanup)
    path = Path(folder.name) / f"trials{SUFFIX}"
    wish = PackageWish(tuple(trial), tuple(dict.fromkeys(leave_out)), pictures)
    write_package(store, wish, path, now())
    return FileResponse(path, media_type="application/zip", filename=path.name, background=after)


@router.post("/package-imports", dependencies=[Depends(at_home)])
def post_package(
    store: Store,
    imports: ImportDesk,
    package: Annotated[UploadFile, File()],
    import_id: Annotated[Id | None, Form()] = None,
    is_mine: Annotated[bool, Form()] = False,
) -> PackageBroughtOut:
    """Bring a package in; all or nothing, watched and cancelled under the client-made id."""
    called = (package.filename or f"package{SUFFIX}")[:200]
    with (
        imports.working(import_id or str(uuid4())) as work,
        TemporaryDirectory(prefix="kessik-package-") as made,
    ):
        path = Path(made) / "sent"
        with path.open("wb") as file:
            while data := package.file.read(_AT_ONCE):
                file.write(data)
        return brought_out(bring_package(store, path, called, work, is_mine=is_mine))


@router.get("/testers")
def get_testers(store: Store) -> TestersOut:
    """Whose folder this is, and who else sent trials."""
    return testers_out(testers_of(store))


@router.put("/testers/here")
def put_tester_here(body: TesterBody, store: Store) -> TestersOut:
    """Say who sends the packages of this folder."""
    return testers_out(name_here(store, body.name))


@router.get("/blade-questions")
def get_blade_questions(store: Store) -> list[BladeQuestionOut]:
    """Blades of several testers that may be one, and what was said of them."""
    return blade_questions_out(identities.identities_of(store))


@router.put("/blade-questions")
def put_same_blade(body: SameBladeBody, store: Store) -> list[BladeQuestionOut]:
    """Say whether two blades are one."""
    said = SameBlade(body.one, body.other, body.is_same)
    return blade_questions_out(identities.say_same(store, said, now()))


@router.delete("/blade-questions/{one}/{other}")
def delete_same_blade(one: Id, other: Id, store: Store) -> list[BladeQuestionOut]:
    """Forget what was said of two blades: they are two again, and asked about anew."""
    return blade_questions_out(identities.ask_again(store, one, other))
