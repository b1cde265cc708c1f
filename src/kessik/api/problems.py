"""Errors as RFC 9457 problem details; the only place that knows HTTP statuses of them."""

import logging
from collections.abc import Mapping
from typing import Any

from fastapi import FastAPI, Request
from fastapi.exceptions import RequestValidationError
from starlette.exceptions import HTTPException
from starlette.responses import JSONResponse

from kessik.api.refusal import MEDIA_TYPE, problem
from kessik.api.schemas.common import FaultOut, Problem
from kessik.core.errors import (
    CancelledError,
    ConflictError,
    KessikError,
    NotAllowedNowError,
    NotHereError,
    OutOfRangeError,
    RefusedFileError,
    SheetOfResultsError,
    StorageError,
    StoreBusyError,
    StoreFullError,
    StoreReadOnlyError,
    TooOftenError,
    UnknownError,
)
from kessik.core.limits import most
from kessik.core.protocols.events import SENT_KINDS
from kessik.interchange.fault_words import fault_words
from kessik.store.failures import storage_error

_STATUS: dict[type[KessikError], tuple[int, str]] = {
    OutOfRangeError: (422, "Value out of range"),
    RefusedFileError: (422, "The file was refused"),
    NotAllowedNowError: (409, "Not possible now"),
    ConflictError: (409, "Already used"),
    UnknownError: (404, "Not found"),
    CancelledError: (409, "Cancelled"),
    NotHereError: (403, "Not allowed from here"),
    TooOftenError: (429, "Too often"),
    StoreBusyError: (503, "The database is busy"),
    StoreFullError: (507, "The disk is full"),
    StoreReadOnlyError: (503, "The database is read-only"),
    StorageError: (503, "The database cannot be used"),
}
_OWN_WORDS = "kessik"
SHEET_OF_RESULTS = "urn:kessik:sheet-of-results"
"""The type of a problem that another reader solves: a screen opens the file there."""
_LOG = logging.getLogger("kessik")
RESPONSES: dict[int | str, dict[str, object]] = {
    status: {"model": Problem, "content": {MEDIA_TYPE: {}}}
    for status in (400, 403, 404, 408, 409, 413, 415, 422, 503, 507)
}


def install(app: FastAPI) -> None:
    """Register the handlers."""
    app.add_exception_handler(KessikError, _core_error)
    app.add_exception_handler(RequestValidationError, _invalid_request)
    app.add_exception_handler(HTTPException, _http_error)
    app.add_exception_handler(Exception, _missed)


def _core_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, KessikError)
    status, title = next(
        (_STATUS[c] for c in type(error).__mro__ if c in _STATUS), (422, "Not possible")
    )
    if isinstance(error, RefusedFileError):
        faults = [
            FaultOut(file=f.file, line=f.line, column=f.column, message=f.message)
            for f in error.faults
        ]
        told = [fault.model_dump() for fault in faults]
        kind = SHEET_OF_RESULTS if isinstance(error, SheetOfResultsError) else "about:blank"
        return problem(status, title, error.message, error.field, told, error.count, kind)
    return problem(status, title, error.message, error.field)


def _invalid_request(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, RequestValidationError)
    found = error.errors()
    faults = [
        FaultOut(column=_place(fault), message=fault_words(fault))
        for fault in found[: most("faults_listed")]
    ]
    first = faults[0]
    status = 400 if any(fault["type"] == "json_invalid" for fault in found) else 422
    own = found[0]["type"] == _OWN_WORDS or not first.column
    detail = first.message if own else f"{first.column}: {first.message}"
    told = [fault.model_dump() for fault in faults]
    return problem(
        status, "The request cannot be read", detail, first.column or None, told, len(found)
    )


def _place(fault: Mapping[str, Any]) -> str:
    """The field at fault: as the core named it, else where it stands in the request."""
    named = (fault.get("ctx") or {}).get("field")
    if fault["type"] == _OWN_WORDS and named:
        return str(named)
    if fault["type"] in ("union_tag_invalid", "union_tag_not_found"):
        return "kind"
    # of a union by kind the word of the kind stands in the place, too; it is no field
    return ".".join(str(part) for part in fault["loc"][1:] if part not in SENT_KINDS)[:200]


def _http_error(_request: Request, error: Exception) -> JSONResponse:
    assert isinstance(error, HTTPException)
    return problem(error.status_code, "Not possible", str(error.detail))


def _missed(_request: Request, error: Exception) -> JSONResponse:
    """What nobody foresaw is one plain sentence here, and whole in the log of the machine that
    serves.
    """
    _LOG.error("an answer failed", exc_info=error)
    meant = storage_error(error)
    if meant is not None:
        return _core_error(_request, meant)
    return problem(500, "Something went wrong", "Kessik failed; nothing was changed")
