"""Arms: what a trial compares. An arm is a blade, or a blade under a stated preparation.

Where a trial states no preparations every blade is its own arm. One blade may carry several arms;
then everything about the blade itself is alike in them, and cancels out of their ratio.
"""

from collections import Counter
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from itertools import count

from kessik.core.errors import NotAllowedNowError, OutOfRangeError
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.trial import Trial


def arms_of(blades: Sequence[Blade], runs: Sequence[Run]) -> tuple[Blade, ...]:
    """The arms of a trial in their order, each as its blade with a code and a mark of its own.

    An arm is called by its preparation where only one blade carries it, else by both. A run under a
    preparation that the trial does not state is an arm, too: nothing that was cut is hidden.
    """
    names = {blade.id: _names(blade, runs) for blade in blades}
    carried = Counter(name.casefold() for own in names.values() for name in own if name)
    taken = {blade.code.casefold() for blade in blades}
    free_marks = (mark for mark in count(1) if mark not in {blade.mark for blade in blades})
    found = []
    for blade in blades:
        for place, name in enumerate(names[blade.id]):
            alone = carried[name.casefold()] == 1 and name.casefold() not in taken
            arm = replace(
                blade,
                code=(name if alone else f"{blade.code} {name}") if name else blade.code,
                mark=blade.mark if place == 0 else next(free_marks),
                arm=name,
                blade_code=blade.code,
            )
            if names[blade.id] != ("",):
                arm = replace(arm, arm_edge_ids=_edge_ids(arm, names[blade.id], runs))
            found.append(arm)
    return tuple(found)


def _names(blade: Blade, runs: Iterable[Run]) -> tuple[str, ...]:
    """The arms of a blade: as the trial states them, then others that its counted runs tell."""
    edges = {edge.id: edge for edge in blade.edges}
    own = [run for run in runs if run.edge_id in edges and not run.practice]
    if not blade.arms and not any(run.arm for run in own):
        return ("",)
    cut = [run.arm or edges[run.edge_id].arm for run in own]
    return tuple(dict.fromkeys([*blade.arms, *cut]))


def _edge_ids(arm: Blade, names: Sequence[str], runs: Iterable[Run]) -> frozenset[str]:
    """The edges prepared as this arm; those of no arm of the trial stand with the blade itself."""
    prepared = {
        edge.id
        for edge in arm.edges
        if edge.arm == arm.arm or (not arm.arm and edge.arm not in names)
    }
    named = {run.edge_id for run in runs if run.arm == arm.arm and run.arm}
    return frozenset(prepared | named)


def check_arms(trial: Trial, blade: Blade, arms: Sequence[str]) -> tuple[str, ...]:
    """The arms as they are kept. OutOfRangeError for a name that is empty or stands twice, and
    NotAllowedNowError once codes were drawn for them.
    """
    stated = tuple(name.strip() for name in arms)
    if stated == blade.arms:
        return stated
    if trial.is_blind:
        raise NotAllowedNowError(
            "this trial is blind: its codes were drawn for the arms it has", field="arms"
        )
    if not all(stated):
        raise OutOfRangeError("give every arm a name, like coarse or stropped", field="arms")
    if len({name.casefold() for name in stated}) < len(stated):
        raise OutOfRangeError("two arms of one blade cannot have the same name", field="arms")
    if len(stated) == 1:
        raise OutOfRangeError(
            f"one arm alone is {blade.code} itself; name two or more, or none", field="arms"
        )
    return stated


def arm_and_edge(arms: Sequence[Blade], run: Run) -> tuple[Blade, Edge]:
    """The arm that a run was cut for, and its edge; IndexError where no blade has the edge."""
    return _cut_as(
        run, [(arm, edge) for arm in arms for edge in arm.edges if edge.id == run.edge_id]
    )


def arms_and_edges(arms: Sequence[Blade], runs: Iterable[Run]) -> Iterator[tuple[Blade, Edge]]:
    """The same of many runs; KeyError where no blade has the edge."""
    by_edge: dict[str, list[tuple[Blade, Edge]]] = {}
    for arm in arms:
        for edge in arm.edges:
            by_edge.setdefault(edge.id, []).append((arm, edge))
    return (_cut_as(run, by_edge[run.edge_id]) for run in runs)


def _cut_as(run: Run, own: Sequence[tuple[Blade, Edge]]) -> tuple[Blade, Edge]:
    cut_as = ((arm, edge) for arm, edge in own if arm.arm == (run.arm or edge.arm))
    return next(cut_as, own[0])


def blades_of(arms: Sequence[Blade]) -> list[Blade]:
    """The blades that carry these arms, each once and under its own code."""
    by_id = {arm.id: arm for arm in reversed(arms)}
    return [
        replace(by_id[id], code=by_id[id].own_code, arm="", blade_code="", arm_edge_ids=None)
        for id in dict.fromkeys(arm.id for arm in arms)
    ]
