"""A refusal as RFC 9457 problem details; it needs no contract, so the gate can refuse at once."""

from collections.abc import Mapping, Sequence

from starlette.responses import JSONResponse

MEDIA_TYPE = "application/problem+json"


def problem(
    status: int,
    title: str,
    detail: str,
    field: str | None = None,
    faults: Sequence[Mapping[str, object]] = (),
    fault_count: int | None = None,
    kind: str = "about:blank",
) -> JSONResponse:
    """The answer; its shape is `schemas.common.Problem`, each fault a `FaultOut` as JSON has it."""
    body = {
        "type": kind,
        "title": title,
        "status": status,
        "detail": detail,
        "field": field,
        "faults": list(faults),
        "fault_count": len(faults) if fault_count is None else fault_count,
    }
    return JSONResponse(body, status_code=status, media_type=MEDIA_TYPE)
