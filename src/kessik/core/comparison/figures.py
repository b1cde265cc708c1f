"""What a run shows besides lives: end readings of a dose, depth cut, effort by layers; and blades
compared by them.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kessik.core.comparison.lives import Measured
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import RunSeries, by_count
from kessik.core.protocols.stop_rules import mean_force_gf
from kessik.core.spreads import READING_SCATTER

INITIAL_CYCLES = 3


@dataclass(frozen=True)
class FigureKind:
    """A figure: its name for people, unit, and which way is better; `compared` where ratios of it
    make sense.

    `more` says in words what a larger value does.
    """

    label: str
    unit: str
    better: Literal["low", "high", ""]
    compared: bool = False
    more: str = ""


KINDS: Mapping[str, FigureKind] = {
    "end_gf": FigureKind("reading after the dose", "gf", "low", True, "ends duller than"),
    "change_gf": FigureKind("change over the dose", "gf", "low"),
    "change_percent": FigureKind("change on its own start", "%", "low"),
    "control_gf": FigureKind("zone beside it, after the dose", "gf", ""),
    "initial_cutting_mm": FigureKind(
        "depth in the first 3 cycles", "mm", "high", True, "cuts deeper at first than"
    ),
    "edge_retention_mm": FigureKind(
        "depth over all cycles", "mm", "high", True, "cuts more card than"
    ),
    "mean_effort": FigureKind("mean effort", "of 10", "low"),
    "mean_rank": FigureKind("mean rank", "", "low"),
}


def run_figures(run: RunSeries, method: Method) -> dict[str, float]:
    """The figures of one run, by name; the initial depth is the sum of three cycles, retention of
    all [1].

    References
    ----------
    [1] ISO 8442-5, cutlery: sharpness and edge retention test; from memory.
    """
    return {**_dose_figures(run, method), **_depth_figures(run), **_effort_figures(run, method)}


def _dose_figures(run: RunSeries, method: Method) -> dict[str, float]:
    groups = list(by_count(run.force_checks()))
    dose = method.dose
    if dose is None or len(groups) < 2 or groups[-1][0] < dose:
        return {}
    start, end = mean_force_gf(groups[0][1]), mean_force_gf(groups[-1][1])
    found = {"end_gf": end, "change_gf": end - start, "change_percent": 100.0 * (end / start - 1.0)}
    beside = [c for c in run.control_checks() if c.count >= dose and c.force_gf is not None]
    if beside:
        found["control_gf"] = mean_force_gf(beside)
    return found


def _depth_figures(run: RunSeries) -> dict[str, float]:
    depths = {check.count: check.value for check in run.values("depth") if check.value is not None}
    if not depths:
        return {}
    found = {"edge_retention_mm": math.fsum(depths.values())}
    first = [depths[n] for n in range(1, INITIAL_CYCLES + 1) if n in depths]
    if len(first) == INITIAL_CYCLES:
        found["initial_cutting_mm"] = math.fsum(first)
    return found


def _effort_figures(run: RunSeries, method: Method) -> dict[str, float]:
    """Mean effort over every layer of the method; over some of them it would compare with
    nothing.
    """
    found = {}
    for kind in ("effort", "rank"):
        values = [check.value for check in run.values(kind) if check.value is not None]
        if values and {check.count for check in run.values(kind)} >= set(method.at):
            found[f"mean_{kind}"] = float(np.mean(values))
    return found


def measured(name: str, value: float, run: RunSeries, method: Method) -> Measured:
    """A figure with its own error: reading scatter over the replicates it is a mean of (common
    practice, no source, but for forces of a gauge that was studied).
    """
    replicates, scatter = 1, READING_SCATTER
    if name == "end_gf":
        scatter = method.force_scatter
        replicates = max(len(list(by_count(run.force_checks()))[-1][1]), 1)
    elif name in ("initial_cutting_mm", "edge_retention_mm"):
        replicates = (
            max(len(run.values("depth")), 1) if name == "edge_retention_mm" else INITIAL_CYCLES
        )
    return Measured(math.log(value), scatter / math.sqrt(replicates))
