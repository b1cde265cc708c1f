"""A real server of its own for tests that need one."""

import socket
import subprocess
import sys
import time
from pathlib import Path


def free_port():
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return probe.getsockname()[1]


def start_server(folder, port, command="serve", options=()):
    """Start `kessik serve` or `kessik demo` and wait until it answers."""
    program = str(Path(sys.executable).parent / "kessik")
    server = subprocess.Popen(
        [program, command, "--data", str(folder), "--port", str(port), *options], stdout=subprocess.DEVNULL
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
