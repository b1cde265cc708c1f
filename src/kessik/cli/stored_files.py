"""`kessik import` and `export`: files into the store, and out of it."""

import sys
from pathlib import Path
from typing import Annotated

import typer

from kessik.cli.options import Dull, Folder, Keen
from kessik.cli.packages import import_packages, is_package
from kessik.cli.refusals import data_folder, load, refusing
from kessik.cli.trial_files import settings
from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import UnknownError
from kessik.core.protocols.methods import force_limit_rope
from kessik.interchange.data_package import FILE_NAME as PACKAGE
from kessik.services.clock import now
from kessik.services.files.imports import id_of_files, import_files
from kessik.services.files.trial_export import export_trial, slug
from kessik.store.database import Database
from kessik.store.queries.trials import all_trials

app = typer.Typer()


@app.command("import")
def import_command(
    files: Annotated[
        list[Path],
        typer.Argument(help="Series with the files beside them, or packages.", show_default=False),
    ],
    data: Folder = None,
    factor: str = "steel",
    keen: Keen = 300.0,
    dull: Dull = 400.0,
    mine: Annotated[
        bool, typer.Option(help="A package is one's own: an empty folder becomes its sender's.")
    ] = False,
) -> None:
    """Bring trials in from files or packages, or blades and edges onto the shelf; all or none."""
    packages = [path for path in files if is_package(path)]
    if packages:
        if len(packages) < len(files):
            sys.stderr.write("import packages separately from other files\n")
            raise typer.Exit(2)
        import_packages(packages, data, are_mine=mine)
        return
    with refusing():
        settings(keen, dull, factor, False)
        named, method = load(files), force_limit_rope(keen, dull, "every")
        with Database(data_folder(data)) as database:
            again = id_of_files(named)
            made = import_files(
                database, named, now(), MatchingRule(factor), method, import_id=again
            )
    if made.is_again:
        sys.stdout.write("These files were imported before; nothing was imported again.\n")
    on_shelf = [f"on the shelf: {', '.join(made.blades)}"] if made.blades else []
    for line in [*made.notes, *(f"{trial.id}  {trial.name}" for trial in made.trials), *on_shelf]:
        sys.stdout.write(f"{line}\n")


@app.command("export")
def export_command(
    trial: Annotated[str, typer.Argument(help="A trial's id or name.", show_default=False)],
    out: Annotated[Path, typer.Option(help="Folder to write to.")] = Path(),
    data: Folder = None,
) -> None:
    """Write a trial as series, runs, blades and edges files."""
    with refusing(), Database(data_folder(data)) as database:
        with database.read() as session:
            found = next((t for t in all_trials(session) if trial in (t.id, t.name)), None)
        if found is None:
            raise UnknownError(f"there is no trial with the id or name {trial!r}")
        files = export_trial(database, found.id)
    out.mkdir(parents=True, exist_ok=True)
    for name, text in files.items():
        if name == PACKAGE:  # a folder may take several trials
            name = f"{slug(found.name)}.{PACKAGE}"
        (out / name).write_text(text, encoding="utf-8", newline="")
        sys.stdout.write(f"{out / name}\n")
