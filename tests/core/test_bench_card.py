"""The bench card: what the screen goes on with alone, for every school and however far a run is."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.planning.bench_card import bench_card
from kessik.core.planning.schedule import plan_next
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import force_limit_rope
from kessik.core.protocols.schools import SCHOOLS
from tests.conftest import bench_event


def state_after(method, readings):
    """A run read at these (count, gf), cut in between, with the check planned that comes next."""
    events = [bench_event("0", "start", "server", 1, 0, 0.0, "", {}, 1)]

    def add(kind, payload, at=0.0):
        n = len(events) + 1
        events.append(bench_event(str(n), kind, "d", n, 0, at, "", payload, n))

    at = 0.0
    for count, gf in readings:
        if count > at:
            add("cut", {"amount": count - at}, at)
            at = count
        add("reading", {"check": "force", "value": gf}, at)
    state = fold(events, method)
    planned = plan_next(state.worked_checks, method, state.count, state.progress)
    if planned.next_count is not None:
        add(
            "check_planned",
            {
                "next_count": planned.next_count,
                "readings": planned.readings,
                "why": "",
                "stage": None,
            },
        )
    return fold(events, method)


@pytest.mark.parametrize("method", SCHOOLS, ids=lambda m: m.school)
def test_every_school_can_go_on_alone_from_its_first_check(method):
    card = bench_card(method, state_after(method, []))
    assert card.checks_at
    assert all(early < late for early, late in pairwise(card.checks_at))
    assert card.readings >= 1
    if method.dose is not None:
        assert card.checks_at[-1] <= method.dose, "no check beyond the dose"


def test_a_fixed_schedule_goes_on_as_it_would_with_the_server():
    card = bench_card(
        force_limit_rope(schedule="every", every=4),
        state_after(force_limit_rope(schedule="every", every=4), [(0, 150), (0, 152), (4, 180)]),
    )
    assert card.checks_at[:4] == (8, 12, 16, 20)
    assert card.confirm_above_gf == 400, "one more reading beyond dull, at the same count"


@given(st.lists(st.integers(1, 9), min_size=1, max_size=6), st.integers(150, 390))
def test_an_adaptive_plan_falls_back_on_ever_wider_gaps_and_never_closer_ones(steps, gf):
    method = force_limit_rope()
    counts = [sum(steps[:n]) for n in range(len(steps) + 1)]
    state = state_after(method, [(0, 150), *[(float(n), float(gf)) for n in counts if n]])
    ahead = bench_card(method, state).checks_at
    gaps = [late - early for early, late in pairwise(ahead)]
    assert all(late >= early for early, late in pairwise(gaps))
    assert ahead[0] == state.plan.next_count
    assert bench_card(method, state).confirm_above_gf is None, (
        "the next check confirms, not one at the same count"
    )


@pytest.mark.parametrize(
    ("forces", "worn"),
    [((), 0.0), ((150, 275), 0.5), ((150, 700), 1.0), ((150, 120, 110), 0.0)],
)
def test_wear_is_drawn_from_the_last_readings_between_fresh_and_dull(forces, worn):
    method = force_limit_rope(schedule="every", every=4)
    readings = [(4.0 * n, gf) for n, gf in enumerate(forces)]
    assert bench_card(method, state_after(method, readings)).worn_share == worn
