"""The log as the store keeps it: any text comes back as it was, in order, and a number is used
once.
"""

from uuid import uuid4

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from sqlalchemy import text

from kessik.core.moments import Moment
from kessik.core.protocols.entries import is_plain
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.trial import Trial
from kessik.services.trials.trials import add_blade, make_trial
from kessik.store.queries import bench_log
from tests.conftest import bench_event

NOW = Moment("2026-05-04T08:00:00+00:00", 120)
TEXTS = st.text(min_size=1, max_size=60).filter(lambda text: is_plain(text) and text.strip())
SHARED = settings(
    max_examples=25, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)


@pytest.fixture
def run(database):
    make_trial(database, Trial("trial-one", "Raft", NOW))
    add_blade(
        database, "trial-one", Blade("blade-one", "A", edges=(Edge("edge-one", "blade-one", 1),))
    )
    with database.write() as session:
        bench_log.add_run(session, Run("run-one", "trial-one", "edge-one", 1, NOW))
    return "run-one"


def event(sequence, payload, device="phone"):
    return bench_event(
        str(uuid4()), "note", device, sequence, 0, 2.5, "2026-05-04T10:00:00+02:00", payload
    )


@SHARED
@given(st.lists(TEXTS, min_size=1, max_size=5))
def test_what_is_appended_is_read_back_in_order(database, run, texts):
    device = str(uuid4())
    with database.write() as session:
        before = len(bench_log.events_of(session, run))
        sent = [event(n, {"text": text}, device) for n, text in enumerate(texts, 1)]
        positions = [bench_log.append(session, run, e, NOW.utc) for e in sent]
    with database.read() as session:
        log = bench_log.events_of(session, run)
        tail = bench_log.events_of(session, run, positions[0] - 1)
    assert [e.payload.text for e in log[before:]] == texts
    assert [e.position for e in log[before:]] == positions == sorted(positions)
    assert tail == log[before:]


def test_an_id_or_a_number_of_a_device_is_used_once(database, run):
    first = event(1, {"text": "rolled"})
    with database.write() as session:
        assert bench_log.append(session, run, first, NOW.utc) is not None
        assert bench_log.append(session, run, first, NOW.utc) is None
        assert bench_log.append(session, run, event(1, {"text": "rolled"}), NOW.utc) is None
        last = bench_log.append(session, run, event(1, {"text": "rolled"}, "laptop"), NOW.utc)
        assert last is not None
        session.execute(text("DELETE FROM event"))
        assert bench_log.next_sequence(session) == last + 1, "never one that was given before"


def test_a_write_that_fails_leaves_nothing(database, run):
    def interrupted():
        with database.write() as session:
            bench_log.append(session, run, event(1, {"text": "rolled"}), NOW.utc)
            raise RuntimeError("power cut")

    with pytest.raises(RuntimeError, match="power cut"):
        interrupted()
    with database.read() as session:
        assert bench_log.events_of(session, run) == []


def test_readers_do_not_wait_for_a_writer(database, run):
    with database.write() as writer:
        bench_log.append(writer, run, event(1, {"text": "rolled"}), NOW.utc)
        with database.read() as reader:
            assert bench_log.events_of(reader, run) == [], "what is not committed is not seen"
