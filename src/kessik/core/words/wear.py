"""Coatings that were worn, in words."""

from kessik.core.corrosion.answer import SoakAnswer
from kessik.core.corrosion.soaks import Soak
from kessik.core.corrosion.wear import WearOrder, Worn
from kessik.core.words.matching import and_words
from kessik.core.words.sentences import as_sentence
from kessik.core.words.soak_levels import level_name


def worn_words(worn: Worn) -> str:
    """What a coupon went through, with the grade of its scratches."""
    amount = f"{worn.amount:g} " if worn.amount else ""
    grade = "" if worn.grade is None else f", scratches of grade {worn.grade}"
    return f"{amount}{worn.by}".strip() + grade


def wear_words(order: WearOrder) -> str:
    """Who was scratched least by one kind of wear."""
    groups = [
        and_words([f"{level_name(coating, 'coating')} ({grade:.2g})" for coating, grade in place])
        for place in order.places
    ]
    if len(groups) == 1:
        return f"After {order.by}: {groups[0]} are scratched alike."
    return f"After {order.by}, scratched least first: {', then '.join(groups)}."


def coating_words(soak: Soak, answer: SoakAnswer) -> list[str]:
    """Which coating held both parts of a coating trial, wear and rust, which are kept apart."""
    if soak.factor != "coating" or not answer.worn:
        return []
    return [*map(wear_words, answer.wear), *_both_words(soak, answer)]


def _both_words(soak: Soak, answer: SoakAnswer) -> list[str]:
    by_id = {s.coupon_id: s.area.middle for s in answer.ranking.standings}
    scratched: dict[str, list[float]] = {}
    rusted: dict[str, list[float]] = {}
    for coupon in soak.coupons:
        marks = _marks([worn for worn in answer.worn if worn.coupon_id == coupon.id])
        if marks is not None and coupon.id in by_id:
            scratched.setdefault(coupon.coating, []).append(marks)
            rusted.setdefault(coupon.coating, []).append(by_id[coupon.id])
    if len(scratched) < 2:
        return []
    names = [level_name(_least(found), "coating") for found in (scratched, rusted)]
    if names[0] == names[1]:
        return [
            f"{as_sentence(names[0])} is best in both: the fewest scratches and the least rust."
        ]
    return [f"No blade is best in both: {names[0]} was scratched least, {names[1]} rusted least."]


def _marks(own: list[Worn]) -> float | None:
    """How scratched a coupon is: the mean of its grades, else the scratches that were counted."""
    grades = [worn.grade for worn in own if worn.grade is not None]
    if grades:
        return sum(grades) / len(grades)
    counts = [worn.amount for worn in own if "scratch" in worn.by]
    return sum(counts) if counts else None


def _least(found: dict[str, list[float]]) -> str:
    return min(found, key=lambda coating: sum(found[coating]) / len(found[coating]))
