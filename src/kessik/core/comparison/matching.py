"""Matching: what is held equal between blades, what is not, what is unknown, and what a mismatch
may do.
"""

from collections.abc import Sequence

from kessik.core.comparison.compared_facts import (
    BladeFacts,
    Cell,
    Fact,
    HardnessReading,
    MatchingRule,
    MatchState,
    shared_blade,
    shown_by_runs,
)
from kessik.core.comparison.comparers import COMPARERS
from kessik.core.comparison.variables import FACTORS, VARIABLES, Variable

__all__ = [
    "FACTORS",
    "VARIABLES",
    "BladeFacts",
    "Cell",
    "Fact",
    "HardnessReading",
    "MatchState",
    "MatchingRule",
    "Variable",
    "match",
    "not_recorded",
    "shared_blade",
    "shown_by_runs",
]


def match(
    blades: Sequence[BladeFacts],
    rule: MatchingRule,
    variables: Sequence[Variable] = VARIABLES,
) -> list[Cell]:
    """Every blade at every variable held equal, against the value that most others agree with.

    A variable that nobody recorded for any blade has no cells, unless it is one that is always
    asked for.
    """
    return [
        cell
        for variable in rule.held(variables)
        for cell in COMPARERS[variable.kind](variable, blades, rule)
    ]


def not_recorded(
    blades: Sequence[BladeFacts],
    rule: MatchingRule,
    variables: Sequence[Variable] = VARIABLES,
) -> list[Variable]:
    """Variables held equal by word only, because nobody recorded them for any blade."""
    seen = {cell.variable for cell in match(blades, rule, variables)}
    return [v for v in rule.held(variables) if v.name not in seen]
