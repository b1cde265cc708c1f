"""Which edges of a trial were cut, wait, and count."""

from collections.abc import Collection, Iterable, Sequence

from kessik.core.runs import Run
from kessik.core.sharpening.settled import Settled, SettledRule
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.shelf.facts import settled_edge


def edges_cut(blade: Blade, runs: Iterable[Run]) -> list[Edge]:
    """The edges cut in counted runs."""
    cut = {run.edge_id for run in runs if not run.practice}
    return [edge for edge in blade.own_edges if edge.id in cut]


def edge_waits(blade: Blade, used_up: Collection[str]) -> bool:
    """Whether the newest edge is sharpened and still to be cut; `used_up` holds the ids of edges
    cut in any trial.
    """
    newest = blade.own_edges[-1:]
    return bool(newest) and newest[0].id not in used_up and not newest[0].factory


def edges_in_use(blade: Blade, runs: Iterable[Run], used_up: Collection[str] = ()) -> list[Edge]:
    """The edges a comparison rests on, and the newest one where it is still to be cut.

    `used_up` holds the ids of edges that other trials have cut.
    """
    cut = edges_cut(blade, runs)
    waiting = [edge for edge in blade.own_edges[-1:] if edge not in cut and edge.id not in used_up]
    return [*cut, *waiting]


def left_out(
    blades: Sequence[Blade], runs: Sequence[Run], rule: SettledRule
) -> dict[tuple[str, int], Settled]:
    """The cut edges that do not count, by blade code and number, with the reason.

    Where every edge cut is a factory edge, that is the question, and they are compared with each
    other.
    """
    cut = [(blade, edge) for blade in blades for edge in edges_cut(blade, runs)]
    factory_is_the_question = bool(cut) and all(edge.factory for _, edge in cut)
    found = {}
    for blade, edge in cut:
        state = settled_edge(blade, edge, rule)
        if state.state == "not_yet" or (state.state == "factory" and not factory_is_the_question):
            found[blade.code, edge.number] = state
    return found
