"""The commands by name: listing them loads none, and asking for one loads what it needs."""

import gc
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import dataclass
from importlib import import_module

import typer
from typer.core import TyperCommand, TyperGroup


@dataclass(frozen=True)
class Listed:
    """A command as it is listed: its module of `kessik.cli`, and what it does."""

    module: str
    does: str


AT_THE_BENCH, FROM_FILES = "At the bench", "Answers from files"
IN_AND_OUT, CARE = "Trials in and out", "Care of the data"
JOBS: Mapping[str, Mapping[str, Listed]] = {
    AT_THE_BENCH: {
        "demo": Listed(
            "serving",
            "Serve with the demo trial, built by the virtual bench, in a data folder of its own.",
        ),
        "serve": Listed(
            "serving",
            "Serve the bench on this machine, or with --lan to paired devices of the local"
            " network, too.",
        ),
    },
    FROM_FILES: {
        "analyse": Listed("trial_files", "Lives, blades and comparisons of a series."),
        "next-check": Listed(
            "trial_files",
            "Where to check an unfinished run next: the last run of the file, by the adaptive"
            " rule.",
        ),
        "assay": Listed("assays", "What steel it is, as far as shots of an analyser can tell."),
        "standings": Listed("standings", "Where each blade stands among all that were ever cut."),
        "gauge": Listed(
            "gauge", "Repeatability and reproducibility of an instrument, a line or a hand."
        ),
        "rust": Listed("rust", "How much of a blade has rusted, measured in a photograph."),
    },
    IN_AND_OUT: {
        "import": Listed(
            "stored_files",
            "Bring trials in from files or packages, or blades and edges onto the shelf; all or"
            " none.",
        ),
        "export": Listed("stored_files", "Write a trial as series, runs, blades and edges files."),
        "package": Listed(
            "packages",
            "Write trials with blades, assays and soaks as one package for another folder.",
        ),
        "report": Listed(
            "reports",
            "Write trials as a printable report (PDF, HTML) and a workbook (XLSX), with charts"
            " beside.",
        ),
    },
    CARE: {
        "backup": Listed(
            "data_care",
            "Copy the database and its pictures into the backups folder beside it; the server may"
            " keep running.",
        ),
        "restore": Listed(
            "data_care",
            "Restore a backup in place of the database; the data it replaces is saved aside, and"
            " nothing is overwritten.",
        ),
        "check": Listed(
            "data_care",
            "Check a data folder: whether its database and its pictures are whole, and what of it"
            " can be read. Changes nothing, unless it is to heal.",
        ),
        "manual": Listed("manual", "Print this program's manual page, for man."),
    },
}
"""All commands by the job they are for."""
COMMANDS = {name: command for own in JOBS.values() for name, command in own.items()}
_JOB_OF = {name: job for job, own in JOBS.items() for name in own}


class CommandsAsAsked(TyperGroup):
    """A group that knows its commands by name and loads one when it is run."""

    def list_commands(self, _ctx: object) -> list[str]:
        return list(COMMANDS)

    def get_command(self, _ctx: object, cmd_name: str) -> TyperCommand | None:
        known = COMMANDS.get(cmd_name)
        if known is None:
            return None
        return TyperCommand(cmd_name, help=known.does, rich_help_panel=_JOB_OF[cmd_name])

    def resolve_command(  # type: ignore[override]  # Typer does not export its context's base
        self, ctx: typer.Context, args: list[str]
    ) -> tuple[str | None, TyperCommand | None, list[str]]:
        name, _, rest = super().resolve_command(ctx, args)
        return name, loaded(name) if name in COMMANDS else None, rest


@contextmanager
def loading() -> Iterator[None]:
    """Nothing that is loaded inside becomes garbage, and looking for it would cost a tenth."""
    gc.disable()
    try:
        yield
        gc.freeze()
    finally:
        gc.enable()


def loaded(name: str) -> TyperCommand:
    """The command itself, with its module."""
    with loading():
        module = import_module(f"kessik.cli.{COMMANDS[name].module}")
    found = typer.main.get_command(module.app)
    command = found.commands[name] if isinstance(found, TyperGroup) else found
    assert isinstance(command, TyperCommand)
    return command
