"""What the plain stop rule of a run met, and how often was checked, in words."""

import math

from kessik.core.protocols.stop_rules import (
    ByRule,
    CheckGaps,
    FailRule,
    ForceRule,
    MeanRule,
    StageRule,
)
from kessik.core.words.methods import stage_words


def lost_by_words(rule: ForceRule | FailRule | StageRule | MeanRule) -> str:
    """By which rule a stage is lost at a count, or would be."""
    match rule:
        case ForceRule(limit_gf, "pair"):
            return f"first two readings in a row at one count above {limit_gf:g} gf"
        case ForceRule(limit_gf, "next_check"):
            return f"first reading above {limit_gf:g} gf, confirmed by the next check"
        case ForceRule(limit_gf, "unconfirmed"):
            return f"last reading above {limit_gf:g} gf, not confirmed"
        case ForceRule(limit_gf):
            return f"no confirmed reading above {limit_gf:g} gf"
        case FailRule(failed):
            return "first failed check" if failed else "no failed check"
        case StageRule(stage, method):
            return stage_words(stage, method)
        case MeanRule(met, runs, each):
            return f"mean of {met} of {runs} runs, {lost_by_words(each)}"


def gaps_words(gaps: CheckGaps) -> str:
    """How often was checked."""
    if gaps.counts < 2:
        return "one count checked" if gaps.counts else "not checked"
    if not math.isclose(gaps.least, gaps.greatest):
        return f"uneven, every {gaps.least:g} to {gaps.greatest:g}"
    return "every count" if gaps.least == 1 else f"every {gaps.least:g}"


def by_rule_words(found: ByRule) -> dict[str, str]:
    """Rule and schedule of a life, under their names in files and answers."""
    return {"rule": lost_by_words(found.rule), "schedule": gaps_words(found.gaps)}
