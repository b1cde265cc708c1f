"""One device holds the count; what others tap waits to be accepted, and nothing is counted twice or
lost.
"""

from hypothesis import given
from hypothesis import strategies as st

from kessik.core.protocols.folding import advance, fold
from kessik.core.protocols.methods import force_limit_rope
from tests.conftest import bench_event

RULES = force_limit_rope()


def log(*steps, one_holds=True):
    """Events from (device, kind, payload), in log order; ids are their positions as text."""
    start = bench_event(
        "0", "start", "server", 1, 0, 0.0, "", {"one_holds": True} if one_holds else {}, 1
    )
    made = [
        bench_event(str(n), kind, device, n, 0, 0.0, "", payload, n + 1)
        for n, (device, kind, payload) in enumerate(steps, 1)
    ]
    return fold([start, *made], RULES)


def cut(device, amount=1):
    return device, "cut", {"amount": amount}


def test_the_first_to_cut_holds_the_count_and_the_other_proposes():
    state = log(cut("laptop"), cut("phone"), cut("laptop"))
    assert (state.count, state.holder, [p.id for p in state.proposals]) == (2, "laptop", ["2"])


def test_a_proposal_counts_once_it_is_accepted_and_no_longer_where_that_is_taken_back():
    accepted = [cut("laptop"), cut("phone", 3), ("laptop", "accept", {"targets": ["2", "2"]})]
    assert log(*accepted).count == 4
    assert log(*accepted, ("laptop", "accept", {"targets": ["2"]})).count == 4
    back = log(*accepted, ("laptop", "correction", {"target": "3", "becomes": None}))
    assert (back.count, len(back.proposals)) == (1, 1)


def test_taking_over_makes_the_taps_of_the_device_before_proposals():
    state = log(cut("laptop"), ("phone", "takeover", {}), cut("phone"), cut("laptop"))
    assert (state.count, state.holder, len(state.proposals)) == (2, "phone", 1)


def test_over_a_break_nobody_holds_the_count_and_whoever_cuts_on_does():
    state = log(cut("laptop"), ("laptop", "pause", {}), cut("phone"))
    assert (state.count, state.holder) == (2, "phone")


def test_a_cut_taken_back_still_settles_who_held_the_count():
    state = log(
        cut("laptop"), cut("phone"), ("laptop", "correction", {"target": "1", "becomes": None})
    )
    assert (state.count, len(state.proposals)) == (
        0,
        1,
    ), "the phone's proposal does not turn into a cut by itself"


def test_logs_of_an_older_kessik_count_as_they_did():
    assert log(cut("laptop"), cut("phone"), one_holds=False).count == 2


def test_a_reading_taken_after_an_acceptance_moves_with_it():
    reading = ("laptop", "reading", {"check": "force", "value": 200})
    steps = [cut("laptop"), cut("phone", 3), ("laptop", "accept", {"targets": ["2"]})]
    events = [bench_event("0", "start", "server", 1, 0, 0.0, "", {"one_holds": True}, 1)]
    for n, (device, kind, payload) in enumerate(
        [*steps, reading, ("laptop", "correction", {"target": "3", "becomes": None})], 1
    ):
        events.append(
            bench_event(
                str(n), kind, device, n, 0, 4.0 if kind == "reading" else 0.0, "", payload, n + 1
            )
        )
    assert fold(events, RULES).checks[0].check.count == 1


@given(
    st.lists(
        st.tuples(st.sampled_from("abc"), st.sampled_from(["cut", "takeover", "pause"])),
        max_size=30,
    )
)
def test_every_tap_is_counted_or_proposed_and_none_is_both(taps):
    steps = [cut(device) if kind == "cut" else (device, kind, {}) for device, kind in taps]
    state = log(*steps)
    assert state.count + len(state.proposals) == sum(kind == "cut" for _, kind in taps)
    everything = log(*steps, ("a", "accept", {"targets": [p.id for p in state.proposals] or ["x"]}))
    assert everything.count == sum(kind == "cut" for _, kind in taps)


KINDS = st.sampled_from(["cut", "cut", "cut", "reading", "pause", "takeover", "stop", "correction"])


@given(st.lists(st.tuples(st.sampled_from("ab"), KINDS, st.integers(150, 450)), max_size=25))
def test_a_state_taken_one_event_further_is_the_fold_of_them_all(steps):
    events = [bench_event("0", "start", "server", 1, 0, 0.0, "", {"one_holds": True}, 1)]
    plan = {"next_count": 2, "readings": 1, "why": "", "stage": None}
    events.append(bench_event("p", "check_planned", "server", 2, 0, 0.0, "", plan, 2))
    state = fold(events, RULES)
    for n, (device, kind, number) in enumerate(steps, 3):
        payloads = {
            "cut": {"amount": 1},
            "reading": {"check": "force", "value": number},
            "stop": {"by": "tester"},
        }
        payload = payloads.get(kind, {})
        if kind == "correction" and events[number % len(events)].kind not in ("cut", "reading"):
            continue
        if kind == "correction":
            payload = {"target": events[number % len(events)].id, "becomes": None}
        events.append(bench_event(f"e{n}", kind, device, n, 0, state.count, "", payload, n))
        state = advance(state, events[-1], events, RULES)
        assert state == fold(events, RULES)
