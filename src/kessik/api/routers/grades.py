"""Grades: the library, pages of grades, the tester's own, and which look alike."""

from typing import Annotated

from fastapi import APIRouter, File, Response, UploadFile

from kessik.api.dependencies import Store
from kessik.api.schemas.common import ShortText
from kessik.api.schemas.grades import (
    ConfirmBody,
    ConfusionOut,
    GradeBody,
    GradeOut,
    GradePageOut,
    GradesOut,
    KeptGradesOut,
)
from kessik.api.views.grades import confusion_out, grade_out, grade_page_out, grades_out
from kessik.core.limits import most
from kessik.interchange.grades_csv import write_grades
from kessik.interchange.named_files import NamedFile
from kessik.services.assays import grades
from kessik.services.assays.grade_pages import confusion, grade_page
from kessik.services.reading.grades import whole_library

router = APIRouter(tags=["grades"])


@router.get("/grades")
def get_grades(store: Store) -> GradesOut:
    """The library with the tester's own word over it."""
    return grades_out(whole_library(store))


@router.get("/grades.csv")
def get_grades_csv(store: Store) -> Response:
    """The library as `*.grades.csv`."""
    text = write_grades(whole_library(store).grades.values())
    name = {"Content-Disposition": 'attachment; filename="library.grades.csv"'}
    return Response(text, media_type="text/csv; charset=utf-8", headers=name)


@router.get("/grades-alike")
def get_grades_alike(store: Store) -> ConfusionOut:
    """Which grades of the library no analyser in air separates."""
    return confusion_out(*confusion(store))


@router.post("/grade-imports")
def post_grade_import(
    store: Store, files: Annotated[list[UploadFile], File(max_length=most("files"))]
) -> KeptGradesOut:
    """Keep the grades of files as the tester's own, all or nothing."""
    named = [
        NamedFile((file.filename or "file.grades.csv")[:200], file.file.read()) for file in files
    ]
    names, notes = grades.import_grades(store, named)
    return KeptGradesOut(grades=names, notes=notes)


@router.put("/grade-confirmations/{name:path}")
def put_grade_confirmed(name: ShortText, body: ConfirmBody, store: Store) -> GradeOut:
    """Hold every value that was recalled from memory against its source."""
    return grade_out(grades.confirm_grade(store, name, body.source), own=True)


@router.get("/grades/{name:path}")
def get_grade(name: ShortText, store: Store) -> GradePageOut:
    """All that is known of one grade."""
    return grade_page_out(grade_page(store, name))


@router.put("/grades/{name:path}")
def put_grade(name: ShortText, body: GradeBody, store: Store) -> GradeOut:
    """Keep what the tester says of a grade."""
    return grade_out(grades.save_grade(store, body.to_core(name=name)), own=True)


@router.delete("/grades/{name:path}", status_code=204)
def delete_grade(name: ShortText, store: Store) -> Response:
    """Take back what the tester said of a grade; the library's own stays."""
    grades.delete_grade(store, name)
    return Response(status_code=204)
