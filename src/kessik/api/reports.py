"""Reports put together: answers as they are kept, what stands beside them, and the standings."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from hashlib import sha256

from pydantic import TypeAdapter

from kessik.api.schemas.standings import BoardOut
from kessik.api.schemas.verdict import AnswerOut, SealedAnswerOut
from kessik.api.views.card import blade_card
from kessik.api.views.report import BesideTrial, standings_blocks, trial_blocks, trial_report
from kessik.api.views.standings import board_page
from kessik.api.views.trial_sheets import trial_sheets
from kessik.core.comparison.analysis import ANALYSIS_VERSION
from kessik.core.errors import KessikError, NotAllowedNowError, UnknownError
from kessik.core.moments import Moment
from kessik.core.packages import Hidden, ReportKind
from kessik.core.standings.board import StandingsQuestion
from kessik.core.words.assay import verdict_sentence
from kessik.core.words.soaks import soak_headline
from kessik.interchange.report.card import BladeCard
from kessik.interchange.report.document import Block, Heading, Paragraph, Report
from kessik.interchange.report.html import html
from kessik.interchange.report.pdf import pdf
from kessik.interchange.workbook import workbook
from kessik.services.assays.verdicts import assays_of
from kessik.services.choice.gathering import Known
from kessik.services.soaks.sheets import sheets_of_blades
from kessik.services.standings.boards import read_field, work_out
from kessik.services.trials.answers import Answers
from kessik.services.work import ImportWork
from kessik.store.database import Database

_ANSWER: TypeAdapter[AnswerOut | SealedAnswerOut] = TypeAdapter(AnswerOut | SealedAnswerOut)
_NO_DAY = "2000-01-01"


@dataclass(frozen=True)
class ReportWish:
    """What goes into a report: trials, what is left out, and whether the standings stand first."""

    trial_ids: tuple[str, ...]
    hidden: tuple[Hidden, ...] = ()
    with_standings: bool = False
    title: str = ""


@dataclass(frozen=True)
class Written:
    """A report with the answers it rests on."""

    report: Report
    answers: tuple[AnswerOut, ...]

    def as_kind(self, kind: ReportKind) -> bytes:
        """The report as a file."""
        match kind:
            case "pdf":
                return pdf(self.report)
            case "html":
                return html(self.report).encode()
            case "xlsx":
                return workbook(trial_sheets(self.answers, self.report.made_from))


def report_of(
    db: Database, answers: Answers, wish: ReportWish, now: Moment, work: ImportWork | None = None
) -> Written:
    """The report of a trial, or of a season of them.

    NotAllowedNowError for a trial whose answer is hidden still; UnknownError for none.
    """
    work = work or ImportWork()
    work.begin("reading", len(wish.trial_ids))
    found = []
    for trial_id in wish.trial_ids:
        answer = _answer(answers, trial_id)
        found.append((answer, _beside(db, answer, now)))
        work.step()
    work.begin("writing", 1)
    return Written(_report(db, found, wish), tuple(answer for answer, _ in found))


def _report(
    db: Database, found: Sequence[tuple[AnswerOut, BesideTrial]], wish: ReportWish
) -> Report:
    if len(found) == 1 and not wish.with_standings:
        answer, beside = found[0]
        return _stamped(trial_report(answer, beside, wish.hidden, "", _day([answer])))
    blocks = tuple(_season(db, found, wish))
    title = wish.title or (found[0][0].trial.name if len(found) == 1 else f"{len(found)} trials")
    days = [answer.trial.created_utc[:10] for answer, _ in found]
    under = f"set up {min(days)} to {max(days)}" if days else ""
    return _stamped(Report(title, under, blocks, "", _day([answer for answer, _ in found])))


def _answer(answers: Answers, trial_id: str) -> AnswerOut:
    text, behind = answers.page("verdict", trial_id)
    if behind:
        answers.renew(trial_id)
        text, _ = answers.page("verdict", trial_id)
    answer = _ANSWER.validate_json(text)
    if isinstance(answer, SealedAnswerOut):
        raise NotAllowedNowError(
            f"{answer.trial.name}: {answer.sealed}; a report would show it", field="trial"
        )
    return answer


def _season(
    db: Database, found: Sequence[tuple[AnswerOut, BesideTrial]], wish: ReportWish
) -> Iterator[Block]:
    if wish.with_standings:
        yield Heading("Standings", 1)
        yield from _standings(db)
    for answer, beside in found:
        yield Heading(answer.trial.name, 1)
        yield from trial_blocks(answer, beside, wish.hidden)


def _standings(db: Database) -> Iterator[Block]:
    with db.read() as session:
        field = read_field(session)
    try:
        board = work_out(field, StandingsQuestion())
    except KessikError as error:
        yield Paragraph(f"There are none: {error.message}.")
        return
    yield from standings_blocks(BoardOut.model_validate_json(board_page(board, field)))


def _beside(db: Database, answer: AnswerOut, now: Moment) -> BesideTrial:
    """What analyses and soaks say of the trial's blades, each blade and each soak once."""
    codes = {blade.id: blade.own_code for blade in answer.blades}
    with db.read() as session:
        assays = assays_of(session, list(codes))
    told = [
        (code, verdict_sentence(assays[blade].assay))
        for blade, code in codes.items()
        if blade in assays and assays[blade].shots
    ]
    sheets = {
        sheet.soak.id: sheet
        for own in sheets_of_blades(db, list(codes), now).values()
        for sheet in own
    }
    soaks = []
    for sheet in sheets.values():
        names = {coupon.id: coupon.name for coupon in sheet.soak.coupons}
        soaks.append((sheet.soak.name, soak_headline(sheet.soak, sheet.answer, names)))
    return BesideTrial(tuple(told), tuple(soaks))


def card_of(db: Database, known: Known, blade_id: str, hidden: Sequence[Hidden]) -> BladeCard:
    """The card of a blade; UnknownError where there is none."""
    blade = known.field.blades.get(blade_id)
    if blade is None:
        raise UnknownError("there is no such blade", field="blade")
    with db.read() as session:
        assay = assays_of(session, [blade_id]).get(blade_id)
    says = verdict_sentence(assay.assay) if assay and assay.shots else ""
    return blade_card(blade, known, says, hidden)


def _day(answers: Sequence[AnswerOut]) -> str:
    """The day of the last run, or of the trial."""
    days = [answer.trial.created_utc[:10] for answer in answers]
    days += [run.run.started_utc[:10] for answer in answers for run in answer.runs]
    return max(days, default=_NO_DAY)


def _stamped(report: Report) -> Report:
    """A report that says what it was made from."""
    content = sha256(repr((report.title, report.under, report.blocks)).encode()).hexdigest()
    made_from = f"Kessik, analysis {ANALYSIS_VERSION}, content {content[:16]}"
    return replace(report, made_from=made_from)
