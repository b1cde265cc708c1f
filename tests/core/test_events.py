"""Typed events: what can be read is kept and read back, all else is refused at its field; an old
log opens.
"""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import KessikError
from kessik.core.protocols.events import (
    CLASSES,
    SENT_KINDS,
    BenchEvent,
    NotUnderstood,
    entries_of,
    plain_fields,
    read_logged,
    read_payload,
    schema_of,
)
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import force_limit_rope
from tests.conftest import bench_event
from tests.helpers.payloads import payloads


def read_or_refused(kind, payload):
    """What a payload says, or the error that refuses it."""
    try:
        return read_payload(kind, payload), None
    except KessikError as refused:
        return None, refused


ANY_JSON = st.recursive(
    st.none()
    | st.booleans()
    | st.integers(-(10**400), 10**400)
    | st.floats()
    | st.text(max_size=20),
    lambda inner: (
        st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=10), inner, max_size=3)
    ),
    max_leaves=8,
)


@given(
    st.sampled_from(sorted(CLASSES)).flatmap(lambda kind: st.tuples(st.just(kind), payloads(kind)))
)
def test_what_is_read_is_written_and_read_back_the_same(drawn):
    kind, payload = drawn
    said, refused = read_or_refused(kind, payload)
    if refused is not None:
        assert refused.field in entries_of(CLASSES[kind]), (
            "a value beyond its check's own limit names its field"
        )
        return
    written = json.loads(json.dumps(plain_fields(said)))
    assert read_payload(kind, written) == said
    assert read_logged(kind, written, "") == said


NAMES = sorted({name for made in CLASSES.values() for name in entries_of(made)})


@given(
    st.sampled_from(sorted(CLASSES)),
    st.dictionaries(st.sampled_from(NAMES) | st.text(max_size=8), ANY_JSON, max_size=4),
)
def test_nothing_that_comes_in_is_taken_by_halves(kind, payload):
    said, refused = read_or_refused(kind, payload)
    if refused is not None:
        assert refused.field
        assert refused.message
    else:
        assert read_payload(kind, plain_fields(said)) == said


@given(
    st.lists(
        st.tuples(
            st.sampled_from([*CLASSES, "sharpen"]),
            ANY_JSON | st.dictionaries(st.sampled_from(NAMES), ANY_JSON),
        ),
        max_size=6,
    )
)
def test_any_old_log_opens_and_what_nobody_understands_is_named(rows):
    start = bench_event("0", "start", "server", 1, 0, 0.0, "", {}, 1)
    logged = [
        BenchEvent(f"e{n}", read_logged(kind, payload, "raw"), "d", n, 0, 0.0, "", n + 1)
        for n, (kind, payload) in enumerate(rows, 1)
    ]
    state = fold([start, *logged], force_limit_rope())
    unread = {event.id for event in logged if isinstance(event.payload, NotUnderstood)}
    struck_or_back = {
        e.payload.target
        for e in logged
        if e.kind in ("strike", "correction") and e.id not in unread
    }
    assert unread - struck_or_back <= {event.id for event in state.not_understood}


def test_what_is_not_understood_is_left_out_of_every_sum_and_can_be_struck():
    start = bench_event("0", "start", "server", 1, 0, 0.0, "", {}, 1)
    cut = bench_event("c", "cut", "d", 1, 0, 0.0, "", {"amount": 2}, 2)
    odd = BenchEvent(
        "odd", read_logged("cut", {"amount": [3]}, '{"amount":[3]}'), "d", 2, 0, 0.0, "", 3
    )
    state = fold([start, cut, odd], force_limit_rope())
    assert (state.count, [e.id for e in state.not_understood]) == (2, ["odd"])
    assert "amount must be a number, and is a list" in state.not_understood[0].payload.why
    strike = bench_event(
        "s", "strike", "d", 3, 0, 0.0, "", {"target": "odd", "reason": "a slip"}, 4
    )
    assert fold([start, cut, odd, strike], force_limit_rope()).not_understood == ()


@pytest.mark.parametrize("kind", SENT_KINDS)
def test_the_contract_of_an_event_names_its_fields_and_bounds(kind):
    schema = schema_of(CLASSES[kind])
    assert set(schema["properties"]) == set(entries_of(CLASSES[kind]))
    assert schema["additionalProperties"] is False
