"""`kessik serve`: what it says when it cannot, and the address it is found at in the network."""

import socket
import subprocess
import sys
from pathlib import Path

import httpx2

from tests.serving import free_port, start_server

KESSIK = str(Path(sys.executable).parent / "kessik")


def test_a_port_that_is_taken_is_said_in_one_line(tmp_path):
    with socket.create_server(("127.0.0.1", 0)) as taken:
        port = str(taken.getsockname()[1])
        called = [KESSIK, "serve", "--data", str(tmp_path), "--port", port]
        done = subprocess.run(called, capture_output=True, text=True, timeout=60, check=False)
    assert done.returncode == 2
    assert done.stderr.count("\n") == 1
    assert f"port {port}" in done.stderr


def test_only_with_an_address_is_the_network_answered(tmp_path):
    alone, open_port = free_port(), free_port()
    for port, options in ((alone, ()), (open_port, ("--address", "127.0.0.2"))):
        server = start_server(tmp_path / str(port), port, options=options)
        try:
            assert httpx2.get(f"http://127.0.0.1:{port}/api/pairing", timeout=60).json()[
                "open_to_network"
            ] is bool(options)
            with socket.socket() as probe:
                answered = probe.connect_ex(("127.0.0.2", port)) == 0
            assert answered is bool(options)
            if options:
                assert (
                    httpx2.get(f"http://127.0.0.2:{port}/api/today", timeout=60).status_code == 401
                )
        finally:
            server.kill()
            server.wait()
