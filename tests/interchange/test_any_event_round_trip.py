"""Whatever the bench takes can be folded, shown, exported, and imported again as the same
checks.
"""

import io
import zipfile
from uuid import uuid4

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from kessik.core.protocols.entries import is_plain
from tests.conftest import BenchHand
from tests.helpers.payloads import payloads

FEW = settings(
    max_examples=15, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
KINDS = st.sampled_from(["cut", "reading", "outcome", "note", "spoiled", "pause", "resume"])
EVENTS = st.lists(
    KINDS.flatmap(lambda kind: st.tuples(st.just(kind), payloads(kind))), min_size=1, max_size=12
)
NOTES = st.text(max_size=40).filter(is_plain)


def checks(client, run):
    return [
        (c["count"], c["kind"], c["force_gf"], c["value"], c["outcome"], c["struck"])
        for c in client.get(f"/api/runs/{run}").json()["state"]["checks"]
    ]


def runs_of(client, trial):
    return [
        run["run_id"] if "run_id" in run else run["id"] for run in trial_of(client, trial)["runs"]
    ]


def trial_of(client, trial):
    return next(t for t in client.get("/api/today").json()["trials"] if t["trial"]["id"] == trial)


@FEW
@given(EVENTS, NOTES)
def test_what_the_bench_takes_goes_out_and_comes_back(client, events, note):
    hand = BenchHand(client)
    ((_, edge),) = hand.make_trial(f"A{uuid4()}"[:20], schedule="every", every=4, question=note)
    run, count = hand.start(edge), 0.0
    for kind, payload in events:
        answer = hand.send(run, kind, payload, at=count)
        assert answer.status_code in (200, 409, 422)
        count = client.get(f"/api/runs/{run}").json()["state"]["count"]
    assert client.get(f"/api/runs/{run}").json()["state"]["not_understood"] == 0
    assert client.get(f"/api/runs/{run}/log.csv").status_code == 200
    before = checks(client, run)
    if not before:
        return
    archive = zipfile.ZipFile(io.BytesIO(client.get(f"/api/trials/{hand.trial}/files").content))
    files = [("files", (name, archive.read(name))) for name in archive.namelist()]
    answer = client.post("/api/imports", files=files)
    assert answer.status_code == 200, answer.text
    (again,) = runs_of(client, answer.json()["trials"][0]["id"])
    assert checks(client, again) == before
