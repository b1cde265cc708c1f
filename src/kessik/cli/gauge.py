"""`kessik gauge`: how good a gauge is, from a study of it."""

import json
import sys
from pathlib import Path
from typing import Annotated

import typer
from rich.console import Console
from rich.table import Table

from kessik.cli.options import Json
from kessik.cli.refusals import load, refusing
from kessik.core.gauge.study import COMPONENTS, GaugeStudy, study
from kessik.core.words.gauge import component_name, gauge_notes, gauge_sentences
from kessik.interchange.gauge_csv import gauge_json, read_gauge, readings_of

app = typer.Typer()


@app.command(name="gauge")
def gauge_command(
    file: Annotated[
        Path, typer.Argument(help="A *.gauge.csv file, one row a reading.", show_default=False)
    ],
    as_json: Json = False,
) -> None:
    """Repeatability and reproducibility of an instrument, a line or a hand."""
    with refusing():
        (given,) = load([file])
        table = read_gauge(given.name, given.data)
        table.faults.refuse()
        readings, unit = readings_of(table)
        found = study(readings)
    notes = [*table.notes, *gauge_notes(found)]
    if as_json:
        answer = gauge_json(found, unit, notes)
        sys.stdout.write(json.dumps(answer, ensure_ascii=False, indent=1, allow_nan=False) + "\n")
        return
    for note in notes:
        sys.stderr.write(f"{note}\n")
    _print(found, unit)


def _print(found: GaugeStudy, unit: str) -> None:
    squared = f"{unit}²" if unit else ""
    table = Table("source", f"variance, {squared}".rstrip(", "), "95 % interval", "% of variance")
    shown: dict[str, tuple[str, float]] = {
        component_name(name): (name, found.components[name]) for name in COMPONENTS
    }
    shown |= {"gauge": ("grr", found.grr), "all": ("total", found.total)}
    for label, (key, value) in shown.items():
        ends = found.intervals.get(key)
        told = f"{ends[0]:.4g} to {ends[1]:.4g}" if ends else ""
        share = f"{100 * value / found.total:.1f}" if found.total > 0 else ""
        table.add_row(label, f"{value:.4g}", told, share)
    console = Console(soft_wrap=True)
    console.print(table)
    for sentence in gauge_sentences(found, unit):
        console.print(sentence, markup=False, highlight=False)
