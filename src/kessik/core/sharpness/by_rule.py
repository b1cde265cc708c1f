"""What the plain stop rule gives, beside the estimate: the first confirmed check beyond a limit."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.protocols.series import Check, by_count
from kessik.core.protocols.stop_rules import pair_at_one_count


@dataclass(frozen=True)
class ByRule:
    """`value` in the unit of the counts, None when the rule was never met; `rule` and `schedule` in words."""

    value: float | None
    rule: str
    schedule: str
    confirmed: bool = False


def by_rule(checks: Sequence[Check], limit_gf: float) -> ByRule:
    """First check above the limit whose next reading at the same count is above it too; force checks, limit in gf.

    Where only one reading was taken at that count the next check stands in for it; where there is none either,
    the reading is given as not confirmed.
    """
    groups = [(n, [c.force_gf is not None and c.force_gf > limit_gf for c in group]) for n, group in by_count(checks)]
    often, paired = schedule(checks), pair_at_one_count(checks, limit_gf)
    for index, (count, above) in enumerate(groups):
        if count == paired:
            return ByRule(count, f"first two readings in a row at one count above {limit_gf:g} gf", often, True)
        if above == [True] and index + 1 == len(groups):
            return ByRule(count, f"last reading above {limit_gf:g} gf, not confirmed", often)
        if above == [True] and groups[index + 1][1][0]:
            return ByRule(count, f"first reading above {limit_gf:g} gf, confirmed by the next check", often, True)
    return ByRule(None, f"no confirmed reading above {limit_gf:g} gf", often)


def schedule(checks: Sequence[Check]) -> str:
    """How often was checked, in words, from the counts themselves."""
    counts = np.unique([check.count for check in checks])
    if counts.size < 2:
        return "one count checked" if counts.size else "not checked"
    gaps = np.diff(counts)
    if np.allclose(gaps, gaps[0]):
        return "every count" if gaps[0] == 1 else f"every {gaps[0]:g}"
    return f"uneven, every {gaps.min():g} to {gaps.max():g}"
