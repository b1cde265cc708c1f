"""`kessik serve` and `kessik demo`."""

import sys
from datetime import UTC, datetime
from pathlib import Path
from typing import Annotated

import typer
import uvicorn

from kessik.api.app import create_app
from kessik.cli.application import app, data_folder
from kessik.demo.scenario import TRIAL_ID, build
from kessik.store.database import Database
from kessik.store.queries.trials import find_trial

HOST = "127.0.0.1"
PORT = 8737

Port = Annotated[int, typer.Option(help="Port on this machine.")]
Folder = Annotated[Path | None, typer.Option("--data", help="Data folder (default: this user's).")]


@app.command()
def serve(data: Folder = None, port: Port = PORT) -> None:
    """Serve the bench on this machine."""
    _run(Database(data_folder(data)), port)


@app.command()
def demo(data: Folder = None, port: Port = PORT) -> None:
    """Serve with the demo trial, built by the virtual bench, in a data folder of its own."""
    database = Database(data or data_folder(None) / "demo")
    with database.read() as session:
        built = find_trial(session, TRIAL_ID) is not None
    if not built:
        sys.stdout.write("Building the demo trial on the virtual bench ...\n")
        build(database, datetime.now(UTC).astimezone())
    _run(database, port)


def _run(database: Database, port: int) -> None:
    sys.stdout.write(f"Kessik is at http://{HOST}:{port}  (data in {database.folder}; stop with Ctrl-C)\n")
    sys.stdout.flush()
    uvicorn.run(create_app(database), host=HOST, port=port, log_level="warning")
