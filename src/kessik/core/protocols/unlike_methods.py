"""What two versions of a method do not agree on, of what matters to a result."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Literal

from kessik.core.protocols.checks import CHECKS, CheckSpec
from kessik.core.protocols.methods import Method, Stage

Compared = Literal[
    "medium", "cut", "surface", "count_unit", "contact_mm", "zone_length_mm", "stations_mm",
    "dose", "recipe",
]  # fmt: skip
_COMPARED: tuple[Compared, ...] = Compared.__args__  # type: ignore[attr-defined]


@dataclass(frozen=True)
class UnlikeField:
    """A field of the method with its two values."""

    field: Compared
    before: object
    after: object


@dataclass(frozen=True)
class UnlikeCheck:
    """A check that one version lacks, or that both do in different ways; `name` is what it is
    called.
    """

    name: str
    before: CheckSpec | None
    after: CheckSpec | None


@dataclass(frozen=True)
class UnlikeStages:
    """Stages that pass or fail, lost by unlike rules."""

    before: Method
    after: Method


MethodDifference = UnlikeField | UnlikeCheck | UnlikeStages


def differences(old: Method, new: Method) -> list[MethodDifference]:
    """What two versions of a method do not agree on, of what matters to the result; empty where
    runs may be pooled.

    Schedule, names, notes and cautions do not matter: estimates take care of the one, and the rest
    moves no edge. A force limit that moved does not either: readings answer for any limit they
    reached.
    """
    return [*_unlike_fields(old, new), *_unlike_checks(old, new), *_unlike_stages(old, new)]


def _unlike_fields(old: Method, new: Method) -> Iterator[UnlikeField]:
    for field in _COMPARED:
        before, after = getattr(old, field), getattr(new, field)
        if before != after:
            yield UnlikeField(field, before, after)


def _unlike_checks(old: Method, new: Method) -> Iterator[UnlikeCheck]:
    own = [spec.kind for method in (old, new) for spec in method.checks]
    for kind in dict.fromkeys([*CHECKS, *own]):
        before, after = old.spec(kind), new.spec(kind)
        present = before or after
        if present is not None and _matters(before) != _matters(after):
            yield UnlikeCheck(present.row.name, before, after)


def _matters(spec: CheckSpec | None) -> object:
    """What of a check moves a result: tries of one that is judged do, readings of force do not."""
    if spec is None:
        return None
    return spec.material or "", spec.readings if spec.row.is_judged else 0, spec.own


def _unlike_stages(old: Method, new: Method) -> Iterator[UnlikeStages]:
    if _judged(old) != _judged(new):
        yield UnlikeStages(old, new)


def _judged(method: Method) -> list[Stage]:
    return [replace(s, limit_gf=None) for s in method.stages if s.limit_gf is None]
