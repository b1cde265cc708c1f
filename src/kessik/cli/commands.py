"""The commands by name: listing them loads none, and asking for one loads what it needs."""

import gc
from collections.abc import Iterator
from contextlib import contextmanager
from importlib import import_module

import typer
from typer.core import TyperCommand, TyperGroup

COMMANDS = {
    "serve": (
        "serving",
        "Serve the bench on this machine, or with --lan to paired devices of the local network,"
        " too.",
    ),
    "demo": (
        "serving",
        "Serve with the demo trial, built by the virtual bench, in a data folder of its own.",
    ),
    "backup": (
        "data_care",
        "Copy the database and its pictures into the backups folder beside it; the server may keep"
        " running.",
    ),
    "restore": (
        "data_care",
        "Restore a backup in place of the database; the data it replaces is saved aside, and"
        " nothing is overwritten.",
    ),
    "check": (
        "data_care",
        "Check a data folder: whether its database and its pictures are whole, and what of it can"
        " be read. Changes nothing, unless it is to heal.",
    ),
    "analyse": ("trial_files", "Lives, blades and comparisons of a series."),
    "next-check": (
        "trial_files",
        "Where to check an unfinished run next: the last run of the file, by the adaptive rule.",
    ),
    "assay": ("assays", "What steel it is, as far as shots of an analyser can tell."),
    "standings": ("standings", "Where each blade stands among all that were ever cut."),
    "gauge": ("gauge", "Repeatability and reproducibility of an instrument, a line or a hand."),
    "rust": ("rust", "How much of a blade has rusted, measured in a photograph."),
    "import": (
        "stored_files",
        "Bring trials in from files or packages, or blades and edges onto the shelf; all or none.",
    ),
    "report": (
        "reports",
        "Write trials as a printable report, as HTML and PDF, with its charts beside it.",
    ),
    "package": (
        "packages",
        "Write trials with blades, assays and soaks as one package for another folder.",
    ),
    "export": ("stored_files", "Write a trial as series, runs, blades and edges files."),
}
"""By name: the module of `kessik.cli` whose `app` has the command, and what it does."""


class CommandsAsAsked(TyperGroup):
    """A group that knows its commands by name and loads one when it is run."""

    def list_commands(self, _ctx: object) -> list[str]:
        return list(COMMANDS)

    def get_command(self, _ctx: object, cmd_name: str) -> TyperCommand | None:
        known = COMMANDS.get(cmd_name)
        return None if known is None else TyperCommand(cmd_name, help=known[1])

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
        module = import_module(f"kessik.cli.{COMMANDS[name][0]}")
    found = typer.main.get_command(module.app)
    command = found.commands[name] if isinstance(found, TyperGroup) else found
    assert isinstance(command, TyperCommand)
    return command
