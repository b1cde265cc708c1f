"""What is known of blades and their edges where they are compared, and the trial's stand on it."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from kessik.core.comparison.findings import Claimed, Mismatch, Open
from kessik.core.comparison.variables import VARIABLES, Variable
from kessik.core.facts import MEASURED, Expected, Provenance
from kessik.core.sharpening.settled import Settled
from kessik.core.spreads import READING_SCATTER

HardnessReading = Literal["same_hardness", "as_usually_hardened"]
MatchState = Literal["matched", "factor", "confounded", "pending"]


@dataclass(frozen=True)
class Fact:
    """A value with how it is known; `value` None where it is not. `stale` tells of one that was."""

    value: float | str | None = None
    standing: Provenance = "measured_here"
    kind: str = ""
    readings: float = 1
    stale: Expected | None = None

    @property
    def evidence(self) -> bool:
        return self.value is not None and self.standing in MEASURED


EdgeValue = Fact | float | str | None


@dataclass(frozen=True)
class BladeFacts:
    """What is known of one blade and of the edges it was (or will be) cut with.

    `edges` holds, by variable name, one value per edge; `own` the facts of the blade itself.
    A micro-bevel of 0 says that there is none. `settled` tells of each edge whether it counts.
    `body` is the blade that carries it, where several arms may share one.
    """

    code: str
    grade: str | None = None
    hardness_hrc: Fact = field(default_factory=Fact)
    usual_hardness_hrc: tuple[float, float] | None = None
    edges: Mapping[str, Sequence[EdgeValue]] = field(default_factory=dict)
    own: Mapping[str, Fact] = field(default_factory=dict)
    settled: Sequence[tuple[int, Settled]] = ()
    body: str = ""
    claim: Claimed | None = None


@dataclass(frozen=True)
class MatchingRule:
    """The trial's stand: its factor, which reading of hardness it takes, and what it knowingly
    holds loosely.

    `tolerances` and `effects` (per cent of life a unit) replace the defaults by variable name;
    variables `let_go` are knowingly not held equal; `scale_edge_length` puts counts on one edge
    length instead of matching lengths.
    """

    factor: str = "steel"
    hardness_reading: HardnessReading = "same_hardness"
    tolerances: Mapping[str, float] = field(default_factory=dict)
    effects: Mapping[str, float] = field(default_factory=dict)
    let_go: tuple[str, ...] = ()
    scale_edge_length: bool = False

    def tolerance(self, variable: Variable) -> float:
        return self.tolerances.get(variable.name, variable.tolerance)

    def effect(self, variable: Variable) -> float | None:
        return self.effects.get(variable.name, variable.life_percent_per_unit)

    def held(self, variables: Sequence[Variable] = VARIABLES) -> list[Variable]:
        """The variables of a table that this trial looks at."""
        return [v for v in variables if v.name not in self.let_go]


@dataclass(frozen=True)
class Cell:
    """One blade at one variable: value, how it is shown, standing, state, and what was found where
    it is not simply matched.
    """

    blade: str
    variable: str
    value: float | str | None
    shown: str
    standing: Provenance | None
    state: MatchState
    finding: Mismatch | Open | None = None


def shown_by_runs(
    known: BladeFacts,
    starts: Sequence[tuple[float, int]],
    lengths_mm: Sequence[float | None],
    force_scatter: float = READING_SCATTER,
) -> BladeFacts:
    """The facts of a blade with what its runs show in place of what was recorded before: the mean
    force (gf) and number of first readings, and the length of edge that worked. Readings of a gauge
    that scatters by `force_scatter` (s.d. of ln) count as the usual ones that they are worth.
    """
    edges: dict[str, Sequence[EdgeValue]] = dict(known.edges)
    if starts:
        worth = (READING_SCATTER / force_scatter) ** 2
        edges["start_gf"] = [Fact(start_gf, readings=worth * count) for start_gf, count in starts]
    if lengths_mm and None not in lengths_mm:
        edges["edge_length_mm"] = lengths_mm
    return replace(known, edges=edges)


def shared_blade(blades: Sequence[BladeFacts]) -> str:
    """The blade that carries all of these arms; empty where there are several."""
    bodies = {blade.body for blade in blades}
    return bodies.pop() if len(bodies) == 1 and len(blades) > 1 else ""
