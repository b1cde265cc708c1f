"""How the command line refuses, and what it is handed."""

import sys
import traceback
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from tempfile import gettempdir

import typer
from platformdirs import user_data_path

from kessik.core.errors import KessikError, RefusedFileError
from kessik.core.limits import LIMITS
from kessik.interchange.named_files import NamedFile


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
        if error.count > len(error.faults):
            sys.stderr.write(
                f"and {error.count - len(error.faults)} more; {error.count} faults in all\n"
            )
        raise typer.Exit(1) from error
    except KessikError as error:
        sys.stderr.write(f"{error.message}\n")
        raise typer.Exit(1) from error


def said_plainly(error: Exception) -> str:
    """What went wrong, in one line for a tester; what nobody foresaw is written whole into a file
    that is named.
    """
    if isinstance(error, KessikError):
        return error.message
    from kessik.store.failures import storage_error

    meant = storage_error(error)
    if meant is not None:
        return meant.message
    if isinstance(error, OSError) and error.strerror:
        return f"{error.filename}: {error.strerror}" if error.filename else error.strerror
    report = Path(gettempdir()) / "kessik-error.txt"
    with suppress(OSError):
        report.write_text("".join(traceback.format_exception(error)), encoding="utf-8")
    return f"Kessik failed unexpectedly ({type(error).__name__}); the details are in {report}"


def load(paths: list[Path]) -> list[NamedFile]:
    """Files by name; one that cannot be opened ends the command with exit 1."""
    files = []
    for path in paths:
        try:
            size = path.stat().st_size
            if not path.is_file():
                sys.stderr.write(f"{path}: cannot be opened: it is not a file\n")
                raise typer.Exit(1)
            if size > LIMITS["file_mb"].most * 1e6:
                sys.stderr.write(
                    f"{path.name}:1: {LIMITS['file_mb'].says(f'{size / 1e6:.0f}')}: split it by"
                    " trial\n"
                )
                raise typer.Exit(1)
            files.append(NamedFile(path.name, path.read_bytes()))
        except OSError as error:
            sys.stderr.write(f"{path}: cannot be opened: {error.strerror}\n")
            raise typer.Exit(1) from error
    return files
