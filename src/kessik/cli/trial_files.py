"""`kessik analyse` and `next-check`: files in, answers out; no store is opened."""

import json
import sys
from pathlib import Path
from typing import Annotated, Any

import typer
from rich.console import Console
from rich.table import Table

from kessik.cli.options import Dull, Json, Keen
from kessik.cli.refusals import load, refusing
from kessik.core.comparison.analysis import TrialAnalysis
from kessik.core.comparison.matching import FACTORS, MatchingRule
from kessik.core.comparison.ranking import main_stage
from kessik.core.errors import Fault, OutOfRangeError, RefusedFileError
from kessik.core.planning.adaptive import next_check
from kessik.core.protocols.methods import Method, force_limit_rope
from kessik.core.sharpness.life import force_lives
from kessik.core.words.checks_ahead import planned_words
from kessik.core.words.lives import life_words
from kessik.core.words.notes import note_words, oddity_words
from kessik.core.words.pairs import pair_words
from kessik.core.words.sentences import as_sentence
from kessik.core.words.verdict import headline, standing_words, with_all_words
from kessik.interchange.analysis_json import analysis_json, life_json
from kessik.interchange.named_files import NamedFile
from kessik.services.files.trial_files import ReadFiles, ReadTrial, read_files

app = typer.Typer()

Series = Annotated[Path, typer.Argument(help="A *.series.csv file.", show_default=False)]
Beside = Annotated[
    Path | None, typer.Option(help="The file beside the series.", show_default=False)
]


@app.command()
def analyse(
    series: Series,
    runs: Beside = None,
    blades: Beside = None,
    edges: Beside = None,
    keen: Keen = 300.0,
    dull: Dull = 400.0,
    factor: Annotated[str, typer.Option(help="What the trial varies.")] = "steel",
    as_usually_hardened: Annotated[
        bool, typer.Option(help="Match hardness as usual for each grade.")
    ] = False,
    as_json: Json = False,
) -> None:
    """Lives, blades and comparisons of a series."""
    with refusing():
        method, rule = settings(keen, dull, factor, as_usually_hardened)
        read = read_files(
            [
                *load([series]),
                *_beside(runs, "runs"),
                *_beside(blades, "blades"),
                *_beside(edges, "edges"),
            ]
        )
        analyses = {trial.name: trial.analysis(rule, method) for trial in series_trials(read)}
    if as_json:
        _print_json(analysis_json(analyses, keen, dull))
        return
    for note in read.notes:
        sys.stderr.write(f"{note}\n")
    for name, analysis in analyses.items():
        _print_trial(name, analysis)


def series_trials(read: ReadFiles) -> tuple[ReadTrial, ...]:
    """The trials of files; RefusedFileError where no series was among them."""
    if not read.trials:
        raise RefusedFileError([Fault("files", 1, "", "a series file (*.series.csv) is needed")])
    return read.trials


@app.command("next-check")
def next_check_command(
    series: Series, keen: Keen = 300.0, dull: Dull = 400.0, as_json: Json = False
) -> None:
    """Where to check an unfinished run next: the last run of the file, by the adaptive rule."""
    with refusing():
        method = force_limit_rope(keen, dull)
        read = read_files(load([series]))
        trial = series_trials(read)[-1]
        run = trial.series(trial.runs[-1])
        checks = run.force_checks()
        if run.checks and not checks:
            message = "this run has no force readings; the adaptive rule needs them"
            raise RefusedFileError([Fault(series.name, 2, "check", message)])
        planned = next_check(checks, method.limits_gf)
        (life,) = force_lives([run], "dull", dull)
    why = planned_words(planned.why)
    expected = {"dull": life_json(life.life)} if life else {}
    answer = {
        "next_count": planned.next_count,
        "readings": planned.readings,
        "expected": expected,
        "stop": planned.stop,
        "why": why,
    }
    if as_json:
        _print_json(answer)
    elif planned.stop:
        sys.stdout.write(f"Stop: {why}.\n")
    else:
        reading = "reading" if planned.readings == 1 else "readings"
        sys.stdout.write(f"Check at {planned.next_count:g}, {planned.readings} {reading}: {why}.\n")
        if life:
            sys.stdout.write(f"Dull: {life_words(life.life.found, run.count_unit)}.\n")


def settings(
    keen: float, dull: float, factor: str, as_usually_hardened: bool
) -> tuple[Method, MatchingRule]:
    if factor not in FACTORS:
        sys.stderr.write(f"--factor {factor}: not one of {', '.join(FACTORS)}\n")
        raise typer.Exit(2)
    try:
        method = force_limit_rope(keen, dull)
    except OutOfRangeError as error:
        sys.stderr.write(f"{error.message}\n")
        raise typer.Exit(2) from error
    return method, MatchingRule(
        factor, "as_usually_hardened" if as_usually_hardened else "same_hardness"
    )


def _beside(path: Path | None, kind: str) -> list[NamedFile]:
    """A file handed in by its option is what the option says, whatever its name."""
    if path is None:
        return []
    (file,) = load([path])
    name = (
        file.name
        if file.name.endswith(f".{kind}.csv")
        else f"{file.name.removesuffix('.csv')}.{kind}.csv"
    )
    return [NamedFile(name, file.data)]


def _print_json(answer: dict[str, Any]) -> None:
    sys.stdout.write(json.dumps(answer, ensure_ascii=False, indent=2, allow_nan=False) + "\n")


def _print_trial(name: str, analysis: TrialAnalysis) -> None:
    console = Console(highlight=False)
    stage = main_stage(analysis)
    said = as_sentence(headline(analysis, stage))
    console.print(
        f"\n[bold]{name}[/bold]\n{said}\n{standing_words(analysis, stage)}\n",
        soft_wrap=True,
    )
    table = Table("blade", "edge", "run", "readings", "stage", "life of this edge")
    for result in analysis.runs:
        for known, life in result.lives.items():
            run = result.run
            words = life_words(life.life.found, run.count_unit)
            table.add_row(
                run.blade, str(run.edge), str(run.run), str(len(run.checks)), known, words
            )
    console.print(table)
    for result in analysis.runs:
        for warning in result.warnings:
            whose = f"{result.run.blade}, edge {result.run.edge}"
            console.print(f"{whose}: {oddity_words(warning)}", soft_wrap=True)
    for note in (*map(note_words, analysis.notes), with_all_words(analysis, stage)):
        if note:
            console.print(note, soft_wrap=True)
    for comparison in analysis.comparisons:
        console.print(f"{comparison.stage}: {pair_words(comparison)}", soft_wrap=True)
