"""Coatings that were worn before or in a soak: scratches by what wore them."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.corrosion.soaks import Act, Soak


@dataclass(frozen=True)
class Worn:
    """What a coupon went through of one kind (`by`: cuts in board, sand): how much in all, and the
    last grade of its scratches, 0 none to 5 bare steel; None where none was given.
    """

    coupon_id: str
    by: str
    amount: float
    grade: int | None = None


@dataclass(frozen=True)
class WearOrder:
    """Coatings by the mean grade of their scratches after one kind of wear, the least first; levels
    within half a grade of each other share a place.
    """

    by: str
    places: tuple[tuple[tuple[str, float], ...], ...]


_ALIKE_GRADES = 0.5
"""A rater differs from himself by about half a grade of scratches; common practice, no source."""


def worn_of(acts: Sequence[Act]) -> tuple[Worn, ...]:
    """What each coupon went through, kind by kind, in the order it was first noted."""
    found: dict[tuple[str, str], Worn] = {}
    for act in acts:
        if act.kind != "worn" or act.struck:
            continue
        key = (act.coupon_id, act.said.strip())
        before = found.get(key)
        amount = (act.amount or 0.0) + (before.amount if before else 0.0)
        earlier = before.grade if before else None
        grade = earlier if act.scratch_grade is None else act.scratch_grade
        found[key] = Worn(*key, amount, grade)
    order = {coupon_id: place for place, (coupon_id, _) in reversed(list(enumerate(found)))}
    return tuple(sorted(found.values(), key=lambda worn: order[worn.coupon_id]))


def wear_orders(soak: Soak, worn: Sequence[Worn]) -> tuple[WearOrder, ...]:
    """For each kind of wear that two coatings or more were graded after, who was scratched least.

    A worked example: grades 1 and 2 of one coating and 4 of another are 1.5 and 4.
    """
    found = []
    for by in dict.fromkeys(each.by for each in worn):
        grades: dict[str, list[int]] = {}
        for each in worn:
            coupon = soak.coupon(each.coupon_id)
            if each.by == by and each.grade is not None and coupon is not None:
                grades.setdefault(coupon.coating, []).append(each.grade)
        if len(grades) > 1:
            means = [(coating, float(np.mean(own))) for coating, own in grades.items()]
            found.append(WearOrder(by, _places(sorted(means, key=lambda pair: pair[1]))))
    return tuple(found)


def _places(ordered: Sequence[tuple[str, float]]) -> tuple[tuple[tuple[str, float], ...], ...]:
    groups: list[list[tuple[str, float]]] = []
    for each in ordered:
        if groups and each[1] - groups[-1][0][1] < _ALIKE_GRADES:
            groups[-1].append(each)
        else:
            groups.append([each])
    return tuple(tuple(group) for group in groups)
