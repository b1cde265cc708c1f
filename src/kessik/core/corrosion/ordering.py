"""An order in which neighbours that cannot be told apart share a place."""

from collections.abc import Callable, Sequence
from typing import TypeVar

T = TypeVar("T")
Apart = Callable[[T, T], bool]


def tied_runs(ordered: Sequence[T], apart: Apart[T]) -> list[list[T]]:
    """The longest runs in which nobody is apart from anybody."""
    runs: list[tuple[int, int]] = []
    for start in range(len(ordered)):
        end = start
        while end + 1 < len(ordered) and not any(
            apart(ordered[i], ordered[end + 1]) for i in range(start, end + 1)
        ):
            end += 1
        if end > start and not any(a <= start and end <= b for a, b in runs):
            runs.append((start, end))
    return [list(ordered[a : b + 1]) for a, b in runs]


def shared_places(ordered: Sequence[T], apart: Apart[T]) -> list[list[T]]:
    """Groups between which everybody is apart from everybody."""
    groups: list[list[T]] = []
    for place, each in enumerate(ordered):
        if not groups or all(apart(each, other) for other in ordered[:place]):
            groups.append([])
        groups[-1].append(each)
    return _until_apart(groups, apart)


def _until_apart(groups: list[list[T]], apart: Apart[T]) -> list[list[T]]:
    """Join groups that a later member ties with an earlier one."""
    done: list[list[T]] = []
    for group in groups:
        while done and any(not apart(a, b) for a in done[-1] for b in group):
            group = done.pop() + group
        done.append(group)
    return done
