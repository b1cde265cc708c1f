"""The blades of one stage whose counts go on one scale, with their edges as the comparison takes
them.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from kessik.core.comparison.levels import Place, levelled, log_life_of
from kessik.core.comparison.lives import BladeEdges, Bracket, EdgeLife, Measured
from kessik.core.comparison.results import RunResult
from kessik.core.media import cuts_at_reference_length
from kessik.core.protocols.series import RunSeries
from kessik.core.sharpness.life import (
    AsWritten,
    BeforeFirstCheck,
    Bracketed,
    Crossed,
    NotReached,
    RunLife,
)
from kessik.core.spreads import flat_sd
from kessik.core.units import MM_PER_LENGTH

"""A flat interval is that many times as wide as its standard deviation."""
_LEAST_SD = 1e-3


@dataclass(frozen=True)
class StageGroup:
    """The blades of one stage whose counts go on one scale, with their runs."""

    stage: str
    runs: Mapping[str, Sequence[RunResult]]
    reference_mm: float | None
    in_blocks: bool

    def edges_of(self, code: str, without: int | None = None) -> BladeEdges:
        """The independent edges of a blade as the comparison takes them."""
        own = [r for r in self.runs[code] if r.run.edge != without]
        unreached = all(isinstance(r.lives[self.stage].life.found, NotReached) for r in own)
        zones: dict[int, list[RunResult]] = {}
        for result in own:
            zones.setdefault(result.run.edge, []).append(result)
        edges, blocks = [], []
        for alike in zones.values():
            cut_in = sorted({r.run.block or 0 for r in alike})
            has_levels = self.in_blocks and len(cut_in) > 1
            merged = self._over_zones(alike, has_levels) if len(alike) > 1 else None
            lives = [
                edge_life(r.lives[self.stage], self.scale(r.run), is_open=unreached) for r in alike
            ]
            edges.append((merged,) if merged is not None else tuple(lives))
            blocks.append(_block_of(cut_in))
        return BladeEdges(code, tuple(edges), tuple(blocks) if self.in_blocks else ())

    def _over_zones(self, zones: Sequence[RunResult], has_levels: bool) -> Measured | None:
        """One edge by the mean of its zones' ln lives, with the standard error of that; None where
        an end is open. Where zones were cut in several blocks (`has_levels`), the levels of those
        cancel against another edge cut in the same, and tell nothing of the error.
        """
        known = [log_life_of(r.lives[self.stage].life.found) for r in zones]
        told = [each for each in known if each is not None]
        if len(told) < len(zones):
            return None
        logs = np.array([life for life, _ in told]) + np.log([self.scale(r.run) for r in zones])
        of_checks = float(np.mean(np.square([sd for _, sd in told])))
        of_zones = 0.0 if has_levels else float(np.var(logs, ddof=1))
        error = float(np.sqrt((of_checks + of_zones) / len(told)))
        return Measured(float(np.mean(logs)), max(error, _LEAST_SD))

    def scale(self, run: RunSeries) -> float:
        """What a count of this run is multiplied by before lives are compared: unit of length, and
        edge length.
        """
        unit = MM_PER_LENGTH.get(run.count_unit, 1.0)
        return unit * length_factor(run, self.reference_mm)


def _block_of(blocks: Sequence[int]) -> int:
    """The block of an edge; one number below zero for each set of several."""
    if len(blocks) == 1:
        return blocks[0]
    return -int("".join(f"{block:05d}" for block in blocks))


def length_factor(run: RunSeries, reference_mm: float | None) -> float:
    if reference_mm is None or run.edge_length_used_mm is None:
        return 1.0
    return cuts_at_reference_length(1.0, run.edge_length_used_mm, reference_mm)


def in_blocks(runs: Mapping[str, Sequence[RunResult]]) -> bool:
    """Whether every run tells its block, and there are several; then only what one block saw of
    both blades of a pair compares them.
    """
    blocks = [r.run.block for own in runs.values() for r in own]
    return None not in blocks and len(set(blocks)) > 1


def log_lives(group: StageGroup, code: str) -> dict[int, float]:
    """Ln lives of a blade's edges whose ends are known, by their numbers; zones of one edge are its
    mean. Where blades were cut in blocks, without the levels of those.
    """
    inside = _inside_blocks(group)
    by_edge: dict[int, list[float]] = {}
    if not inside and not (group.in_blocks and len(group.runs) > 1):
        inside = _places(group)
    for (blade, edge, _), log_life in inside.items():
        if blade == code:
            by_edge.setdefault(edge, []).append(log_life)
    return {edge: float(np.mean(zones)) for edge, zones in by_edge.items()}


def _places(group: StageGroup) -> dict[Place, float]:
    found: dict[Place, list[float]] = {}
    for code, own in group.runs.items():
        for r in own:
            told = log_life_of(r.lives[group.stage].life.found)
            if told is not None:
                place = (code, r.run.edge, r.run.block or 0)
                found.setdefault(place, []).append(told[0] + float(np.log(group.scale(r.run))))
    return {place: float(np.mean(zones)) for place, zones in found.items()}


def _inside_blocks(group: StageGroup) -> dict[Place, float]:
    """Ln lives of the edges without the levels of their blocks; empty where there are no blocks of
    several blades, or too few edges to tell.
    """
    if not group.in_blocks or len(group.runs) < 2:
        return {}
    return levelled(_places(group))


def edge_life(life: RunLife, scale: float, is_open: bool = False) -> EdgeLife:
    """A life as the comparison takes it, its counts multiplied by a scale; `is_open` where nothing
    of the blade tells how far it would go.
    """
    found = life.life.found
    if life.likelihood is not None and not (is_open and isinstance(found, NotReached)):
        edge = life.likelihood
        return edge if scale == 1.0 else replace(edge, log_life=edge.log_life + np.log(scale))
    match found:
        case Bracketed(last_pass, first_fail):
            return Bracket(last_pass * scale, first_fail * scale)
        case AsWritten(at, gap) if gap is not None and not found.is_assumed:
            return Bracket(found.low * scale, at * scale)
        case AsWritten(at, gap):
            return Measured(float(np.log(at * scale)), flat_sd((gap or 0.0) / at))
        case BeforeFirstCheck(first_check):
            return Bracket(0.0, max(first_check, 1.0) * scale)
        case NotReached(last_good):
            return Bracket(last_good * scale, None)
        case Crossed(_, low, high):
            return Bracket(low * scale, high * scale)
