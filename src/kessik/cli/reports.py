"""`kessik report`: trials as a printable report; and whether an older one is still today's."""

import re
import sys
from pathlib import Path
from typing import Annotated

import typer

from kessik.api.reports import ReportWish, report_of
from kessik.api.views.answers import pages
from kessik.cli.options import Folder
from kessik.cli.packages import hidden_of, trial_ids
from kessik.cli.refusals import data_folder, refusing
from kessik.core.comparison.analysis import ANALYSIS_VERSION
from kessik.core.errors import NotAllowedNowError, OutOfRangeError
from kessik.core.packages import ReportKind
from kessik.interchange.report.pdf import png
from kessik.services.clock import now
from kessik.services.files.trial_export import slug
from kessik.services.trials.answers import Answers
from kessik.store.database import Database

app = typer.Typer()
_MADE_FROM = re.compile(rb"Kessik, analysis ([^,]{1,40}), content ([0-9a-f]{16})")


@app.command("report")
def report_command(
    trials: Annotated[
        list[str] | None,
        typer.Argument(help="Ids or names of trials; all where none is named.", show_default=False),
    ] = None,
    out: Annotated[Path, typer.Option(help="Folder to write to.")] = Path(),
    data: Folder = None,
    leave_out: Annotated[
        list[str] | None,
        typer.Option(help="owners, prices or notes; may be given again.", show_default=False),
    ] = None,
    standings: Annotated[bool, typer.Option(help="With the standings of all trials.")] = False,
    check: Annotated[
        Path | None,
        typer.Option(help="A report in HTML: is it still today's?", show_default=False),
    ] = None,
) -> None:
    """Write trials as a printable report (PDF, HTML) and a workbook (XLSX), with charts beside."""
    hidden = hidden_of(leave_out)
    with refusing(), Database(data_folder(data)) as database:
        answers = Answers(database, pages())
        ids = trial_ids(database, trials or [])
        if not ids:
            raise NotAllowedNowError("there is no trial here yet", field="trials")
        wish = ReportWish(ids, hidden, standings)
        if standings:
            answers.settle()
        made = report_of(database, answers, wish, now())
        report = made.report
        if check is not None:
            _say_whether_current(check, report.made_from)
            return
        out.mkdir(parents=True, exist_ok=True)
        name = slug(report.title)
        kinds: tuple[ReportKind, ...] = ("html", "pdf", "xlsx")
        written = {f"{name}.{kind}": made.as_kind(kind) for kind in kinds}
        if len(ids) == 1:
            for figure in report.figures:
                written[f"{name}.{figure.name}.svg"] = figure.svg.encode()
                written[f"{name}.{figure.name}.png"] = png(figure)
        for file, content in written.items():
            (out / file).write_bytes(content)
            sys.stdout.write(f"{out / file}\n")


def _say_whether_current(path: Path, made_from: str) -> None:
    found = _MADE_FROM.search(path.read_bytes())
    if found is None:
        raise OutOfRangeError(f"{path} does not say what it was made from", field="check")
    if found[0].decode() == made_from:
        sys.stdout.write("This report is today's: the data give the same one.\n")
        return
    if found[1].decode() != ANALYSIS_VERSION:
        why = f"it was made with analysis {found[1].decode()}, and this is {ANALYSIS_VERSION}"
    else:
        why = "what it rests on has changed"
    sys.stdout.write(f"This report is no longer today's: {why}. Make it again.\n")
    raise typer.Exit(1)
