"""`kessik backup`, `restore` and `check`: the data folder kept, brought back and looked over."""

import json
import sys
from pathlib import Path
from typing import Annotated

import typer

from kessik.cli.options import Folder, Json
from kessik.cli.refusals import data_folder, refusing
from kessik.core.words.sentences import counted
from kessik.services.upkeep.upkeep import make_copy
from kessik.store import health, restoring
from kessik.store.backups import BY_HAND, second_failure
from kessik.store.contents import holds
from kessik.store.database import DATABASE_NAME, Database
from kessik.store.swapping import is_interrupted
from kessik.store.vetting import heal_pictures, spoiled_pictures, whole_in_backups

app = typer.Typer()


@app.command()
def backup(data: Folder = None) -> None:
    """Copy the database and its pictures into the backups folder beside it; the server may keep
    running.
    """
    with refusing(), Database(data_folder(data)) as database:
        made = make_copy(database, BY_HAND)
        second = second_failure(database.folder)
    sys.stdout.write(f"{made}\n{_holds_words(made)}\n")
    if second:
        sys.stdout.write(f"Not on the second disk: {second.why}.\n")


@app.command()
def restore(
    copy: Annotated[Path, typer.Argument(help="The backup to restore.", show_default=False)],
    data: Folder = None,
    look: Annotated[bool, typer.Option(help="Only say what it holds.")] = False,
) -> None:
    """Restore a backup in place of the database; the data it replaces is saved aside, and nothing
    is overwritten.
    """
    with refusing():
        if copy.is_file():
            sys.stdout.write(f"{_holds_words(copy)}\n")
        if look:
            return
        kept = restoring.restore(data_folder(data), copy)
    sys.stdout.write(f"Restored {copy}.\n")
    if kept is not None:
        sys.stdout.write(f"The data before is saved in {kept}.\n")


def _holds_words(path: Path) -> str:
    """What a copy holds, in a line."""
    found = holds(path)
    if found.wrong:
        return f"It is damaged: {found.wrong}."
    told = ((found.trials, "trial"), (found.runs, "run"), (found.events, "event"))
    said = ", ".join(counted(number, noun) for number, noun in told)
    last = f"; the last event of {found.last_event[:16].replace('T', ' ')} UTC"
    return f"It holds {said}{last if found.last_event else ''}."


@app.command()
def check(
    data: Folder = None,
    as_json: Json = False,
    heal: Annotated[
        bool, typer.Option(help="Bring spoiled and missing pictures back from the backups.")
    ] = False,
) -> None:
    """Check a data folder: whether its database and its pictures are whole, and what of it can be
    read. Changes nothing, unless it is to heal.
    """
    path = data_folder(data) / DATABASE_NAME
    with refusing():
        wrong = health.what_is_wrong(path) if path.is_file() else "there is no database"
        rows = health.readable_rows(path) if path.is_file() else {}
        spoiled = health.spoiled_events(path) if path.is_file() and not wrong else []
        missing = health.missing_pictures(path) if path.is_file() and not wrong else []
        unlike = spoiled_pictures(path) if path.is_file() and not wrong else []
        healed = heal_pictures(path.parent, [*missing, *unlike]) if heal else []
        missing, unlike = ([p for p in each if p not in healed] for each in (missing, unlike))
    if as_json:
        said = {
            "database": str(path),
            "whole": not wrong,
            "wrong": wrong,
            "readable": rows,
            "spoiled_events": spoiled,
            "missing_pictures": missing,
            "spoiled_pictures": unlike,
            "healed_pictures": healed,
        }
        sys.stdout.write(json.dumps(said, indent=2) + "\n")
    else:
        sys.stdout.write(f"{path}: {wrong or 'whole'}\n")
        if is_interrupted(path.parent):
            sys.stdout.write("  a restore was interrupted: start Kessik to settle it\n")
        for name, count in rows.items():
            sys.stdout.write(f"  {name}s that can be read: {count}\n")
        for position in spoiled:
            sys.stdout.write(f"  event {position} was changed since it was stored\n")
        for picture in missing:
            sys.stdout.write(f"  the picture {picture} is not in the folder\n")
        for picture in unlike:
            sys.stdout.write(f"  the picture {picture} was changed since it was kept\n")
        sys.stdout.write(_healed_words(path.parent, healed, [*missing, *unlike]))
    if wrong or spoiled or missing or unlike:
        raise typer.Exit(1)


def _healed_words(folder: Path, healed: list[str], left: list[str]) -> str:
    """What was brought back, or how to bring back what can be."""
    if healed:
        return f"  {counted(len(healed), 'picture')} brought back from the backups\n"
    whole = whole_in_backups(folder, left)
    if not whole:
        return ""
    pictures = counted(len(whole), "picture")
    return f"  {pictures} of them can be brought back: kessik check --heal --data {folder}\n"
