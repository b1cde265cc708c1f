"""The command line application and how it refuses."""

import sys
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

import typer
from platformdirs import user_data_path

from kessik.core.errors import KessikError, RefusedFileError
from kessik.services.trial_files import NamedFile

app = typer.Typer(no_args_is_help=True, add_completion=False, help="Kessik, the bench companion of a steel tester.")


def data_folder(given: Path | None) -> Path:
    """The data folder: as given, else the usual place for this user's data."""
    return given or user_data_path("kessik", appauthor=False)


@contextmanager
def refusing() -> Iterator[None]:
    """Print what is wrong, one line each, and exit 1."""
    try:
        yield
    except RefusedFileError as error:
        for fault in error.faults:
            sys.stderr.write(f"{fault}\n")
        raise typer.Exit(1) from error
    except KessikError as error:
        sys.stderr.write(f"{error.message}\n")
        raise typer.Exit(1) from error


def load(paths: list[Path]) -> list[NamedFile]:
    """Files by name; one that cannot be opened ends the command with exit 1."""
    files = []
    for path in paths:
        try:
            files.append(NamedFile(path.name, path.read_bytes()))
        except OSError as error:
            sys.stderr.write(f"{path}: cannot be opened: {error.strerror}\n")
            raise typer.Exit(1) from error
    return files
