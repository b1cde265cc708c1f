"""`kessik backup`, `restore` and `check`: the data folder kept, brought back and looked over."""

import json
import sys
from pathlib import Path
from typing import Annotated

import typer

from kessik.cli.options import Folder, Json
from kessik.cli.refusals import data_folder, refusing
from kessik.store import health, restoring
from kessik.store.database import DATABASE_NAME, Database

app = typer.Typer()


@app.command()
def backup(data: Folder = None) -> None:
    """Copy the database into the backups folder beside it; a server may go on meanwhile."""
    with refusing(), Database(data_folder(data)) as database:
        made = database.back_up("by-hand")
    sys.stdout.write(f"{made}\n")


@app.command()
def restore(
    copy: Annotated[Path, typer.Argument(help="The backup to bring back.", show_default=False)],
    data: Folder = None,
) -> None:
    """Bring a backup back in the place of the database; what was there is kept aside, and nothing
    is overwritten.
    """
    with refusing():
        kept = restoring.restore(data_folder(data), copy)
    sys.stdout.write(f"Brought back {copy}.\n")
    if kept is not None:
        sys.stdout.write(f"What was there before is kept in {kept}.\n")


@app.command()
def check(data: Folder = None, as_json: Json = False) -> None:
    """Look a data folder over: whether its database is whole, and what of it can be read. Changes
    nothing.
    """
    path = data_folder(data) / DATABASE_NAME
    with refusing():
        wrong = health.what_is_wrong(path) if path.is_file() else "there is no database"
        rows = health.readable_rows(path) if path.is_file() else {}
        spoiled = health.spoiled_events(path) if path.is_file() and not wrong else []
    if as_json:
        said = {
            "database": str(path),
            "whole": not wrong,
            "wrong": wrong,
            "readable": rows,
            "spoiled_events": spoiled,
        }
        sys.stdout.write(json.dumps(said, indent=2) + "\n")
    else:
        sys.stdout.write(f"{path}: {wrong or 'whole'}\n")
        for name, count in rows.items():
            sys.stdout.write(f"  {name}s that can be read: {count}\n")
        for position in spoiled:
            sys.stdout.write(f"  event {position} was changed since it was stored\n")
    if wrong or spoiled:
        raise typer.Exit(1)
