"""The facts of a blade as matching takes them."""

from collections.abc import Mapping, Sequence

from kessik.core.comparison.findings import Claimed
from kessik.core.comparison.matching import BladeFacts, Fact
from kessik.core.composition.grades import Grade
from kessik.core.composition.library import library
from kessik.core.facts import used
from kessik.core.sharpening.regimes import final_abrasive
from kessik.core.sharpening.settled import SettledRule
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.shelf.facts import expected_thickness, settled_edge, usual_hardness

_OWN_WORDS = ("grind", "profile", "finish", "coating", "grip")


def blade_facts(
    blade: Blade,
    edges: Sequence[Edge],
    rule: SettledRule,
    grades: Mapping[str, Grade] | None = None,
    claim: Claimed | None = None,
) -> BladeFacts:
    """What matching needs to know of a blade and these of its edges."""
    hardness = blade.used("hardness_hrc")
    length = blade.used("edge_length_mm")
    by_edge = {
        "side_angle_deg": [_fact(edge, "side_angle_deg") for edge in edges],
        "micro_bevel_side_deg": [_fact(edge, "micro_bevel_side_deg") for edge in edges],
        "thickness_behind_edge_mm": [_thickness(blade, edge) for edge in edges],
        "final_abrasive_um": [_abrasive(edge) for edge in edges],
        "start_gf": [_start(edge) for edge in edges],
        "edge_length_mm": (
            [Fact(length.value, length.standing)] * max(len(edges), 1) if length else []
        ),
    }
    own = {name: _own(blade, name) for name in (*_OWN_WORDS, "stock_mm")}
    return BladeFacts(
        code=blade.code,
        body=blade.own_code,
        grade=blade.claimed_grade,
        claim=claim,
        hardness_hrc=Fact(hardness.value, hardness.standing) if hardness else Fact(),
        usual_hardness_hrc=usual_hardness(blade, library(()) if grades is None else grades),
        edges=by_edge,
        own=own,
        settled=[(edge.number, settled_edge(blade, edge, rule)) for edge in edges],
    )


def _fact(edge: Edge, quantity: str) -> Fact:
    found = used(edge.measurements, quantity)
    return Fact(found.value, found.standing) if found else Fact()


def _thickness(blade: Blade, edge: Edge) -> Fact:
    expected = expected_thickness(blade, edge)
    if expected is None:
        return _fact(edge, "thickness_behind_edge_mm")
    return Fact(stale=expected)


def _abrasive(edge: Edge) -> Fact:
    size, kind = final_abrasive(edge.steps)
    return Fact(size, kind=kind) if size is not None else Fact()


def _start(edge: Edge) -> Fact:
    found = used(edge.measurements, "start_gf")
    if found is None:
        return Fact()
    return Fact(found.value, found.standing, readings=len(found.details.get("readings") or (1,)))


def _own(blade: Blade, quantity: str) -> Fact:
    found = blade.used(quantity)
    if found is None:
        return Fact()
    return Fact(found.value if found.value is not None else found.words, found.standing)
