"""Ten minutes of everything at once: taps with five followers, beside sheets, pictures, undos and
copies; and the server's memory after warm-up and at the end.
"""

import io
import json
import threading
import time
from collections.abc import Callable
from itertools import cycle
from pathlib import Path
from uuid import uuid4

import httpx2
import numpy as np
from PIL import Image

from benchmarks.bench_log import Client, Follower, _make_run, _tap
from benchmarks.intake import _Serving

SECONDS, WARM_UP_S, FOLLOWERS, ROWS, READINGS = 600.0, 60.0, 5, 2000, 20
PICTURES, TAP_EVERY_S = 30, 0.1
PAGES = ("today", "shelf", "soaks", "bin", "methods")


def report(seconds: float = SECONDS) -> None:
    """How long a tap takes, and what the server's processes hold."""
    with _Serving() as (call, port, pid):
        bench = _Bench(port, time.monotonic() + seconds)
        run, device = _make_run(call), str(uuid4())
        followers = [Follower(port, run) for _ in range(FOLLOWERS)]
        workers = [
            threading.Thread(target=bench.repeat, args=(work, every_s), daemon=True)
            for work, every_s in (
                (bench.sheet_and_undo, 5.0),
                (bench.picture, 5.0),
                (bench.pages, 0.5),
                (lambda: bench.post("backups"), 30.0),
            )
        ]
        for worker in workers:
            worker.start()
        taps, memory_mb = [], []
        tap = Client(port)
        while time.monotonic() < bench.until:
            body, start = _tap(device, len(taps)), time.perf_counter()
            tap("PUT", f"/api/runs/{run}/events/{uuid4()}", body)
            taps.append(1e3 * (time.perf_counter() - start))
            memory_mb.append(_memory_mb(pid))
            time.sleep(TAP_EVERY_S)
        for worker in workers:
            worker.join()
        settled_mb = _memory_mb(pid)
        told = sum(max(f.heard, default=0) == len(taps) for f in followers)
        _print(seconds, taps, memory_mb, settled_mb, told, bench.done)


def _print(seconds, taps, memory_mb, settled_mb, told, done) -> None:
    p50, p99 = np.percentile(taps, [50, 99])
    warm = memory_mb[: max(1, round(len(memory_mb) * min(0.5, WARM_UP_S / seconds)))]
    warm_mb = float(np.median(warm[-50:]))
    counts = ", ".join(f"{count} {what}" for what, count in sorted(done.items()))
    print(f"\n{seconds:.0f} s of mixed use, {told} of {FOLLOWERS} followers told of all: {counts}")
    print(
        f"  {len(taps)} taps: p50 {p50:.0f} ms, p99 {p99:.0f} (wanted: <= 60), longest"
        f" {max(taps):.0f} (wanted: <= 250); {sum(t > 100 for t in taps)} above 100 ms"
    )
    print(
        f"  memory {warm_mb:.0f} MB after warm-up, {settled_mb:.0f} at the end, ratio"
        f" {settled_mb / warm_mb:.2f} (wanted: <= 1.3); {max(memory_mb):.0f} at most"
    )


class _Bench:
    """What other people do meanwhile."""

    def __init__(self, port: int, until: float) -> None:
        self.until, self.done = until, {}
        self._client = httpx2.Client(base_url=f"http://127.0.0.1:{port}/api/", timeout=120)
        self.soak, self.pictures = self._make_soak(), cycle(_pictures())

    def repeat(self, work: Callable[[], object], every_s: float) -> None:
        while time.monotonic() < self.until:
            work()
            time.sleep(every_s)

    def post(self, path: str, **sent):
        return self._counted(path.split("/")[0], self._client.post(path, **sent))

    def _counted(self, what: str, answer):
        assert answer.is_success, (what, answer.text[:300])
        self.done[what] = self.done.get(what, 0) + 1
        return answer

    def sheet_and_undo(self) -> None:
        """A sheet of results in, as a trial of its own, and taken back."""
        mark = uuid4().hex[:6]
        read = (divmod(n, READINGS) for n in range(ROWS))
        lines = (f"{mark}{r % 20};{r // 20 + 1};{n};{150 + 9 * n + r % 7}" for r, n in read)
        text = "\n".join(["Knife;Edge;Cuts;Force (gf)", *lines])
        file = {"file": ("old.csv", text.encode())}
        seen = self.post("sheet-previews", files=file).json()
        form = {"reading": json.dumps(seen["reading"]), "name": mark, "import_id": str(uuid4())}
        brought = self.post("sheet-imports", files=file, data=form)
        change = brought.headers["kessik-change"].split()[0]
        self.post(f"changes/{change}/undone")

    def picture(self) -> None:
        """A picture of 12 megapixels onto the time line of a soak."""
        files = [("photos", ("a.jpg", next(self.pictures)))]
        self.post(f"soaks/{self.soak}/pictures", files=files)

    def pages(self) -> None:
        """The places of the application."""
        for page in PAGES:
            self._counted("pages", self._client.get(page))

    def _make_soak(self) -> str:
        methods = {m["key"]: m for m in self._client.get("soak-methods").json()}
        soak = f"soak-{uuid4()}"
        body = {"name": "Brine", "question": "Which?", "factor": "steel"}
        body["method"] = methods["brine_overnight"]
        body["coupons"] = [{"id": f"{soak}-a", "name": "A"}]
        made = self._client.put(f"soaks/{soak}", json=body)
        assert made.is_success, made.text
        begun = {"at_utc": "2026-05-04T08:00:00+00:00"}
        assert self._client.put(f"soaks/{soak}/started", json=begun).is_success
        return soak


def _pictures() -> list[bytes]:
    """Pictures of twelve megapixels, made before anything is timed."""
    rng = np.random.default_rng(1)
    found = []
    for _ in range(PICTURES):
        small = rng.integers(90, 200, (300, 400, 3), dtype=np.uint8)
        made = io.BytesIO()
        Image.fromarray(small).resize((4000, 3000), Image.Resampling.BILINEAR).save(made, "JPEG")
        found.append(made.getvalue())
    return found


def _memory_mb(pid: int) -> float:
    """What a process and those that it started hold, shared pages counted once."""
    held = 0
    for each in (pid, *_children(pid)):
        try:
            lines = Path(f"/proc/{each}/smaps_rollup").read_text().splitlines()
        except (FileNotFoundError, ProcessLookupError, PermissionError):
            continue
        held += sum(int(x.split()[1]) for x in lines if x.startswith("Pss:"))
    return held / 1024


def _children(pid: int) -> list[int]:
    found = []
    for task in Path(f"/proc/{pid}/task").iterdir():
        try:
            own = (task / "children").read_text().split()
        except FileNotFoundError:
            continue
        for child in map(int, own):
            found += [child, *_children(child)]
    return found
