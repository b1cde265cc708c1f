"""`kessik serve` and `kessik demo`."""

import logging
import signal
import socket
import sys
import webbrowser
from collections.abc import Iterator
from contextlib import contextmanager, nullcontext, suppress
from datetime import UTC, datetime
from logging.handlers import RotatingFileHandler
from pathlib import Path
from types import FrameType
from typing import TYPE_CHECKING, Annotated

import typer
import uvicorn

from kessik.api.read_timeouts import MOST_CONNECTIONS, PatientProtocol
from kessik.api.startup_gate import StartupGate
from kessik.cli.commands import loading
from kessik.cli.options import Folder
from kessik.cli.refusals import data_folder, refusing
from kessik.store.database import DATABASE_NAME, LOG_NAME, Database, make_folder
from kessik.store.folder_hold import holding
from kessik.store.swapping import settle

if TYPE_CHECKING:
    from fastapi import FastAPI

app = typer.Typer()

HOST = "127.0.0.1"
PORT = 8737
_TURN_S = 0.0002
"""How long one thread may compute while another has something to do: a tap waits for each
turn several times."""

Port = Annotated[int, typer.Option(help="Port on this machine.", min=1, max=65535)]
Lan = Annotated[
    bool, typer.Option("--lan", help="Answer paired devices of the local network, too.")
]
NoBrowser = Annotated[
    bool, typer.Option("--no-browser", help="Do not open the pages in this machine's browser.")
]
Address = Annotated[
    str | None, typer.Option(help="This machine's address in the local network (default: found).")
]


@app.command()
def serve(
    data: Folder = None,
    port: Port = PORT,
    lan: Lan = False,
    address: Address = None,
    no_browser: NoBrowser = False,
) -> None:
    """Serve the bench on this machine, or with --lan to paired devices of the local network,
    too.
    """
    _serve(data_folder(data), port, _lan_address(lan, address), no_browser, is_demo=False)


@app.command()
def demo(
    data: Folder = None,
    port: Port = PORT,
    lan: Lan = False,
    address: Address = None,
    no_browser: NoBrowser = False,
) -> None:
    """Serve with the demo trial, built by the virtual bench, in a data folder of its own."""
    folder = data or data_folder(None) / "demo"
    _serve(folder, port, _lan_address(lan, address), no_browser, is_demo=True)


def _serve(
    folder: Path, port: int, lan_address: str | None, no_browser: bool, *, is_demo: bool
) -> None:
    hosts = [HOST, *([lan_address] if lan_address else [])]
    with refusing():
        make_folder(folder)
        with holding(folder, f"http://{HOST}:{port}"):
            sockets = _sockets(hosts, port)
            found = settle(folder, DATABASE_NAME)
            if found:
                sys.stdout.write(f"{found[:1].upper()}{found[1:]}.\n")
            with _demo_in(folder) if is_demo else nullcontext(), Database(folder) as database:
                database.found_at_start = found
                if not no_browser and sys.stdout.isatty():
                    _open_browser(f"http://{HOST}:{port}")
                _run(database, sockets, port, lan_address)


def _open_browser(address: str) -> None:
    """Show the pages where somebody sits at this machine; they load as soon as it answers."""
    with suppress(webbrowser.Error):
        browser = webbrowser.get()
        if not isinstance(browser, webbrowser.GenericBrowser):  # one of the terminal would take it
            browser.open(address)


@contextmanager
def _demo_in(folder: Path) -> Iterator[None]:
    """The demo is there, or as much of it as a tester needs to begin with; the rest follows."""
    from kessik.demo.building import PARTS, build_first, filled_in

    today = datetime.now(UTC).astimezone()
    sys.stdout.write(f"Building the demo: {PARTS[0].says} ...\n")
    sys.stdout.flush()
    build_first(folder, today)
    with filled_in(folder, today):
        yield


def _lan_address(lan: bool, given: str | None) -> str | None:
    """This machine's address in the local network, as given or as its routes tell; no packet is
    sent to find it.
    """
    if not lan and given is None:
        return None
    if given is not None:
        return given
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe:
        try:
            probe.connect(("198.51.100.1", 9))  # an address kept for documentation (RFC 5737)
            found: str = probe.getsockname()[0]
        except OSError as error:
            sys.stderr.write(
                "No local network was found; name this machine's address with --address.\n"
            )
            raise typer.Exit(2) from error
    return found


def _sockets(hosts: list[str], port: int) -> list[socket.socket]:
    try:
        return [_listening(host, port) for host in hosts]
    except OSError as error:
        sys.stderr.write(f"Cannot listen on {' and '.join(hosts)}, port {port}: {error.strerror}\n")
        raise typer.Exit(2) from error


def _listening(host: str, port: int) -> socket.socket:
    """A listening socket that names its protocol: only then does asyncio send small answers at
    once.
    """
    made = socket.socket(socket.AF_INET, socket.SOCK_STREAM, socket.IPPROTO_TCP)
    made.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    made.bind((host, port))
    made.listen()
    return made


def _run(
    database: Database, sockets: list[socket.socket], port: int, lan_address: str | None
) -> None:
    """Serve until told to end, by Ctrl-C, SIGTERM or a closed terminal alike; the caller closes the
    database then.
    """
    _log_to(database.folder)
    sys.setswitchinterval(_TURN_S)
    failures: list[Exception] = []

    def failed(wrong: Exception) -> None:
        failures.append(wrong)
        server.should_exit = True

    settings = uvicorn.Config(
        StartupGate(lambda: _whole(database, lan_address), failed),
        log_config=None,
        access_log=False,
        timeout_graceful_shutdown=1,
        http=PatientProtocol,
        limit_concurrency=MOST_CONNECTIONS,
    )
    server = uvicorn.Server(settings)

    def end(_number: int, _frame: FrameType | None) -> None:
        # uvicorn raises what it caught once more when it has ended: that must not end this process
        # in mid-air
        server.should_exit = True

    for name in ("SIGINT", "SIGTERM", "SIGHUP"):
        if hasattr(signal, name):
            signal.signal(getattr(signal, name), end)
    sys.stdout.write(
        f"Kessik is at http://{HOST}:{port}  (data in {database.folder}; stop with Ctrl-C)\n"
    )
    if lan_address:
        sys.stdout.write(
            f"Paired devices find it at http://{lan_address}:{port}; pair them under Devices.\n"
        )
    sys.stdout.flush()
    server.run(sockets=sockets)
    if failures:
        raise failures[0]


def _whole(database: Database, lan_address: str | None) -> "FastAPI":
    """The application with all that it needs; the pages are being read while it is loaded."""
    with loading():
        from kessik.api.app import create_app

    return create_app(database, lan_address=lan_address, at_once=False)


def _log_to(folder: Path) -> None:
    """What went wrong is written beside the data, for whoever mends it; the terminal stays
    readable.
    """
    handler = RotatingFileHandler(
        folder / LOG_NAME, maxBytes=1_000_000, backupCount=1, encoding="utf-8"
    )
    handler.setFormatter(logging.Formatter("%(asctime)s %(levelname)s %(name)s %(message)s"))
    logging.basicConfig(level=logging.WARNING, handlers=[handler], force=True)
    logging.captureWarnings(True)
