"""Reports of trials, and their charts as pictures."""

from typing import Annotated
from uuid import uuid4

from fastapi import APIRouter, Query, Response

from kessik.api.dependencies import AnswersDep, ImportDesk, Served, Store
from kessik.api.downloads import attached
from kessik.api.reports import ReportWish, card_of, report_of
from kessik.api.schemas.common import Id, ShortText
from kessik.api.schemas.packages import LastReportOut, ReportBody
from kessik.core.errors import UnknownError
from kessik.core.packages import ChartKind, Hidden
from kessik.interchange.report.card import card_png
from kessik.interchange.report.pdf import png
from kessik.services.clock import now
from kessik.services.files.trial_export import slug
from kessik.services.trials.past_reports import last_report_of, note_report_of

router = APIRouter(tags=["reports"])
_MEDIA = {
    "html": "text/html; charset=utf-8",
    "pdf": "application/pdf",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "svg": "image/svg+xml",
    "png": "image/png",
}


@router.post("/reports", response_class=Response)
def post_report(body: ReportBody, store: Store, kept: AnswersDep, imports: ImportDesk) -> Response:
    """Make a report of trials, and remember what it was made from; watched and cancelled under
    the client-made id.
    """
    ids = tuple(dict.fromkeys(body.trials))
    wish = ReportWish(ids, tuple(dict.fromkeys(body.leave_out)), body.with_standings)
    with imports.working(body.work_id or str(uuid4())) as work:
        written = report_of(store, kept, wish, now(), work)
        content = written.as_kind(body.kind)
    report = written.report
    if len(ids) == 1:
        note_report_of(store, ids[0], report.made_from, body.leave_out, now())
    return attached(content, _MEDIA[body.kind], f"{slug(report.title)}.{body.kind}")


@router.get("/blades/{blade_id}/card", response_class=Response)
def get_card(
    blade_id: Id,
    store: Store,
    server: Served,
    leave_out: Annotated[list[Hidden], Query(max_length=8)] = [],  # noqa: B006 - FastAPI copies it
) -> Response:
    """A card of a blade as a picture."""
    card = card_of(store, server.choices.known("", now()), blade_id, leave_out)
    return attached(card_png(card), _MEDIA["png"], f"{slug(card.code)}.png")


@router.get("/trials/{trial_id}/last-report")
def get_last_report(trial_id: Id, store: Store, kept: AnswersDep) -> LastReportOut:
    """When the last report of a trial was made, and whether it still says today's answer."""
    last = last_report_of(store, trial_id)
    if last is None:
        return LastReportOut(made_utc="", is_current=True)
    wish = ReportWish((trial_id,), last.hidden)
    is_current = report_of(store, kept, wish, now()).report.made_from == last.made_from
    return LastReportOut(made_utc=last.made_utc, is_current=is_current)


@router.get("/trials/{trial_id}/charts/{chart}", response_class=Response)
def get_chart(
    trial_id: Id,
    chart: ShortText,
    store: Store,
    kept: AnswersDep,
    kind: ChartKind = "svg",
) -> Response:
    """A chart of a trial as a picture with its caption."""
    report = report_of(store, kept, ReportWish((trial_id,)), now()).report
    figure = next((each for each in report.figures if each.name == chart), None)
    if figure is None:
        raise UnknownError("this trial has no such chart", field="chart")
    content = figure.svg.encode() if kind == "svg" else png(figure)
    return attached(content, _MEDIA[kind], f"{slug(report.title)}.{chart}.{kind}")
