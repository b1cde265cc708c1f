"""Errors as RFC 9457 problem details; the only place that knows HTTP statuses of them."""

from fastapi import FastAPI, Request
from fastapi.encoders import jsonable_encoder
from fastapi.exceptions import RequestValidationError
from fastapi.responses import JSONResponse
from starlette.exceptions import HTTPException

from kessik.api.schemas.common import FaultOut, Problem
from kessik.core.errors import (
    ConflictError,
    KessikError,
    NotAllowedNowError,
    OutOfRangeError,
    RefusedFileError,
    UnknownError,
)
from kessik.store.database import StoreBusyError

MEDIA_TYPE = "application/problem+json"
_STATUS: dict[type[KessikError], tuple[int, str]] = {
    OutOfRangeError: (422, "A value cannot be"),
    RefusedFileError: (422, "The file was not taken"),
    NotAllowedNowError: (409, "Not possible now"),
    ConflictError: (409, "Already used"),
    UnknownError: (404, "Not found"),
}
RESPONSES: dict[int | str, dict[str, object]] = {
    status: {"model": Problem, "content": {MEDIA_TYPE: {}}} for status in (400, 404, 409, 422, 503)
}


def problem(
    status: int, title: str, detail: str, field: str | None = None, faults: list[FaultOut] | None = None
) -> JSONResponse:
    body = Problem(title=title, status=status, detail=detail, field=field, faults=faults or [])
    return JSONResponse(jsonable_encoder(body), status_code=status, media_type=MEDIA_TYPE)


def install(app: FastAPI) -> None:
    """Register the handlers."""
    app.add_exception_handler(KessikError, _core_error)
    app.add_exception_handler(RequestValidationError, _invalid_request)
    app.add_exception_handler(HTTPException, _http_error)
    app.add_exception_handler(StoreBusyError, _store_busy)


def _core_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, KessikError)
    status, title = _STATUS.get(type(error), (422, "Not possible"))
    faults = []
    if isinstance(error, RefusedFileError):
        faults = [FaultOut(file=f.file, line=f.line, column=f.column, message=f.message) for f in error.faults]
    return problem(status, title, error.message, error.field, faults)


def _invalid_request(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    faults = []
    for fault in error.errors():
        place = [str(part) for part in fault["loc"][1:]]
        faults.append(FaultOut(column=".".join(place), message=str(fault["msg"])))
    first = faults[0]
    status = 400 if any(fault["type"] == "json_invalid" for fault in error.errors()) else 422
    detail = f"{first.column}: {first.message}" if first.column else first.message
    return problem(status, "The request cannot be read", detail, first.column or None, faults)


def _http_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    return problem(error.status_code, "Not possible", str(error.detail))


def _store_busy(_request: Request, _error: Exception) -> JSONResponse:
    return problem(503, "The store is busy", "Nothing was stored; try again in a moment")
