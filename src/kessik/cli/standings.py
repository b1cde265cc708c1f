"""`kessik standings`: lives of all trials in, where each blade stands out."""

import json
import sys
from collections.abc import Sequence
from contextlib import ExitStack
from dataclasses import replace
from pathlib import Path
from typing import Annotated

import numpy as np
import typer
from rich.console import Console
from rich.table import Table

from kessik.cli.options import Json
from kessik.cli.packages import folder_of, is_package
from kessik.cli.refusals import load, refusing
from kessik.core.errors import NotAllowedNowError, OutOfRangeError
from kessik.core.standings.answer import PLACES_SEED, Standings, standings
from kessik.core.standings.comparable import USUAL, classes_of, records_in
from kessik.core.standings.records import LifeRecord, one_an_edge
from kessik.core.words.standings import (
    class_size_words,
    class_words,
    doubt_sentence,
    place_words,
    ratio_words,
)
from kessik.interchange.lives_csv import read_lives, records_of
from kessik.interchange.standings_json import ladder_csv, ladder_rows, standings_json

app = typer.Typer()


@app.command(name="standings")
def standings_command(
    lives: Annotated[
        list[Path] | None,
        typer.Argument(help="*.lives.csv files, or one package.", show_default=False),
    ] = None,
    folder: Annotated[
        Path | None,
        typer.Option("--data", help="A data folder instead of files.", show_default=False),
    ] = None,
    reference: Annotated[
        str | None,
        typer.Option(help="The blade that the others are put beside.", show_default=False),
    ] = None,
    as_json: Json = False,
    as_csv: Annotated[bool, typer.Option("--csv", help="CSV on standard output.")] = False,
) -> None:
    """Where each blade stands among all that were ever cut."""
    with refusing():
        records = _records(folder, lives or [])
        found = standings(one_an_edge(records), np.random.default_rng(PLACES_SEED).standard_normal)
        base = _reference(found, reference)
    if as_json:
        answer = standings_json(found, base)
        sys.stdout.write(json.dumps(answer, ensure_ascii=False, indent=1, allow_nan=False) + "\n")
    elif as_csv:
        sys.stdout.write(ladder_csv(found, base))
    else:
        _print(found, base)


def _records(folder: Path | None, files: list[Path]) -> list[LifeRecord]:
    packages = [path for path in files if is_package(path)]
    if folder is not None:
        return _of_folder(folder)
    if len(packages) == 1 and len(files) == 1:
        with ExitStack() as stack:
            return _of_folder(folder_of(packages[0], stack))
    if packages:
        sys.stderr.write("import several packages into one folder, then name it with --data\n")
        raise typer.Exit(2)
    return _of_files(files)


def _of_folder(folder: Path) -> list[LifeRecord]:
    """The lives of the class with most blades, by the codes of the blades."""
    from kessik.api.views.answers import pages
    from kessik.services.standings.boards import read_field
    from kessik.services.trials.answers import Answers
    from kessik.store.database import Database

    with Database(folder) as database:
        Answers(database, pages()).settle()
        with database.read() as session:
            field = read_field(session)
    classes = classes_of(field.lives, USUAL)
    if not classes:
        raise NotAllowedNowError("no trial of this folder holds a life to compare yet")
    sys.stderr.write(f"{class_words(classes[0])}: {class_size_words(classes[0])}\n")
    codes = {arm: facts.code for arm, facts in field.arms.items()}
    return [
        replace(record, arm=codes[record.arm], trial=field.trials[record.trial])
        for record in records_in(field.lives, classes[0])
    ]


def _of_files(paths: Sequence[Path]) -> list[LifeRecord]:
    if not paths:
        sys.stderr.write("name one or more *.lives.csv files, or a folder with --data\n")
        raise typer.Exit(2)
    records: list[LifeRecord] = []
    for file in load(list(paths)):
        table = read_lives(file.name, file.data)
        table.faults.refuse()
        for note in table.notes:
            sys.stderr.write(f"{file.name}: {note}\n")
        records += records_of(table.rows)
    return records


def _reference(found: Standings, asked: str | None) -> str:
    if asked is not None and asked not in found.network.arms:
        raise OutOfRangeError(
            f"no life of a blade called {asked} is among these", field="reference"
        )
    return asked or found.reference_of(found.ladders()[0])


def _print(found: Standings, reference: str) -> None:
    console = Console(soft_wrap=True)
    for cell in found.doubts.named:
        console.print(doubt_sentence(found.network, cell), markup=False, highlight=False)
    table = Table("blade", "life", "place", "trials", "runs")
    island = 1
    for row in ladder_rows(found, reference):
        if row["island"] != island:
            island = row["island"]
            table.add_section()
        ratio = ratio_words(row["ratio"], row["lower"], row["upper"])
        place = place_words(row["best"], row["worst"])
        table.add_row(row["blade"], ratio, place, str(row["trials"]), str(row["runs"]))
    console.print(table)
