"""The server killed in the middle of every kind of write that names its id, again and again."""

import random
import shutil
import time
from pathlib import Path
from tempfile import mkdtemp

from tests.helpers.killing import survive, undisturbed
from tests.helpers.ledger import WRITES
from tests.serving import Served

KILLS = 200


def report() -> None:
    """At least so many kills; an assertion says what was lost, halved or doubled."""
    folder = Path(mkdtemp())
    expected = undisturbed(folder / "undisturbed")
    kills = stored = 0
    start = time.monotonic()
    while kills < KILLS:
        served = Served(folder / f"killed-{kills}")
        try:
            stored += survive(served, expected, set(range(len(WRITES))), random.Random(kills))
        finally:
            served.kill()
        kills += len(WRITES)
    shutil.rmtree(folder, ignore_errors=True)
    print(
        f"\n{kills} kills in {len(WRITES)} kinds of writes: nothing lost, halved or doubled;"
        f" {stored} were stored when the server died ({time.monotonic() - start:.0f} s)"
    )
