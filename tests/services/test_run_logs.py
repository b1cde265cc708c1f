"""What is remembered in memory is never other than what a fold of the whole log on disk gives."""

from uuid import uuid4

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from kessik.core.errors import KessikError
from kessik.core.moments import Moment
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import force_limit_rope
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.trial import Trial
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import append_event, plan_check, run_view, start_run
from kessik.services.trials.trials import add_blade, make_trial
from kessik.store.database import Database
from kessik.store.queries import bench_log
from tests.conftest import bench_event

NOW = Moment("2026-05-04T08:00:00+00:00")
METHOD = force_limit_rope(schedule="every", every=2)
STEPS = st.lists(
    st.one_of(
        st.just(("cut", None)),
        st.tuples(st.just("reading"), st.integers(100, 600)),
        st.just(("back", None)),
        st.tuples(st.just("mend"), st.integers(100, 600)),
        st.just(("plan", None)),
        st.just(("again", None)),
        st.just(("stop", None)),
    ),
    max_size=30,
)


def begun(bench):
    """A fresh run at a bench; returns its id."""
    database = bench.db
    trial, blade, edge, run = (str(uuid4()) for _ in range(4))
    make_trial(database, Trial(trial, "Raft", NOW, method=METHOD))
    add_blade(database, trial, Blade(blade, f"A {blade}", edges=(Edge(edge, blade, 1),)))
    start_run(bench, Run(run, trial, edge, 1, NOW))
    return run


class Device:
    """Sends events one after the other and remembers what it sent."""

    def __init__(self, bench, run):
        self.bench, self.run, self.name, self.sent = bench, run, str(uuid4()), []

    def send(self, kind, payload):
        state = run_view(self.bench, self.run).state
        made = bench_event(
            str(uuid4()),
            kind,
            self.name,
            len(self.sent) + 1,
            state.position,
            state.count,
            "t",
            payload,
        )
        self.sent.append(made)
        return append_event(self.bench, self.run, made, NOW.utc)

    def do(self, step, value):
        readings = [e.id for e in self.sent if e.kind == "reading"]
        if step == "cut":
            self.send("cut", {"amount": 1})
        elif step == "reading":
            self.send("reading", {"check": "force", "value": value, "unit": "gf"})
        elif step == "stop":
            self.send("stop", {"by": "tester", "reason": ""})
        elif step == "plan":
            plan_check(self.bench, self.run, NOW.utc)
        elif step == "again" and self.sent:
            assert append_event(self.bench, self.run, self.sent[-1], NOW.utc).duplicate
        elif step == "back" and self.sent:
            self.send("correction", {"target": self.sent[-1].id, "becomes": None})
        elif step == "mend" and readings:
            self.send("correction", {"target": readings[-1], "becomes": {"value": value}})


@settings(
    max_examples=25, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)
@given(STEPS)
def test_the_state_shown_is_the_fold_of_the_log_on_disk(database, steps):
    bench = Bench(database)
    device = Device(bench, begun(bench))
    for step, value in steps:
        before = len(device.sent)
        try:
            device.do(step, value)
        except KessikError:
            device.sent = device.sent[:before]  # refused: nothing may have been kept
    with database.read() as session:
        log = bench_log.events_of(session, device.run)
    shown = run_view(bench, device.run)
    assert list(shown.events) == log
    assert shown.state == fold(log, METHOD)
    own = [e.id for e in log if e.device == device.name]
    assert own == [e.id for e in device.sent], "each once, in the order it was sent"


def test_two_data_folders_know_nothing_of_each_other(tmp_path):
    one, other = Database(tmp_path / "one"), Database(tmp_path / "other")
    here, there = Bench(one), Bench(other)
    run = begun(here)
    Device(here, run).send("cut", {"amount": 3})
    trial, blade, edge = (str(uuid4()) for _ in range(3))
    make_trial(other, Trial(trial, "Raft", NOW, method=METHOD))
    add_blade(other, trial, Blade(blade, f"A {blade}", edges=(Edge(edge, blade, 1),)))
    start_run(there, Run(run, trial, edge, 1, NOW))
    assert run_view(here, run).state.count == 3
    assert run_view(there, run).state.count == 0
    one.close()
    other.close()


def test_what_is_cut_on_a_run_that_lies_in_the_bin_is_kept_by_its_device(hand):
    (_, edge), _ = hand.make_trial("A", "B")
    run = hand.start(edge)
    hand.cut(run, 4)
    binned = {"kind": "trial", "owner_id": hand.trial, "reason": ""}
    assert hand.client.put("/api/bin/bin-entry-1", json=binned).status_code == 200
    waits = hand.send(run, "cut", {"amount": 1}, at=4)
    assert (waits.status_code, waits.json()["field"]) == (409, None)
    assert "this run is in the bin with" in waits.json()["detail"]
    hand.client.put("/api/bin/bin-entry-1/brought-back")
    assert hand.send(run, "cut", {"amount": 1}, at=4).json()["state"]["count"] == 5
    assert hand.send("no-such-run-1", "cut", {"amount": 1}).json()["field"] == "run"
