"""Verdicts on pairs: confounded, too close to matter, longer or shorter, or not enough evidence, in
this order.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import scipy

from kessik.core.comparison.matching import BladeFacts, Cell, MatchingRule, match
from kessik.core.comparison.ratios import Ratio, pair_level
from kessik.core.comparison.variables import VARIABLES

VerdictWord = Literal["longer", "shorter", "too_close", "not_enough_evidence", "confounded"]

INDIFFERENCE = 1.1
MOST_EDGES = 100

_SCOPE_OF_FACTOR = {
    "heat_treatment": "this heat treatment",
    "hardness": "hardness in this steel",
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
    """

    a: str
    b: str
    stage: str
    ratio: float
    low: float
    high: float
    verdict: VerdictWord
    scope: str
    pending: tuple[str, ...]
    reasons: tuple[str, ...]
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
    confounded = [
        cell for cell in cells if cell.state == "confounded" and cell.variable != "settled_edge"
    ]
    pending = pending_words(cells, facts, rule)
    limit = math.log(INDIFFERENCE)
    inside = -limit <= math.log(ratio.at_90.low) and math.log(ratio.at_90.high) <= limit
    excludes_one = ratio.at_95.low > 1.0 or ratio.at_95.high < 1.0
    bounds = f"{ratio.at_95.low:.2f} to {ratio.at_95.high:.2f}"
    reasons: list[str] = []
    more: int | None = None
    word: VerdictWord
    if confounded:
        word = "confounded"
        reasons.extend(f"{cell.blade}: {cell.says}" for cell in confounded)
    elif inside:
        word = "too_close"
        reasons.append(
            f"the ratio lies within {1 / INDIFFERENCE:.2f} to {INDIFFERENCE:g} with 90 % confidence"
        )
        if excludes_one:
            reasons.append(f"a real but smaller difference: 95 % interval {bounds}")
    elif excludes_one:
        word = "longer" if ratio.at_95.low > 1.0 else "shorter"
        reasons.append(f"the 95 % interval of the ratio, {bounds}, excludes 1")
    else:
        word = "not_enough_evidence"
        more = edges_to_settle(ratio, edges, blades)
        reasons.append(f"the 95 % interval of the ratio, {bounds}, holds 1")
    if edges < 2:
        reasons.append(
            "one edge each: how much re-sharpening changes the life is taken from common practice,"
            " not seen"
        )
    scope = scope_words(rule, bool(pending), word == "confounded")
    return Comparison(
        ratio.a,
        ratio.b,
        stage,
        ratio.at_95.estimate,
        ratio.at_95.low,
        ratio.at_95.high,
        word,
        scope,
        pending,
        tuple(reasons),
        more,
    )


def scope_words(rule: MatchingRule, pending: bool, confounded: bool) -> str:
    """What an answer may speak of."""
    if pending or confounded:
        return "these blades"
    if rule.factor == "steel":
        return (
            "the steel"
            if rule.hardness_reading == "same_hardness"
            else "the steel as usually hardened"
        )
    return _SCOPE_OF_FACTOR.get(rule.factor, "these blades")


def pending_words(
    cells: Sequence[Cell], facts: Sequence[BladeFacts], rule: MatchingRule
) -> tuple[str, ...]:
    """The facts still unknown that could change the scope, one line a variable, naming the
    blades.
    """
    lines = []
    if rule.factor == "steel":
        unnamed = [blade.code for blade in facts if not blade.grade]
        if unnamed:
            lines.append(f"steel of {_and(unnamed)} is not named")
    for variable in VARIABLES:
        waiting = [
            cell for cell in cells if cell.variable == variable.name and cell.state == "pending"
        ]
        for says in dict.fromkeys(cell.says for cell in waiting):
            codes = [cell.blade for cell in waiting if cell.says == says]
            lines.append(_pending_line(variable.label, says, codes))
    return tuple(lines)


def _pending_line(label: str, says: str, codes: Sequence[str]) -> str:
    if says.startswith(label):
        return f"{label} of {_and(codes)}{says.removeprefix(label)}"
    return f"{_and(codes)}: {says}"


def _and(words: Sequence[str]) -> str:
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


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
