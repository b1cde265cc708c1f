"""Which way of testing suits a question, in words."""

from collections.abc import Mapping

from kessik.core.planning.suiting import (
    CutWay,
    SoakWay,
    TestQuestion,
    WaysFound,
)
from kessik.core.vocabulary import IN_HAND
from kessik.core.words.sentences import counted, listed

_SHOWS: Mapping[str, tuple[str, str]] = {
    "force_limit_rope": (
        "the whole course from sharp to dull in gf, and the life to each limit",
        "how the edge died, or how it feels in another medium",
    ),
    "paper_stop_rope": (
        "the count between the last clean slice and the first torn one",
        "anything of the course before; paper changes from sheet to sheet",
    ),
    "two_stage_board": (
        "the length to the loss of the fine edge, and to that of the working edge",
        "a force; hair and paper wear out as standards, so their lot is recorded",
    ),
    "push_cut_board": (
        "the batch in which the apex first gave way, and when fine and working edge went",
        "wear of a slicing cut; a pushed edge dies otherwise",
    ),
    "fixed_dose": (
        "how far the force rose after the same number of cuts",
        "a life: it is one point of a curve, and unequal starts decide it",
    ),
    "mixed_media_dose": (
        "how far the force rose after your own recipe of media",
        "which of the media did it",
    ),
    "resharpening_cycles": (
        "start, life and strokes round by round, and whether a light sharpening still restores",
        "the life of a freshly set edge beside other trials",
    ),
    "geometry_layers": (
        "which blade goes through more layers with less effort",
        "edge life: thickness behind the edge decides it, not the steel",
    ),
    "machine_card": (
        "cutting performance and edge retention without a hand (ISO 8442-5)",
        "what a hand feels, or another kind of cut",
    ),
}
_STANDS: Mapping[TestQuestion, str] = {
    "lasts": "A measured force beats a felt one: a tester gives the curve, paper only an interval.",
    "keen": "A fine edge dies before a force shows it: hair off the body or a lamp sees it sooner.",
    "dies": "Look after every batch: once an edge has rolled, the next cuts hide how.",
    "effort": "Grind and thickness decide effort; compare blades of unlike steel only with both"
    " measured.",
    "upkeep": "The same strokes each round: a sharpening repeated until it is right measures the"
    " hand.",
    "mix": "Keep the recipe written and its order fixed; a dose is a poor man's curve.",
    "rust": "A baseline that must rust belongs in every soak: without it nothing was tested.",
    "steel": "An analyser shows what is in a steel, except carbon and nitrogen; its shots are read"
    " under Assay.",
    "stains": "Stainless blades tie on rust in acid food; how far they discolour orders them.",
}


def shows_words(school: str) -> str:
    """What a school shows."""
    return f"Shows {_SHOWS[school][0]}."


def cannot_words(school: str) -> str:
    """What it does not show."""
    return f"Does not show {_SHOWS[school][1]}."


def stand_words(question: TestQuestion) -> str:
    """Where practitioners disagree, what Kessik holds with, and why."""
    return _STANDS[question]


def cost_words(way: CutWay, blades: int) -> str:
    """What a way costs for the wanted difference."""
    if way.edges is None:
        return "Even 60 edges a blade do not show such a difference."
    cost = way.cost
    medium = f", {cost.medium_m:.0f} m of {way.method.medium}" if cost.medium_m else ""
    line = f", {cost.line_m:.0f} m of test line" if cost.line_m >= 1 else ""
    edges = counted(way.edges, "edge")
    each = f"{edges} on each of {blades} blades" if blades > 1 else edges
    return (
        f"{each}: about {_work(cost.hours)}, {_work(cost.sharpening_hours)} of them"
        f" sharpening{medium}{line}, on {counted(cost.days, 'day')}."
    )


def hours_words(way: CutWay) -> str:
    """What the hours at hand are enough for; empty where none were said."""
    if way.in_hours is None:
        return ""
    if way.in_hours == 0:
        return "The hours at hand are not enough for one edge a blade."
    edges = f"The hours at hand are enough for {counted(way.in_hours, 'edge')} a blade"
    if way.in_hours == 1:
        edges += ", which is an anecdote with a number"
    shows = way.shows_percent
    return f"{edges}; differences of {shows:.0f} % and more show." if shows else f"{edges}."


def missing_words(way: CutWay | SoakWay) -> str:
    """What it takes that is not in hand; empty for nothing."""
    lacking = [label for key, label in IN_HAND.items() if key in way.missing]
    return f"Not in hand: {listed(lacking)}." if lacking else ""


def soak_cost_words(way: SoakWay) -> str:
    """How long a soak waits, and how often somebody looks."""
    looks = counted(len(way.method.look_h), "inspection")
    late = "" if way.fits_hours else "; that is longer than the hours at hand"
    return f"{_waiting(way.method.hours)} of waiting, {looks}{late}."


def found_words(found: WaysFound) -> str:
    """How many ways there are, and how many with what is in hand."""
    every: list[CutWay | SoakWay] = [*found.cuts, *found.soaks]
    if not every:
        return "No way of cutting or soaking answers this."
    ready = sum(not way.missing for way in every)
    ways = counted(len(every), "way")
    if ready == len(every):
        return f"{ways} of testing can answer this with what is in hand."
    return f"{ways} of testing can answer this; {ready or 'none'} with what is in hand."


def _work(hours: float) -> str:
    """Working hours stay hours: a day of them is not 24."""
    return f"{hours:.0f} h" if hours >= 10 else f"{hours:.1f} h"


def _waiting(hours: float) -> str:
    return f"{hours / 24:.0f} days" if hours >= 72 else f"{hours:.0f} h"
