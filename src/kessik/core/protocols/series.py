"""The vocabulary of a cut series: checks in their order, as a bench log or a file tells them."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Literal

Outcome = Literal["pass", "fail", "doubt"]
FORCE_STAGES = ("keen", "dull")
DEFAULT_STAGE = {"paper": "working", "shave": "fine", "hair_sample": "fine", "inspect": "deformation"}
DEFORMED = frozenset({"glint", "roll", "chip", "burr"})


@dataclass(frozen=True)
class Check:
    """One look at sharpness: at which count, by what kind of check, and what was found.

    `force_gf` for force checks; `outcome` pass, fail or doubt for the others. A struck check stays visible and
    takes no part in any estimate.
    """

    count: float
    kind: str
    force_gf: float | None = None
    outcome: Outcome | None = None
    stage: str | None = None
    struck: bool = False


@dataclass(frozen=True)
class RunSeries:
    """The checks of one run of one edge, in the order they were taken."""

    blade: str
    edge: int
    run: int
    checks: tuple[Check, ...]
    count_unit: str = "cuts"
    practice: bool = False
    edge_length_used_mm: float | None = None

    @property
    def key(self) -> tuple[str, int, int]:
        return self.blade, self.edge, self.run

    def force_checks(self) -> list[Check]:
        return [c for c in self.checks if c.force_gf is not None and not c.struck]

    def outcomes(self) -> dict[str, list[Check]]:
        """Unstruck pass/fail checks by the stage they decide."""
        stages: dict[str, list[Check]] = {}
        for check in self.checks:
            if check.outcome is not None and not check.struck:
                stages.setdefault(check.stage or DEFAULT_STAGE.get(check.kind, check.kind), []).append(check)
        return stages


def by_count(checks: Sequence[Check]) -> Iterator[tuple[float, list[Check]]]:
    """Force checks grouped by the count they were taken at, in their order."""
    for count, group in groupby(checks, key=lambda check: check.count):
        yield count, list(group)
