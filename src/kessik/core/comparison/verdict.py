"""Verdicts on pairs: confounded, too close to matter, longer or shorter, or not enough evidence, in
this order.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import scipy

from kessik.core.comparison.findings import (
    Apart,
    Mismatch,
    NotApart,
    OneEdgeEach,
    Open,
    Reason,
    SmallButReal,
    WithinIndifference,
)
from kessik.core.comparison.matching import BladeFacts, Cell, MatchingRule, match, shared_blade
from kessik.core.comparison.ratios import Ratio, pair_level
from kessik.core.comparison.variables import VARIABLES

VerdictWord = Literal[
    "longer", "shorter", "too_close", "not_enough_evidence", "confounded", "both_not_reached"
]

INDIFFERENCE = 1.1
MOST_EDGES = 100
THESE_BLADES, THESE_EDGES = "these blades", "these edges"
"""The narrowest scopes: of several blades, and of one blade under several preparations."""

_SCOPE_OF_FACTOR = {
    "heat_treatment": "this heat treatment",
    "hardness": "hardness in this steel",
    "edge_finish": "this finish of the edge",
    "flat_finish": "this finish of the flats",
    "finish": "this finish",
    "angle": "this edge angle",
    "geometry": "this geometry",
    "coating": "this coating",
    "regime": "this sharpening",
    "medium": "these blades in these media",
}


@dataclass(frozen=True)
class Comparison:
    """life(b) / life(a) at a stage with 95 % simultaneous bounds, the verdict on b, and what limits
    it.

    Where a life has an open end there is no ratio, and no bound on that side.
    """

    a: str
    b: str
    stage: str
    ratio: float | None
    low: float | None
    high: float | None
    verdict: VerdictWord
    scope: str
    pending: tuple[Open, ...]
    reasons: tuple[Reason, ...]
    edges_to_settle: int | None


def judge(
    ratio: Ratio,
    stage: str,
    facts: tuple[BladeFacts, BladeFacts],
    rule: MatchingRule,
    edges: int,
    blades: int,
) -> Comparison:
    """The verdict on one pair; `edges` is the smaller edge count of the two, `blades` how many the
    trial compares.
    """
    cells = match(facts, rule)
    # an edge that does not count is left out of the answer, so it cannot confound it
    mismatches = [cell.finding for cell in cells if isinstance(cell.finding, Mismatch)]
    # what blades are sold as is a name: where steels are compared, they differ by whatever it is
    misnamed = [m for m in mismatches if m.how == "claim_excluded" and rule.factor == "steel"]
    confounded = [m for m in mismatches if m.how != "left_out" and m not in misnamed]
    pending = open_facts(cells, facts, rule)
    word, reasons = _word(ratio)
    if confounded:
        word, reasons = "confounded", list(confounded)
    else:
        reasons.extend(misnamed)
    if edges < 2:
        reasons.append(OneEdgeEach())
    more = None
    if word == "not_enough_evidence" and not ratio.open_end:
        more = edges_to_settle(ratio, edges, blades)
    at = ratio.at_95
    return Comparison(
        ratio.a,
        ratio.b,
        stage,
        None if ratio.open_end else at.estimate,
        at.low if at.low > 0 else None,
        at.high if math.isfinite(at.high) else None,
        word,
        scope_of(rule, bool(pending or misnamed), word == "confounded", shared_blade(facts)),
        pending,
        tuple(reasons),
        more,
    )


def _word(ratio: Ratio) -> tuple[VerdictWord, list[Reason]]:
    """The verdict by the intervals alone, with what it rests on."""
    if ratio.open_end == "both":
        return "both_not_reached", []
    low, high = ratio.at_95.low, ratio.at_95.high
    excludes_one = low > 1.0 or high < 1.0
    if not ratio.open_end and _is_inside(ratio):
        return "too_close", [WithinIndifference(), *([SmallButReal()] if excludes_one else [])]
    if excludes_one:
        return ("longer" if low > 1.0 else "shorter"), [Apart()]
    return "not_enough_evidence", [NotApart()]


def _is_inside(ratio: Ratio) -> bool:
    limit = math.log(INDIFFERENCE)
    return -limit <= math.log(ratio.at_90.low) and math.log(ratio.at_90.high) <= limit


def scope_of(rule: MatchingRule, pending: bool, confounded: bool, body: str = "") -> str:
    """What an answer may speak of; `body` is the one blade that carries all that is compared."""
    if pending or confounded:
        return THESE_EDGES if body else THESE_BLADES
    if body:
        return f"{_SCOPE_OF_FACTOR.get(rule.factor, 'this preparation')}, on {body}"
    if rule.factor == "steel":
        return (
            "the steel"
            if rule.hardness_reading == "same_hardness"
            else "the steel as usually hardened"
        )
    return _SCOPE_OF_FACTOR.get(rule.factor, THESE_BLADES)


def open_facts(
    cells: Sequence[Cell], facts: Sequence[BladeFacts], rule: MatchingRule
) -> tuple[Open, ...]:
    """The facts still unknown that could change the scope, in the order of the variables."""
    unnamed = [
        Open(blade.code, "grade", "steel_not_named")
        for blade in facts
        if rule.factor == "steel" and not blade.grade
    ]
    found = [cell.finding for cell in cells if isinstance(cell.finding, Open)]
    order = [variable.name for variable in VARIABLES]
    return (*unnamed, *sorted(found, key=lambda each: order.index(each.variable)))


def edges_to_settle(ratio: Ratio, edges: int, blades: int) -> int:
    """How many more edges a blade would settle this pair either way, if the ratio stays where it is
    (100 at most).

    The error of ln ratio shrinks with the square root of the edges; a difference settles once its
    interval excludes 1, a likeness once its 90 % interval lies inside the indifference.
    """
    difference = abs(math.log(ratio.at_95.estimate))
    apart = float(scipy.special.ndtri(0.5 + pair_level(blades, 0.95) / 2))
    alike = float(scipy.special.ndtri(0.5 + pair_level(blades, 0.90) / 2))
    for more in range(1, MOST_EDGES):
        error = ratio.log_sd * math.sqrt(edges / (edges + more))
        if difference > apart * error or difference + alike * error < math.log(INDIFFERENCE):
            return more
    return MOST_EDGES
