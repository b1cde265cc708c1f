"""Ways out of a mismatch: what could be changed so that a blade may speak again.

A change of the trial's stand is offered only where it really does away with the mismatch.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from kessik.core.comparison.findings import Mismatch
from kessik.core.comparison.matching import BladeFacts, MatchingRule, match
from kessik.core.comparison.scales import scale_of
from kessik.core.comparison.variables import BY_NAME, MOST_TOLERANCE, Variable

WayKind = Literal["sharpen", "sharpen_on", "widen", "let_go", "one_length", "factor", "drop"]


@dataclass(frozen=True)
class Remedy:
    """One way; `rule` is the trial's stand after it, where it changes that alone."""

    kind: WayKind
    rule: MatchingRule | None = None


def ways_out(
    found: Mismatch, blades: Sequence[BladeFacts], rule: MatchingRule, is_cut: bool
) -> list[Remedy]:
    """The ways out of one mismatch; a blade that was cut is not dropped."""
    variable = BY_NAME[found.variable]
    ways = []
    if variable.of == "edge":
        ways.append(Remedy("sharpen_on" if variable.kind == "settled" else "sharpen"))
    for kind, changed in _changes(found, variable, blades, rule):
        if not _is_mismatched(found, blades, changed):
            ways.append(Remedy(kind, changed))
    if not is_cut:
        ways.append(Remedy("drop"))
    return ways


def _changes(
    found: Mismatch, variable: Variable, blades: Sequence[BladeFacts], rule: MatchingRule
) -> list[tuple[WayKind, MatchingRule]]:
    changes: list[tuple[WayKind, MatchingRule]] = []
    wider = _widened(found, variable, blades, rule)
    if wider is not None:
        changes.append(("widen", wider))
    if variable.kind in ("alike", "steel"):
        changes.append(("let_go", replace(rule, let_go=(*rule.let_go, variable.name))))
    if variable.kind == "length":
        changes.append(("one_length", replace(rule, scale_edge_length=True)))
    if variable.kind != "settled":
        changes.append(("factor", replace(rule, factor=variable.factors[0])))
    return changes


def _widened(
    found: Mismatch, variable: Variable, blades: Sequence[BladeFacts], rule: MatchingRule
) -> MatchingRule | None:
    """The rule with the tolerance that just takes this blade in beside every other, rounded up to
    what a tester would type.
    """
    column = [c for c in match(blades, rule, [variable]) if isinstance(c.value, float)]
    own = [c.value for c in column if c.blade == found.blade]
    others = [c.value for c in column if c.state == "matched"]
    needed = [_apart(variable, a, b) for a in own for b in others]
    if found.how == "own_edges" and found.difference is not None:
        needed.append(found.difference)
    if not needed:
        return None
    step = scale_of(variable.kind).step
    wider = round(math.ceil(max(needed) / step - 1e-9) * step, 2)
    if wider > MOST_TOLERANCE:
        return None
    return replace(rule, tolerances={**rule.tolerances, variable.name: wider})


def _apart(variable: Variable, a: object, b: object) -> float:
    """How far two values lie apart, as the tolerance of the variable is given."""
    assert isinstance(a, float)
    assert isinstance(b, float)
    return scale_of(variable.kind).apart(a, b)


def _is_mismatched(found: Mismatch, blades: Sequence[BladeFacts], rule: MatchingRule) -> bool:
    """Whether the blade is still unlike the others: among all of them, or beside one of those that
    are alike.
    """
    variable = [BY_NAME[found.variable]]
    cells = match(blades, rule, variable)
    if found.blade in {c.blade for c in cells if isinstance(c.finding, Mismatch)}:
        return True
    alike = {c.blade for c in cells if c.state == "matched"}
    own = next(blade for blade in blades if blade.code == found.blade)
    return any(
        isinstance(cell.finding, Mismatch)
        for other in blades
        if other.code in alike and other.code != found.blade
        for cell in match([own, other], rule, variable)
    )
