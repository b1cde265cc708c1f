"""`kessik package`: trials with all that belongs to them in one file; `import` brings it in."""

import sys
from contextlib import ExitStack
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Annotated

import typer

from kessik.cli.options import Folder
from kessik.cli.refusals import data_folder, refusing
from kessik.core.errors import UnknownError
from kessik.core.packages import HIDDEN, Hidden
from kessik.core.words.packages import brought_sentences
from kessik.services.clock import now
from kessik.services.packages.bringing import bring_package
from kessik.services.packages.opening import open_here
from kessik.services.packages.writing import SUFFIX, PackageWish, name_maker, write_package
from kessik.store.database import Database
from kessik.store.queries.trials import all_trials

app = typer.Typer()


def is_package(path: Path) -> bool:
    """Whether a file is a package by its name."""
    return path.name.lower().endswith(SUFFIX)


@app.command("package")
def package_command(
    out: Annotated[
        Path, typer.Argument(help=f"The file to write, such as raft{SUFFIX}.", show_default=False)
    ],
    trials: Annotated[
        list[str] | None,
        typer.Argument(help="Ids or names of trials; all where none is named.", show_default=False),
    ] = None,
    data: Folder = None,
    tester: Annotated[
        str,
        typer.Option(help="Your name; given once, it is remembered.", show_default=False),
    ] = "",
    leave_out: Annotated[
        list[str] | None,
        typer.Option(help="owners, prices or notes; may be given again.", show_default=False),
    ] = None,
    pictures: Annotated[bool, typer.Option(help="Pictures, too.")] = False,
) -> None:
    """Write trials with blades, assays and soaks as one package for another folder."""
    hidden = hidden_of(leave_out)
    path = out if is_package(out) else out.with_name(f"{out.name}{SUFFIX}")
    with refusing(), Database(data_folder(data)) as database:
        if tester:
            name_maker(database, tester)
        wish = PackageWish(trial_ids(database, trials or []), hidden, pictures)
        names = write_package(database, wish, path, now())
    trials_in = "1 trial" if len(names) == 1 else f"{len(names)} trials"
    sys.stdout.write(f"{path}: {trials_in}\n")


def import_packages(paths: list[Path], data: Path | None, *, are_mine: bool) -> None:
    """Bring packages in, one after the other, and say what each brought."""
    with refusing(), Database(data_folder(data)) as database:
        for path in paths:
            brought = bring_package(database, path, path.name, is_mine=are_mine)
            for line in brought_sentences(brought):
                sys.stdout.write(f"{line}\n")


def folder_of(path: Path, stack: ExitStack) -> Path:
    """A package as a folder of its own, for as long as the stack lasts."""
    folder = Path(stack.enter_context(TemporaryDirectory(prefix="kessik-package-")))
    open_here(path, folder, path.name)
    return folder


def hidden_of(leave_out: list[str] | None) -> tuple[Hidden, ...]:
    """What is to be left out; a word that is none ends the program."""
    odd = [each for each in leave_out or () if each not in HIDDEN]
    if odd:
        sys.stderr.write(f"--leave-out {odd[0]}: not one of {', '.join(HIDDEN)}\n")
        raise typer.Exit(2)
    return tuple(each for each in HIDDEN if each in (leave_out or ()))


def trial_ids(database: Database, named: list[str]) -> tuple[str, ...]:
    """The ids of trials by id or name, all where none is named; UnknownError for one that is not
    there.
    """
    with database.read() as session:
        trials = all_trials(session)
    found = [] if named else [trial.id for trial in reversed(trials)]
    for each in named:
        trial = next((t for t in trials if each in (t.id, t.name)), None)
        if trial is None:
            raise UnknownError(f"there is no trial with the id or name {each!r}")
        found.append(trial.id)
    return tuple(found)
