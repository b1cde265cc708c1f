"""Ways out of a mismatch: what is offered really does away with it."""

from hypothesis import given
from hypothesis import strategies as st

from kessik.core.comparison.findings import Mismatch
from kessik.core.comparison.matching import BladeFacts, Fact, MatchingRule, match
from kessik.core.comparison.remedies import ways_out

NUMBERS = {
    "side_angle_deg": st.floats(10, 25),
    "thickness_behind_edge_mm": st.floats(0.1, 1.5),
    "final_abrasive_um": st.floats(0.5, 60),
    "edge_length_mm": st.floats(20, 300),
    "micro_bevel_side_deg": st.one_of(st.none(), st.just(0.0), st.floats(12, 30)),
}
TWO_EDGES = {name: st.lists(n, min_size=2, max_size=2) for name, n in NUMBERS.items()}
GRINDS = st.sampled_from(["flat", "hollow"])
BLADES = st.lists(
    st.tuples(st.fixed_dictionaries(TWO_EDGES), st.floats(55, 66), GRINDS), min_size=2, max_size=5
)


def unlike(blades, rule, variable):
    """The blades that a variable spoils the answer of."""
    cells = match(blades, rule)
    return {c.blade for c in cells if c.variable == variable and c.state == "confounded"}


@given(BLADES)
def test_what_is_offered_does_away_with_the_mismatch(drawn):
    blades = [
        BladeFacts(str(n), "1.2842", Fact(hrc), edges=edges, own={"grind": Fact(grind)})
        for n, (edges, hrc, grind) in enumerate(drawn)
    ]
    rule = MatchingRule()
    spoiled = [c.finding for c in match(blades, rule) if isinstance(c.finding, Mismatch)]
    for found in spoiled:
        ways = ways_out(found, blades, rule, is_cut=True)
        assert {"factor"} <= {way.kind for way in ways}
        assert "drop" not in {way.kind for way in ways}, "a blade that was cut stays"
        for way in (way for way in ways if way.rule is not None):
            assert found.blade not in unlike(blades, way.rule, found.variable), way.kind


def test_a_tolerance_is_offered_as_a_tester_would_type_it():
    blades = [
        BladeFacts("A", edges={"side_angle_deg": [15.0]}),
        BladeFacts("B", edges={"side_angle_deg": [15.3]}),
        BladeFacts("C", edges={"side_angle_deg": [18.0]}),
    ]
    (found,) = (c.finding for c in match(blades, MatchingRule()) if isinstance(c.finding, Mismatch))
    widen = next(w for w in ways_out(found, blades, MatchingRule(), False) if w.kind == "widen")
    assert found.blade == "C"
    assert widen.rule is not None
    assert dict(widen.rule.tolerances) == {"side_angle_deg": 3.0}
