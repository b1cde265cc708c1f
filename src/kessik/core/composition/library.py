"""The library of grades: ours by standard designation, with the tester's own word over it."""

import re
from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import replace
from functools import lru_cache
from typing import get_args

from kessik.core.composition.grades import Equivalent, Grade, Nearness, Range, Route
from kessik.core.composition.library_text import BLOCKS, EQUIVALENTS

UNCONFIRMED = "unconfirmed"
_USUAL_SOURCE = "common practice, unconfirmed"


@lru_cache(maxsize=1)
def our_grades() -> Mapping[str, Grade]:
    """Every grade of our own table by its designation."""
    equivalents = _equivalents()
    found = {}
    for standard, route, common, lines in BLOCKS:
        assert route in get_args(Route), route
        made_by: Route = next(known for known in get_args(Route) if known == route)
        for line in _whole_lines(lines):
            grade = _grade(line, standard, made_by, common)
            found[grade.name] = replace(grade, equivalents=tuple(equivalents[grade.name]))
    return found


def library(own: Iterable[Grade]) -> dict[str, Grade]:
    """Every grade by its designation; what the tester's own say takes the place of ours, and what
    they leave open stays as ours has it.
    """
    ours = our_grades()
    return {**ours, **{grade.name: _over(grade, ours.get(grade.name)) for grade in own}}


def _over(own: Grade, ours: Grade | None) -> Grade:
    if ours is None:
        return own
    kept = own
    if own.usual_low_hrc is None:
        kept = replace(
            kept,
            usual_low_hrc=ours.usual_low_hrc,
            usual_high_hrc=ours.usual_high_hrc,
            standing=ours.standing,
            source=ours.source,
        )
    return replace(
        kept,
        also=own.also or ours.also,
        standard=own.standard or ours.standard,
        route=own.route or ours.route,
        ranges=own.ranges or ours.ranges,
        equivalents=own.equivalents or ours.equivalents,
    )


def _whole_lines(text: str) -> list[str]:
    return re.sub(r"\n +", " ", text.strip()).splitlines()


def _grade(line: str, standard: str, route: Route, common: str) -> Grade:
    names, hardness, ranges = (part.strip() for part in line.split(" : "))
    name, *also = (part.strip() for part in names.split(","))
    low, high = _ends(hardness)
    source = f"{standard}, {UNCONFIRMED}"
    every = [_range(part, source) for part in (*ranges.split(";"), *common.split(";"))]
    return Grade(
        name,
        low,
        high,
        "guessed",
        _USUAL_SOURCE if low is not None else "",
        tuple(also),
        standard,
        route,
        tuple(every),
    )


def _range(text: str, source: str) -> Range:
    symbol, ends = text.split()
    low, high = _ends(ends)
    return Range(symbol, low, high, "recalled", source)


def _ends(text: str) -> tuple[float | None, float | None]:
    low, high = text.split("-")
    return (float(low) if low else None, float(high) if high else None)


def _equivalents() -> Mapping[str, list[Equivalent]]:
    found: dict[str, list[Equivalent]] = defaultdict(list)
    for line in EQUIVALENTS.strip().splitlines():
        for name, other, nearness in _pairs(line):
            found[name].append(Equivalent(other, nearness))
            found[other].append(Equivalent(name, nearness))
    return found


def _pairs(line: str) -> Iterator[tuple[str, str, Nearness]]:
    """Every two names of a line of equivalents that are the same steel, or near to each other."""
    same_part, *near = re.split(r"\s*~\s*", line.strip())
    same = re.split(r"\s*=\s*", same_part)
    for place, name in enumerate(same):
        yield from ((name, other, "same") for other in same[place + 1 :])
        yield from ((name, other, "near") for other in near)
