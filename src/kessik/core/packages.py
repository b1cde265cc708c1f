"""Trials sent from tester to tester: what may be left out, and what came of bringing them in."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal, get_args

FORMAT = "kessik-package"
"""What the records of a package say that they are."""
Hidden = Literal["owners", "prices", "notes"]
HIDDEN: tuple[Hidden, ...] = get_args(Hidden)

ReportKind = Literal["pdf", "html", "xlsx"]
ChartKind = Literal["svg", "png"]
Came = Literal["new", "newer", "same", "older", "changed_here"]


@dataclass(frozen=True)
class CameTrial:
    """A trial of a package, and what it was beside what is here."""

    id: str
    name: str
    came: Came


@dataclass(frozen=True)
class RenumberedEdge:
    """A sharpening whose number another one of the blade has here."""

    blade: str
    number_there: int
    number_here: int


@dataclass(frozen=True)
class PackageBrought:
    """What a package brought: its trials, whose they are, edges that have another number here, and
    by their codes there the blades that have another code here.
    """

    tester: str
    trials: tuple[CameTrial, ...]
    renumbered: tuple[RenumberedEdge, ...] = ()
    renamed: Mapping[str, str] = field(default_factory=dict)

    def count(self, came: Came) -> int:
        """How many trials were so."""
        return sum(1 for trial in self.trials if trial.came == came)
