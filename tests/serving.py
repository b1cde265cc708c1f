"""Servers for tests that need one: a process of its own that can be killed, or a thread, which is
there at once.
"""

import socket
import subprocess
import sys
import threading
import time
from pathlib import Path

import httpx2
import uvicorn

from kessik.api.app import create_app
from kessik.store.database import Database
from tests.conftest import BenchHand


def free_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


def start_server(folder, port, command="serve", options=()):
    """Start `kessik serve` or `kessik demo` and wait until it answers."""
    program = str(Path(sys.executable).parent / "kessik")
    server = subprocess.Popen(
        [program, command, "--data", str(folder), "--port", str(port), *options],
        stdout=subprocess.DEVNULL,
    )
    deadline = time.monotonic() + 120
    while time.monotonic() < deadline:
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                return server
        if server.poll() is not None:
            break
        time.sleep(0.05)
    raise TimeoutError(f"kessik {command} does not answer on port {port}")


class Served:
    """A server that can be stopped and started again over the same data."""

    def __init__(self, folder, command="serve", options=()):
        self.folder, self.command, self.options, self.port = folder, command, options, free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self):
        self.process = start_server(self.folder, self.port, self.command, self.options)

    def hand(self):
        """A tester with a device of their own at this server."""
        return BenchHand(httpx2.Client(base_url=self.address, timeout=30))

    def kill(self):
        self.process.kill()
        self.process.wait()


class ServedHere(Served):
    """The same application in a thread: nothing has to be imported anew, but it cannot be killed in
    mid-stroke.
    """

    def __init__(self, folder, around=lambda app: app, **settings):
        self.around, self.settings = around, settings
        super().__init__(folder)

    def start(self):
        self.database = Database(self.folder, hurried=True)
        app = self.around(create_app(self.database))
        settings = uvicorn.Config(app, port=self.port, log_level="error", **self.settings)
        self.server = uvicorn.Server(settings)
        self.thread = threading.Thread(target=self.server.run, daemon=True)
        self.thread.start()
        deadline = time.monotonic() + 30
        while not self.server.started:
            assert time.monotonic() < deadline, "the server does not start"
            time.sleep(0.01)

    def kill(self):
        self.server.force_exit = self.server.should_exit = True
        self.thread.join(timeout=10)
        self.database.close()
