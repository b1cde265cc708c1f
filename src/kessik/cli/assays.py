"""`kessik assay`: shots in, the verdict on a claim out; no store is opened."""

import json
import sys
from collections.abc import Mapping
from pathlib import Path
from typing import Annotated

import typer
from rich.console import Console
from rich.table import Table

from kessik.cli.options import Json
from kessik.cli.refusals import load, refusing
from kessik.core.composition.claims import Assay, judge_all
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade
from kessik.core.composition.library import library
from kessik.core.composition.shots import PlusMinusIs, Shot, in_one_sigma
from kessik.core.words.assay import (
    mean_words,
    normalised_words,
    outlier_words,
    settling_lines,
    suspicion_words,
    verdict_sentence,
    weight_words,
)
from kessik.interchange.assay_json import assay_json
from kessik.interchange.grades_csv import read_grades
from kessik.interchange.shots_csv import read_shots, shots_of

app = typer.Typer()
_LINES = 8


@app.command()
def assay(
    shots: Annotated[Path, typer.Argument(help="A *.shots.csv file.", show_default=False)],
    claim: Annotated[
        str | None, typer.Option(help="The grade it is sold as.", show_default=False)
    ] = None,
    grades: Annotated[
        Path | None,
        typer.Option(help="Grades of your own beside the library.", show_default=False),
    ] = None,
    two_sigma: Annotated[
        bool, typer.Option("--two-sigma", help="The ± in the file is two standard deviations.")
    ] = False,
    as_json: Json = False,
) -> None:
    """What steel it is, as far as shots of an analyser can tell."""
    with refusing():
        own = _own_grades(grades) if grades else []
        (file,) = load([shots])
        table = read_shots(file.name, file.data)
        table.faults.refuse()
        given: PlusMinusIs = "two_sigma" if two_sigma else "one_sigma"
        read = [in_one_sigma(shot, given) for shot in shots_of(table.rows, file.name)]
        by_blade = _by_blade(read)
        shelf = GradeShelf.of(library(own))
        claimed = shelf.claimed(claim, "--claim") if claim else None
        asked = [(own_shots, claimed) for own_shots in by_blade.values()]
        found = dict(zip(by_blade, judge_all(asked, shelf, None), strict=True))
    if as_json:
        answers = [assay_json(blade, each) for blade, each in found.items()]
        answer = answers[0] if len(answers) == 1 else answers
        sys.stdout.write(json.dumps(answer, ensure_ascii=False, indent=2, allow_nan=False) + "\n")
        return
    for note in table.notes:
        sys.stderr.write(f"{note}\n")
    _print(found)


def _own_grades(path: Path) -> list[Grade]:
    (file,) = load([path])
    found, faults, _ = read_grades(file.name, file.data)
    faults.refuse()
    return found


def _by_blade(shots: list[Shot]) -> dict[str, list[Shot]]:
    found: dict[str, list[Shot]] = {}
    for shot in shots:
        found.setdefault(shot.blade_id, []).append(shot)
    return found


def _print(found: Mapping[str, Assay]) -> None:
    console = Console(soft_wrap=True)
    for blade, each in found.items():
        console.print(f"{blade}: {verdict_sentence(each)}", markup=False, highlight=False)
        for line in (suspicion_words(each), *map(outlier_words, each.outliers)):
            if line:
                console.print(line, markup=False, highlight=False)
        for line in settling_lines(each.settlings):
            console.print(line, markup=False, highlight=False)
        console.print(normalised_words(each), markup=False, highlight=False)
        console.print(_means(each))
        console.print(_candidates(each))


def _means(each: Assay) -> Table:
    table = Table("element", "mean of the shots", "shots")
    for mean in each.blade.means:
        table.add_row(mean.element, mean_words(mean), str(mean.shots))
    return table


def _candidates(each: Assay) -> Table:
    table = Table("grade", "weight of evidence", "", "outside its range")
    best = max((c.weight for c in each.candidates), default=0.0)
    for candidate in each.candidates[:_LINES]:
        out = ", ".join(f"{d.element} {d.z:+.1f}" for d in candidate.excluded_by[:3])
        share = f"{100 * candidate.weight:.0f} %" if candidate.is_in else ""
        table.add_row(candidate.grade.name, share, weight_words(candidate, best), out)
    return table
