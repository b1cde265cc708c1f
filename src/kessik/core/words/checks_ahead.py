"""Why a check is planned where it is, in words."""

from kessik.core.planning.reasons import (
    BySchedule,
    CrossingExpected,
    EarlyCheck,
    FreshEdge,
    LastCheck,
    MayBeResting,
    PlannedReason,
    RuleMet,
    SeveralTries,
    StageAwaitsCheck,
    StageIsLost,
    ToConfirm,
    TwoBeyond,
)
from kessik.core.units import format_to_uncertainty
from kessik.core.words.methods import ends_when, schedule_words


def planned_words(why: PlannedReason) -> str:
    """What the tester is told beside the next check."""
    match why:
        case FreshEdge():
            return "measure the fresh edge before the first cut"
        case EarlyCheck():
            return "an early check shows how fast this edge falls"
        case CrossingExpected():
            return _crossing_words(why)
        case TwoBeyond(stage, limit_gf):
            return f"two checks in a row are above {limit_gf:g} gf: {stage} is lost"
        case MayBeResting(limit_gf):
            return (
                f"just above {limit_gf:g} gf: the edge may be resting under it; two more readings"
                " here, or the next check, decide"
            )
        case RuleMet(method):
            return ends_when(method)
        case StageAwaitsCheck(stage):
            return f"this check, too, decides “{stage}” at this count"
        case ToConfirm(limit_gf):
            above = f"above {limit_gf:g} gf: " if limit_gf else ""
            return f"{above}one more at this count confirms it"
        case StageIsLost(stage, check):
            return f"{stage} is lost; from here on “{check}” is checked"
        case SeveralTries(tries):
            return f"{tries} tries at each check, whatever the first shows"
        case BySchedule(method):
            return schedule_words(method)
        case LastCheck():
            return "the last check of the method is made"


def _crossing_words(why: CrossingExpected) -> str:
    low, high = (format_to_uncertainty(end, why.low, why.high) for end in (why.low, why.high))
    return f"{why.stage} ({why.limit_gf:g} gf) is expected between {low} and {high}"
