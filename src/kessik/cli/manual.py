"""`kessik manual`: the manual page, from what the commands say of themselves."""

import sys
from collections.abc import Iterator
from importlib.metadata import version

import typer
from typer.core import TyperCommand

from kessik.cli.commands import JOBS, loaded

app = typer.Typer()


@app.command("manual")
def manual_command() -> None:
    """Print this program's manual page, for man."""
    sys.stdout.write(manual())


def manual() -> str:
    """The manual page in the macros of man(7)."""
    return "\n".join(_lines()) + "\n"


def _lines() -> Iterator[str]:
    yield f'.TH KESSIK 1 "" "Kessik {version("kessik")}"'
    yield from (".SH NAME", "kessik \\- the bench companion of a steel tester")
    yield from (".SH SYNOPSIS", ".B kessik", "COMMAND [OPTIONS] ...")
    yield ".SH DESCRIPTION"
    yield _plain(
        "Kessik counts cut series, says when to check, fits the curves and tells how sure the"
        " answer is. It runs on one machine, without a network."
    )
    for job, commands in JOBS.items():
        yield f".SH {job.upper()}"
        for name in commands:
            yield from _command(name, loaded(name))
    yield ".SH EXIT STATUS"
    yield _plain("0 where it is done, 1 where the input was read and refused, 2 for wrong usage.")


def _command(name: str, command: TyperCommand) -> Iterator[str]:
    context = typer.Context(command, info_name=f"kessik {name}")
    yield f'.SS "{_plain(" ".join([f"kessik {name}", *command.collect_usage_pieces(context)]))}"'
    yield _plain(" ".join((command.help or "").split()))
    for parameter in command.params:
        record = parameter.get_help_record(context)
        if record and "--help" not in parameter.opts:
            yield from (".TP", f".B {_plain(record[0])}", _plain(" ".join(record[1].split())))


def _plain(text: str) -> str:
    """Text that no macro takes for its own."""
    escaped = text.replace("\\", "\\e").replace("-", "\\-")
    return f"\\&{escaped}" if escaped.startswith((".", "'")) else escaped
