"""How edges went after keen, in words: from which count and reading to which."""

from collections.abc import Mapping, Sequence

from kessik.core.sharpness.after_keen import AfterKeen, Fall, Point
from kessik.core.words.matching import and_words

_COURSES = {
    "gradual": "wore on gradually",
    "plateau": "rested on a plateau",
    "cliff": "fell off a cliff",
}


def after_keen_words(blade: str, edges: Mapping[int, AfterKeen], unit: str) -> str:
    """How the edges of a blade went after keen, those that went alike together."""
    alike: dict[str, list[int]] = {}
    for edge, found in edges.items():
        alike.setdefault(found.course, []).append(edge)
    told = []
    for course, numbers in alike.items():
        named = {n: f"edge {n} " if len(edges) > 1 else "" for n in numbers}
        each = "; ".join(_one(edges[n], unit, named[n]) for n in numbers)
        which = f" (edge{'s' if len(numbers) > 1 else ''} {_numbers(numbers)})"
        told.append(f"{_COURSES[course]}{which if len(alike) > 1 else ''}: {each}")
    return f"{blade} after keen {', or '.join(told)}."


def fall_words(found: Fall, unit: str) -> str:
    """A fall: held to about 44 (380 gf), then fell within 4 cuts (640 gf)."""
    gap = found.gone[0] - found.held[0]
    return (
        f"held to about {found.held[0]:g} ({found.held[1]:.0f} gf), then fell within {gap:g} {unit}"
        f" ({found.gone[1]:.0f} gf)"
    )


def _one(found: AfterKeen, unit: str, edge: str) -> str:
    if found.course == "cliff" and found.fall is not None:
        return f"{edge}{fall_words(found.fall, unit)}"
    way = f"{edge}from {_at(found.start)} to {_at(found.end)} {unit}"
    if found.fall is None:
        return way
    gap = found.fall.gone[0] - found.fall.held[0]
    return f"{way}, then fell within {gap:g} {unit} to {found.fall.gone[1]:.0f} gf"


def _at(point: Point) -> str:
    return f"{point[1]:.0f} gf at {point[0]:g}"


def _numbers(numbers: Sequence[int]) -> str:
    return and_words([str(n) for n in numbers])
