"""One pair in words: the better named first, sizes as per cent of the other, the interval once."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.comparison.findings import (
    Apart,
    EndOpen,
    HingesOnEdge,
    InsideBlocks,
    Mismatch,
    NotApart,
    OneEdgeEach,
    Reason,
    SmallButReal,
    StartedDuller,
    WithinIndifference,
)
from kessik.core.comparison.matching import MatchingRule
from kessik.core.comparison.verdict import INDIFFERENCE, Comparison
from kessik.core.words.matching import mismatch_words

_ALIKE = 1.005
"""A ratio below it is shown as 0 %, and said as being as long."""
_TELLING = 0.5
"""A bound below it on a life with an open end says nothing that a tester could use."""


@dataclass(frozen=True)
class Oriented:
    """A pair with the one that lasts longer first; the ratio is how many times as long it lasts."""

    longer: str
    shorter: str
    ratio: float | None
    low: float | None
    high: float | None


def oriented(pair: Comparison) -> Oriented:
    """The pair the way it is told: who lasts longer, by the estimate or by the bound there is."""
    ratio, low, high = pair.ratio, pair.low, pair.high
    turned = ratio < 1 if ratio is not None else high is not None
    if not turned:
        return Oriented(pair.b, pair.a, ratio, low, high)
    return Oriented(
        pair.a,
        pair.b,
        None if ratio is None else 1 / ratio,
        None if high is None else 1 / high,
        None if low is None else 1 / low,
    )


def percent(ratio: float) -> str:
    """A ratio as the per cent by which the first exceeds the other."""
    return f"{100 * (ratio - 1):.0f} %"


def size_words(pair: Oriented) -> str:
    """By how much the longer one outlasts the other, with its interval: 53 %, 18 to 100 %."""
    if pair.ratio is None or pair.low is None or pair.high is None:
        return f"at least {percent(pair.low or 1.0)}; how far is not known"
    return f"{percent(pair.ratio)}, {_number(pair.low)} to {percent(pair.high)}"


def size_cells(pair: Comparison) -> tuple[str, str]:
    """By how much the longer one lasts longer and its interval, for the cells of a table."""
    told = oriented(pair)
    if told.ratio is None:
        if told.low is None or told.low < _TELLING:
            return "not known", ""
        return f"{_signed(told.low)} at least", ""
    size = _signed(told.ratio) if told.ratio >= _ALIKE else "0 %"
    if told.low is None or told.high is None:
        return size, ""
    return size, f"{_signed(told.low).removesuffix(' %')} to {_signed(told.high)}"


def _signed(ratio: float) -> str:
    rounded = round(100 * (ratio - 1))
    return f"{rounded:+d} %".replace("-", "−") if rounded else "0 %"


def _number(ratio: float) -> str:
    return f"{100 * (ratio - 1):.0f}"


def _either_way(pair: Oriented) -> str:
    """The same where the interval holds both directions."""
    if pair.low is None or (pair.ratio is None and pair.low < _TELLING):
        return "the checks so far do not tell which lasts longer"
    if pair.ratio is None or pair.high is None:
        short = 100 * (1 - pair.low)
        return (
            f"{pair.longer} is at most {short:.0f} % shorter than {pair.shorter}, and may last"
            " longer by any amount"
        )
    low = f"{100 * (1 - pair.low):.0f} % shorter" if pair.low < 1 else f"{percent(pair.low)} longer"
    span = f"{low} to {percent(pair.high)} longer"
    if pair.ratio < _ALIKE:
        return f"{pair.longer} lasts as long as {pair.shorter}, {span}"
    return f"{pair.longer} lasts {percent(pair.ratio)} longer than {pair.shorter}, {span}"


def hinge_words(pair: Comparison, hinges: Sequence[HingesOnEdge]) -> str:
    """A pair whose answer hangs on edges of one blade that do not fit: with and without them."""
    first = hinges[0]
    if first.has_one_sister and len(hinges) == 2:
        own, other = hinges
        lives = f"{_life(own.lives[0])} and {_life(other.lives[0])} {own.unit}"
        told = _by_ratio(pair, other.ratio_without, f"by edge {own.edge} alone")
        rest = _size(pair, own.ratio_without, other.ratio_without)
        return (
            f"edges {own.edge} and {other.edge} of {own.blade} contradict each other ({lives});"
            f" {told}, {rest} by edge {other.edge} alone"
        )
    told = _by_ratio(pair, first.ratio_without, f"without {first.blade}'s edge {first.edge}")
    rest = _size(pair, first.ratio_with, first.ratio_without)
    return (
        f"{told}, {rest} with it; edge {first.edge} lasted {_life(first.lives[0])} where the"
        f" others lasted {_life(first.lives[1])} {first.unit}"
    )


def _by_ratio(pair: Comparison, ratio: float, when: str) -> str:
    """Who outlasts whom by a ratio life(b) / life(a), and under what condition."""
    longer, shorter = (pair.b, pair.a) if ratio >= 1 else (pair.a, pair.b)
    size = ratio if ratio >= 1 else 1 / ratio
    if size < _ALIKE:
        return f"{longer} lasts as long as {shorter} {when}"
    return f"{longer} outlasts {shorter} by {percent(size)} {when}"


def _size(pair: Comparison, ratio: float, told: float) -> str:
    """The same pair by another ratio, after it was told by one: `by 12 %`, or the other way."""
    own, size = ratio >= 1, max(ratio, 1 / ratio)
    if size < _ALIKE:
        return "and as long"
    if own == (told >= 1):
        return f"by {percent(size)}"
    longer, shorter = (pair.b, pair.a) if own else (pair.a, pair.b)
    return f"and {longer} outlasts {shorter} by {percent(size)}"


def _life(life: float) -> str:
    return f"{life:.0f}" if life >= 10 else f"{round(life, 1):g}"


def pair_words(pair: Comparison) -> str:
    """One pair in one sentence; longer and shorter carry both bases."""
    told = oriented(pair)
    a, b = told.longer, told.shorter
    match pair.verdict:
        case "longer" | "shorter":
            if told.ratio is None:
                return f"{a} outlasts {b} by {size_words(told)}."
            short = f"{b} falls short of {a} by {100 * (1 - 1 / told.ratio):.0f} %"
            return f"{a} outlasts {b} by {size_words(told)}; {short}."
        case "too_close":
            return f"{a} and {b} are too close to matter: {_either_way(told)}."
        case "confounded":
            lasted = f": {_either_way(told)}, and the mismatch is part of it"
            return f"{a} and {b} cannot be compared fairly{lasted if pair.ratio else ''}."
        case "both_not_reached":
            return f"{_both_words(pair)}."
        case "not_enough_evidence":
            return f"{a} and {b} cannot be told apart yet: {_either_way(told)}."


def _both_words(pair: Comparison) -> str:
    ends = [reason for reason in pair.reasons if isinstance(reason, EndOpen)]
    both = f"{pair.a} and {pair.b} both"
    if not ends:
        return f"neither {pair.a} nor {pair.b} reached an end that was seen"
    if ends[0].side == "below":
        return f"{both} were lost by their first check, {max(e.at for e in ends):g} {ends[0].unit}"
    return f"{both} still pass at {min(end.at for end in ends):g} {ends[0].unit}"


def tag_words(pair: Comparison) -> str:
    """The verdict on a pair in two or three words, pointing the way its sentence does."""
    match pair.verdict:
        case "longer" | "shorter":
            return f"{oriented(pair).longer} lasts longer"
        case "too_close":
            return "too close to matter"
        case "confounded":
            return "not a fair pair"
        case "both_not_reached":
            return "neither has ended"
        case "not_enough_evidence":
            return "not enough evidence"


def shared_reasons(pairs: Sequence[Comparison]) -> list[Reason]:
    """What holds for every one of several pairs, and so need be said once."""
    if len(pairs) < 2:
        return []
    return [r for r in pairs[0].reasons if all(r in pair.reasons for pair in pairs)]


def reason_words(reason: Reason, rule: MatchingRule) -> str:
    """Why a pair's verdict is what it is."""
    match reason:
        case Mismatch():
            return f"{reason.blade}: {mismatch_words(reason, rule.factor)}"
        case HingesOnEdge(blade, edge, (own, rest), unit):
            return (
                f"{blade}'s edge {edge} does not fit: it lasted {_life(own)}, the others"
                f" {_life(rest)} {unit}"
            )
        case WithinIndifference():
            most = f"{100 * (INDIFFERENCE - 1):.0f} %"
            return f"with 90 % confidence the two lie within {most} of one another"
        case SmallButReal():
            return "the difference is real, only too small to matter"
        case Apart():
            return "the whole 95 % interval is on one side: chance is unlikely"
        case NotApart():
            return "the 95 % interval allows either to last longer"
        case OneEdgeEach():
            return (
                "one edge each: how much re-sharpening changes the life is taken from common"
                " practice, not measured"
            )
        case StartedDuller(blade, apart):
            return (
                f"{blade} started {apart:.0f} % duller: per cent lost and end sharpness may"
                " disagree"
            )
        case EndOpen(blade, "above", at, unit):
            return f"{blade} was not lost by {at:g} {unit}: cut on to see how far it goes"
        case EndOpen(blade, _, at, unit):
            return f"{blade} was lost by its first check, at {at:g} {unit}: check earlier next time"
        case InsideBlocks(blocks):
            many = "1 block" if blocks == 1 else f"{blocks} blocks"
            return f"compared inside {many}, each by itself"
