"""The line-up of forty blades: the matching matrix in the core, and the screen from address to
interactive.
"""

import json
import time
import urllib.request
from pathlib import Path
from tempfile import TemporaryDirectory
from uuid import uuid4

import numpy as np
from tests.browser.chromium import chromium
from tests.serving import free_port, start_server

from benchmarks.speed import timed
from kessik.core.comparison.matching import BladeFacts, Fact, MatchingRule, match
from kessik.core.sharpening.settled import Settled

BLADES = 40


def _facts(rng: np.random.Generator) -> list[BladeFacts]:
    """Forty blades of which all fourteen variables are known, some out of tolerance."""
    words = {
        "grind": ("flat", "hollow"),
        "profile": ("straight", "belly"),
        "finish": ("satin", "polished"),
        "coating": ("none",),
        "grip": ("oak", "cord"),
    }
    blades = []
    for index in range(BLADES):
        edges = {
            "side_angle_deg": rng.normal(15, 0.4, 3).tolist(),
            "micro_bevel_side_deg": [0.0] * 3,
            "thickness_behind_edge_mm": rng.normal(0.37, 0.04, 3).tolist(),
            "final_abrasive_um": [Fact(1.0, kind="alumina")] * 3,
            "start_gf": [Fact(float(v), readings=2) for v in rng.normal(150, 15, 3)],
            "edge_length_mm": [96.0] * 3,
        }
        own = {name: Fact(str(rng.choice(choices))) for name, choices in words.items()}
        own["stock_mm"] = Fact(float(rng.normal(3, 0.2)))
        hardness = Fact(float(rng.normal(60, 1)))
        settled = [(number, Settled("settled", "")) for number in (3, 4, 5)]
        blades.append(
            BladeFacts(f"B{index}", "1.4034", hardness, (58, 62), edges, own=own, settled=settled)
        )
    return blades


def report() -> None:
    """Print both figures; the core's beside writing the same cells as JSON, the screen's beside a
    bare page.
    """
    facts = _facts(np.random.default_rng(7))
    rule = MatchingRule()
    cells = match(facts, rule)
    ours = np.median(timed(lambda: match(facts, rule), 60))
    plain = [cell.__dict__ for cell in cells]
    written = np.median(timed(lambda: json.loads(json.dumps(plain)), 60))
    print(f"\nMatching matrix, {BLADES} blades x 14 variables, one core")
    print(
        f"{1e3 * ours:.1f} ms (wanted: < 20); ratio to writing and reading its cells as JSON"
        f" {ours / written:.1f}"
    )
    _report_screen()


def _report_screen() -> None:
    with TemporaryDirectory(ignore_cleanup_errors=True) as folder, chromium() as driver:
        port = free_port()
        server = start_server(Path(folder), port)
        try:
            trial = _fill(f"http://127.0.0.1:{port}/api")
            address = f"http://127.0.0.1:{port}"
            bare = _until(driver, f"{address}/nowhere/at/all", "h1")
            # the second visit is what a tester meets: the program is loaded, the data is read anew
            times = [
                _until(
                    driver, f"{address}/trials/{trial}/line-up", "tbody tr:nth-child(40) td button"
                )
                for _ in range(5)
            ]
            took = float(np.median(times))
            print(
                f"Line-up screen of {BLADES} blades, address to the last row's buttons:"
                f" {1e3 * took:.0f} ms"
            )
            print(f"(wanted: < 1000); ratio to an empty page {took / bare:.1f}")
        finally:
            server.kill()


def _fill(api: str) -> str:
    def put(path: str, body: object) -> None:
        data = json.dumps(body).encode()
        request = urllib.request.Request(
            api + path, data, {"Content-Type": "application/json"}, method="PUT"
        )
        urllib.request.urlopen(request).close()

    trial = str(uuid4())
    put(f"/trials/{trial}", {"id": trial, "name": "Forty"})
    rng = np.random.default_rng(7)
    for index in range(BLADES):
        blade = str(uuid4())
        edges = [
            {
                "id": str(uuid4()),
                "number": n,
                "side_angle_deg": 15.0,
                "thickness_behind_edge_mm": 0.36,
            }
            for n in (1, 2, 3)
        ]
        hardness = float(np.round(rng.normal(60, 0.6), 1))
        own = {"hardness_hrc": hardness, "edge_length_mm": 96, "edges": edges}
        put(f"/trials/{trial}/blades/{blade}", {"id": blade, "code": f"B{index:02d}", **own})
        for quantity, words in (
            ("grind", "flat"),
            ("profile", "straight"),
            ("finish", "satin"),
            ("grip", "oak"),
        ):
            made = str(uuid4())
            put(
                f"/blades/{blade}/measurements/{made}",
                {"id": made, "quantity": quantity, "words": words},
            )
    return trial


def _until(driver, address: str, selector: str) -> float:
    start = time.perf_counter()
    driver.get(address)
    while not driver.execute_script(
        "return document.querySelector(arguments[0]) !== null", selector
    ):
        time.sleep(0.005)
    driver.execute_async_script("requestAnimationFrame(() => requestAnimationFrame(arguments[0]))")
    return time.perf_counter() - start
