"""What the factor of a soak did, in words: levels in order, all of them named."""

from kessik.core.corrosion.levels import LevelEntry, LevelOrder
from kessik.core.words.matching import and_words
from kessik.core.words.rust import area_words, percent_words
from kessik.core.words.sentences import as_sentence, counted

_WITHOUT = {
    "oil": "dry", "coating": "uncoated", "polished_before": "as it was", "exposed_before": "new",
    "flat_finish": "unknown finish", "degreased_with": "not degreased", "steel": "unnamed steel",
    "heat_treatment": "unknown heat treatment",
}  # fmt: skip


def level_name(level: str, factor: str) -> str:
    """A level of the factor as it is called."""
    if not level:
        return _WITHOUT[factor]
    return f"oiled with {level}" if factor == "oil" else level


def levels_words(order: LevelOrder, factor: str) -> str:
    """The levels from the least rust to the most; two of them as one beside the other."""
    if len(order.entries) == 2 and not order.unlinked:
        return _two_words(order, factor)
    places = [[level_name(level, factor) for level in place] for place in order.places]
    if len(places) == 1:
        said = f"{as_sentence(and_words(places[0]))} are tied: this soak cannot tell them apart."
    else:
        groups = (f"{and_words(p)} together" if len(p) > 1 else p[0] for p in places)
        said = f"Least rust first: {', then '.join(groups)}{_over(order, factor)}."
    if order.unlinked:
        others = and_words([level_name(level, factor) for level in order.unlinked])
        said += f" Not compared, as nothing else alike was exposed beside: {others}."
    return said


def _two_words(order: LevelOrder, factor: str) -> str:
    less, more = (level_name(entry.level, factor) for entry in order.entries)
    if order.contrary:
        return f"{as_sentence(less)} against {more}: one way here and the other there."
    if len(order.places) == 1:
        return f"{as_sentence(less)} and {more} cannot be told apart by this soak."
    if factor == "steel":
        return f"{as_sentence(less)} rusted less than {more}{_over(order, factor)}."
    pairs = f"{order.apart} of {order.blocks} pairs"
    if order.apart == order.blocks:
        pairs = {1: "the one pair", 2: "both pairs"}.get(order.blocks, f"all {order.blocks} pairs")
    return f"{as_sentence(less)} rusted less than {more}, told apart on {pairs}."


def _over(order: LevelOrder, factor: str) -> str:
    most = max(len(entry.coupons) for entry in order.entries)
    if factor == "steel":
        return f", over up to {counted(most, 'blade')} of each"
    return {1: ", by one coupon of each", 2: ", by two coupons of each"}.get(
        most, f", by up to {most} coupons of each"
    )


def level_entry_words(entry: LevelEntry) -> str:
    """The area of a level, and from where to where its coupons lie."""
    if len(entry.coupons) == 1:
        return area_words(entry.area)
    least, most = (percent_words(area.middle) for area in (entry.least, entry.most))
    over = f"{percent_words(entry.area.middle)} % over {len(entry.coupons)} coupons"
    return f"{over}, from {least} to {most} %"
