"""Any trial goes out as files and comes in again with the same answers, paper and corrections
included.
"""

import io
import json
import zipfile
from itertools import accumulate, count
from pathlib import Path
from tempfile import TemporaryDirectory

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from kessik.api.views.answers import pages
from kessik.services.packages.bringing import bring_package
from kessik.services.trials.answers import Answers
from kessik.store.database import Database
from tests.helpers.paper import Paper

_trials = count()
LENGTHS = st.integers(5, 60)
STAGES = {
    "two_stage_board": ("fine", "working"),
    "paper_stop_rope": ("rough", "working"),
    "push_cut_board": ("deformation", "fine", "working"),
    "force_limit_rope": ("keen", "dull"),
}


@st.composite
def lives(draw, school):
    """What a line says of its stages: gone at, between, or still there; the last may be missing."""
    stages = STAGES[school]
    ends = draw(st.lists(LENGTHS, min_size=len(stages), max_size=len(stages)))
    if school != "two_stage_board":  # there a stage is the length after the one before
        ends = list(accumulate(ends))
    cells = {}
    for stage, end in zip(stages, ends, strict=True):
        width = draw(st.integers(1, 4))
        cells[stage] = draw(st.sampled_from([f"{end}", f"{end - width}-{end}"]))
    if draw(st.booleans()):
        cells[stages[-1]] = f">{ends[-1]}"
    if draw(st.booleans()):
        cells["check_every"] = str(draw(st.integers(1, 5)))
    return {"cells": cells, "readings": ""}


@st.composite
def tallies(draw):
    """Readings of force, one a line."""
    steps = draw(st.lists(st.integers(1, 25), min_size=3, max_size=9))
    forces = [150.0, *(150 * 1.01**total for total in accumulate(steps))]
    looks = "\n".join(f"{4 * n} {force:.0f}" for n, force in enumerate(forces))
    return {"cells": {}, "readings": looks}


@st.composite
def sheets(draw):
    """A school, and the lines of two blades with one to three edges each."""
    school = draw(st.sampled_from(sorted(STAGES)))
    line = tallies() if school == "force_limit_rope" and draw(st.booleans()) else lives(school)
    edges = draw(st.integers(1, 3))
    lines = []
    for edge in range(3, 3 + edges):
        for blade in "AB":
            drawn = draw(line)
            own = {"blade": blade, "edge": str(edge), "block": str(edge - 2)}
            if edge == 4 and draw(st.booleans()):
                own["verifies"] = "3"
            lines.append({**drawn, "cells": {**drawn["cells"], **own}})
    return school, lines


@pytest.mark.usefixtures("packages_opened_here")
@given(sheets(), st.lists(st.tuples(st.integers(0, 99), st.booleans()), max_size=3))
@settings(max_examples=10, suppress_health_check=[HealthCheck.function_scoped_fixture])
def test_a_trial_out_and_in_again_gives_the_same_answers(client, sheet, struck):
    school, lines = sheet
    paper, nth = Paper(client), f"{next(_trials)}"
    paper.make_trial(f"A{nth}", f"B{nth}", school=school, name=f"Trial {nth}")
    runs = paper.kept(
        *({**each, "cells": {**each["cells"], "blade": each["cells"]["blade"] + nth}}
          for each in lines)
    )  # fmt: skip
    for which, comes_back in struck:
        strike(paper, runs[which % len(runs)], which, comes_back)
    archive = client.get(f"/api/trials/{paper.trial}/files").content
    with zipfile.ZipFile(io.BytesIO(archive)) as kept:
        files = [("files", (name, kept.read(name))) for name in kept.namelist()]
    (made,) = client.post("/api/imports", files=files).json()["trials"]
    assert answers(client, made["id"]) == answers(client, paper.trial)
    assert in_another_folder(client, paper.trial) == answers(client, paper.trial)
    record = client.get(f"/api/trials/{made['id']}/record").json()["runs"]
    assert all(run["from_paper"] for run in record)


def strike(paper, run, which, comes_back):
    """Strike one look of a run, and perhaps let it count again."""
    checks = paper.client.get(f"/api/runs/{run}").json()["state"]["checks"]
    target = checks[which % len(checks)]["event_id"]
    sent = paper.send(run, "strike", {"target": target, "reason": "another blade's"}, at=1)
    assert sent.status_code == 200, sent.text
    if comes_back:
        log = paper.client.get(f"/api/runs/{run}/log").json()
        last = next(e["id"] for e in reversed(log) if e["kind"] == "strike")
        sent = paper.send(run, "correction", {"target": last, "becomes": None}, at=1)
        assert sent.status_code == 200, sent.text


def in_another_folder(client, trial):
    """What a folder answers into which the trial came as a package."""
    client.put("/api/testers/here", json={"name": "Rhea"})
    package = client.get("/api/package", params={"trial": trial}).content
    with TemporaryDirectory() as made, Database(Path(made) / "other", hurried=True) as other:
        path = Path(made) / "sent.kessik.zip"
        path.write_bytes(package)
        bring_package(other, path, path.name)
        kept = Answers(other, pages())
        kept.renew(trial)
        return told(json.loads(kept.page("verdict", trial)[0]))


def answers(client, trial):
    """All that a verdict answers, without what is the trial's own."""
    return told(client.get(f"/api/trials/{trial}/verdict").json()["answer"])


def told(found):
    runs = {
        (r["blade"], r["run"]["edge"]): (
            r["lives"], [reading["force_gf"] for reading in r["readings"]]
        )
        for r in found["runs"]
    }  # fmt: skip
    ladder = [{**rung, "mark": None} for rung in found["ladder"]]
    said = {name: found[name] for name in ("headline", "standing", "comparisons")}
    return {**said, "ladder": ladder, "runs": runs}
