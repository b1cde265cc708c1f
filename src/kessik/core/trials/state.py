"""A trial as it stands: its blades, and its runs with their logs folded; no curve is fitted."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from kessik.core.planning.order import Place
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import RunState
from kessik.core.protocols.series import by_count
from kessik.core.protocols.stop_rules import mean_force_gf
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.blinding import Sealing
from kessik.core.trials.trial import MethodVersion, Trial

UNDER_WAY = ("fresh", "cutting", "paused")


@dataclass(frozen=True)
class TrialRun:
    """A run with whose it is, how it stands, and the method it was cut under."""

    method: Method
    run: Run
    blade: Blade
    edge: Edge
    state: RunState

    @property
    def counts(self) -> bool:
        """Whether it stands in comparisons."""
        return self.run.compares and self.state.status != "abandoned"

    @property
    def start(self) -> tuple[float, int] | None:
        """The mean force of the first check, gf, and its number of readings; None without one."""
        first = next(by_count([c for c in self.state.force_checks if not c.struck]), None)
        return None if first is None else (mean_force_gf(first[1]), len(first[1]))

    @property
    def worn_share(self) -> float:
        """How far the edge is worn, for drawing: its readings towards the last limit, stages lost,
        or the dose done.
        """
        method, state = self.method, self.state
        end = method.end_stage
        if end is not None and end in state.stages:
            return 1.0
        if method.dose:
            return min(state.count / method.dose, 1.0)
        limits = method.limits_gf
        forces = [check.force_gf for check in state.force_checks if check.force_gf is not None]
        if not limits or len(forces) < 2:
            return len(state.stages) / max(len(method.stages), 1)
        span = max(limits[-1][1] - forces[0], 1.0)
        return min(max((max(forces[-2:]) - forces[0]) / span, 0.0), 1.0)


def covered(r: TrialRun) -> TrialRun:
    """A run as it may stand beside its blade's name while results are hidden: how it stands, not
    how far it went.
    """
    if r.run.practice:
        return r
    return replace(r, state=replace(r.state, count=0.0, checks=(), stages={}))


@dataclass(frozen=True)
class TrialState:
    """A trial as it stands, its `blades` as the arms it compares.

    `versions` are the methods its runs were cut under, by id; `sealed` says why its answer is
    hidden; `order` is that of a plan that was kept; `codes` stand for its arms, by their ids, while
    they are covered.
    """

    trial: Trial
    blades: tuple[Blade, ...]
    runs: tuple[TrialRun, ...]
    versions: Mapping[str, MethodVersion]
    sealed: Sealing | None = None
    order: tuple[Place, ...] = ()
    codes: Mapping[str, str] = field(default_factory=dict)

    @property
    def noun(self) -> str:
        """What the trial compares: blades, or arms where one carries several."""
        return "arm" if any(blade.arm for blade in self.blades) else "blade"

    @property
    def is_under_way(self) -> bool:
        """Whether a counted run is begun and not ended."""
        return any(r.state.status in UNDER_WAY and not r.run.practice for r in self.runs)
