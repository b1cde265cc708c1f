"""What blades ask for between runs, in words: rounds of sharpening, and the strop."""

from collections.abc import Sequence

from kessik.core.protocols.checks import check_name
from kessik.core.sharpening.rounds import FEWEST_ROUNDS, Need, Restoring, RoundTrend
from kessik.core.sharpening.strop_back import AbilityBack
from kessik.core.trials.upkeep import Stones

_WORTH_SAYING, _TRENDS_NAMED = 1.2, 2


def restoring_words(found: Restoring) -> str:
    """Whether rounds still restore the edge, with the trends that say so."""
    match found.standing:
        case "too_few":
            return f"fewer than {FEWEST_ROUNDS} rounds with a life or a start reading"
        case "no_longer":
            return f"no longer restoring since round {found.since}: {_trends(found.worse)}"
        case "restoring":
            life = [trend for trend in found.trends if trend.what == "life"]
            return f"still restoring: {_trends(life)}"
        case "not_settled":
            return f"not settled yet whether it still restores: {_trends(found.trends)}"


def restored_words(found: Restoring) -> str:
    """The same after the name of a blade, in few words."""
    return f"{_restored(found)}{need_words(found.need)}"


def _restored(found: Restoring) -> str:
    match found.standing:
        case "restoring":
            return "is still restored"
        case "not_settled":
            return "may still be restored: not settled yet"
        case "too_few":
            return "has too few rounds for a trend"
        case "no_longer":
            worst = found.worse[:_TRENDS_NAMED]
            sizes = ", ".join(f"{trend.what} {_signed(trend.percent)} %" for trend in worst)
            return f"is no longer restored, since round {found.since} ({sizes} a round)"


def need_words(need: Need | None) -> str:
    """What sharpening takes by the last round, where it is worth saying."""
    if need is None or need.times < _WORTH_SAYING:
        return ""
    times = f"{need.times:.1f}".removesuffix(".0")
    return f", and needs {times} times the {need.what} by round {need.by_round}"


def _trends(trends: Sequence[RoundTrend]) -> str:
    return ", ".join(f"{trend.what} {_change(trend)} a round" for trend in trends)


def _change(trend: RoundTrend) -> str:
    if trend.high - trend.low < 1.0:
        return f"{_signed(trend.percent)} %"
    return f"{_signed(trend.percent)} % ({_signed(trend.low)} to {_signed(trend.high)})"


def _signed(value: float) -> str:
    return f"{value:+.0f}".replace("-", "−")


def ability_words(found: AbilityBack) -> str:
    """What the strop brought back of what an edge can do."""
    said = [
        f"“{check_name(check)}” {_tries(passed, tries)}"
        for check, (passed, tries) in found.passed.items()
    ]
    for check, grades in found.grades.items():
        said.append(f"“{check_name(check)}” {', '.join(f'“{grade}”' for grade in grades)}")
    return f"After {found.strokes:g} strokes {'; '.join(said)}"


def _tries(passed: int, tries: int) -> str:
    how = "again" if passed == tries else "still not" if passed == 0 else "in part"
    return f"{how}: {passed} of {tries} {'try' if tries == 1 else 'tries'}"


def stones_words(found: Sequence[Stones]) -> str:
    """How long the strop did, edge by edge."""
    return "; ".join(f"edge {each.edge}: {_stones(each)}" for each in found)


def _stones(found: Stones) -> str:
    limit = "half of its loss" if found.keen_gf is None else f"{found.keen_gf:g} gf"
    if found.due is None:
        times = "once" if found.times == 1 else f"{found.times} times"
        return f"the strop returned it to under {limit} {times}; stones were not needed yet"
    if found.due == 1:
        return f"the strop did not return it to under {limit}; stones are due"
    times = "once" if found.due == 2 else f"{found.due - 1} times"
    return f"the strop did {times}, then no longer returned it to under {limit}; stones are due"
