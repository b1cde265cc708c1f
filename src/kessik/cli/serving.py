"""`kessik serve` and `kessik demo`."""

import socket
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
Lan = Annotated[bool, typer.Option("--lan", help="Answer paired devices of the local network, too.")]
Address = Annotated[str | None, typer.Option(help="This machine's address in the local network (default: found).")]
Folder = Annotated[Path | None, typer.Option("--data", help="Data folder (default: this user's).")]


@app.command()
def serve(data: Folder = None, port: Port = PORT, lan: Lan = False, address: Address = None) -> None:
    """Serve the bench on this machine, or with --lan to paired devices of the local network, too."""
    _run(Database(data_folder(data)), port, _lan_address(lan, address))


@app.command()
def demo(data: Folder = None, port: Port = PORT, lan: Lan = False, address: Address = None) -> None:
    """Serve with the demo trial, built by the virtual bench, in a data folder of its own."""
    database = Database(data or data_folder(None) / "demo")
    with database.read() as session:
        built = find_trial(session, TRIAL_ID) is not None
    if not built:
        sys.stdout.write("Building the demo trial on the virtual bench ...\n")
        build(database, datetime.now(UTC).astimezone())
    _run(database, port, _lan_address(lan, address))


def _lan_address(lan: bool, given: str | None) -> str | None:
    """This machine's address in the local network, as given or as its routes tell; no packet is sent to find it."""
    if not lan and given is None:
        return None
    if given is not None:
        return given
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("198.51.100.1", 9))  # an address kept for documentation (RFC 5737)
            found: str = probe.getsockname()[0]
        except OSError as error:
            sys.stderr.write("No local network was found; name this machine's address with --address.\n")
            raise typer.Exit(2) from error
    return found


def _listening(host: str, port: int) -> socket.socket:
    """A listening socket that names its protocol: only then does asyncio send small answers at once."""
    made = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    made.bind((host, port))
    made.listen()
    return made


def _run(database: Database, port: int, lan_address: str | None) -> None:
    hosts = [HOST, *([lan_address] if lan_address else [])]
    try:
        sockets = [_listening(host, port) for host in hosts]
    except OSError as error:
        sys.stderr.write(f"Cannot listen on {' and '.join(hosts)}, port {port}: {error.strerror}\n")
        raise typer.Exit(2) from error
    sys.stdout.write(f"Kessik is at http://{HOST}:{port}  (data in {database.folder}; stop with Ctrl-C)\n")
    if lan_address:
        sys.stdout.write(f"Paired devices find it at http://{lan_address}:{port}; pair them under Devices.\n")
    sys.stdout.flush()
    settings = uvicorn.Config(
        create_app(database, lan_address=lan_address), log_level="warning", timeout_graceful_shutdown=1
    )
    uvicorn.Server(settings).run(sockets=sockets)
