"""The vocabulary of a cut series: checks in their order, as a bench log or a file tells them."""

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import groupby

from kessik.core.protocols.checks import CHECKS, DAMAGE, PASS_FAIL
from kessik.core.protocols.methods import Stage

WRITTEN = "written"
"""A stage that a paper record says held or was gone, whatever it was judged by."""
FIRST_LOST = "deformation"
LOST_IN_ORDER = (FIRST_LOST, "fine", "working")
"""The stages of common practice, as they are lost."""
DEFORMED = frozenset(DAMAGE) - {"clean"}


@dataclass(frozen=True)
class Check:
    """One look at sharpness: at which count, by what kind of check, and what was found.

    `force_gf` for force checks, `value` for other numbers, `outcome` pass, fail, doubt or a grade
    for the others, and `seen` what the lamp showed or the grade. `position_mm` from the heel where
    one was named. A struck check stays visible and takes no part in any estimate.
    """

    count: float
    kind: str
    force_gf: float | None = None
    outcome: str | None = None
    stage: str | None = None
    struck: bool = False
    value: float | None = None
    seen: str = ""
    position_mm: float | None = None


@dataclass(frozen=True)
class RunSeries:
    """The checks of one run of one edge, in the order they were taken.

    `blade` is the code it is compared under: its arm's, where a blade carries several, and
    `cut_with` then the blade's own. `check_every` is the gap of the checks where passes were not
    noted, as they are at the bench (`passes_noted`); `verifies` names the edge and run of the same
    blade that this one was cut to verify.
    """

    blade: str
    edge: int
    run: int
    checks: tuple[Check, ...]
    count_unit: str = "cuts"
    practice: bool = False
    edge_length_used_mm: float | None = None
    worked_mm: tuple[float, float] | None = None
    block: int | None = None
    check_every: float | None = None
    verifies: tuple[int, int] | None = None
    cut_with: str = ""
    passes_noted: bool = False
    round: int | None = None

    @property
    def key(self) -> tuple[str, int, int]:
        return self.blade, self.edge, self.run

    def force_checks(self) -> list[Check]:
        """Unstruck force readings in the worked zone; those beside it are a control."""
        return [
            c
            for c in self.checks
            if c.force_gf is not None and not c.struck and not self.is_control(c)
        ]

    def control_checks(self) -> list[Check]:
        """Unstruck checks beside the worked zone."""
        return [c for c in self.checks if not c.struck and self.is_control(c)]

    def is_control(self, check: Check) -> bool:
        if self.worked_mm is None or check.position_mm is None:
            return False
        return not self.worked_mm[0] <= check.position_mm <= self.worked_mm[1]

    def values(self, kind: str) -> list[Check]:
        """Unstruck checks of a kind that carry a value."""
        return [c for c in self.checks if c.kind == kind and c.value is not None and not c.struck]

    def outcomes(self, stages: Sequence[Stage] = ()) -> dict[str, list[Check]]:
        """Unstruck pass/fail checks in the worked zone by the stage they decide; by the method's
        stages where it names one. Those beside the zone are a control, and decide none.
        """
        found: dict[str, list[Check]] = {}
        joined = [stage for stage in stages if stage.also]
        for stage in joined:
            found |= self._joined(stage)
        for check in self.checks:
            if check.struck or self.is_control(check):
                continue
            if any(check.kind in stage.kinds for stage in joined) and check.stage is None:
                continue
            own = [s for s in stages if s.limit_gf is None and speaks_of(check, s)]
            if own and check.stage in (None, *(s.name for s in own)):
                for stage in own:
                    found.setdefault(stage.name, []).append(
                        replace(check, outcome=judged(check, stage, own))
                    )
            elif check.outcome in PASS_FAIL:
                name = check.stage or _usual_stage(check.kind)
                found.setdefault(name, []).append(check)
        return found

    def _joined(self, stage: Stage) -> dict[str, list[Check]]:
        """What the checks of a stage that goes by several come to, count by count."""
        counting = [
            c
            for c in self.checks
            if c.kind in stage.kinds and c.outcome and not c.struck and not self.is_control(c)
        ]
        told = []
        for count in sorted({check.count for check in counting}):
            here = [check for check in counting if check.count == count]
            seen = {kind: _alike([c for c in here if c.kind == kind]) for kind in stage.kinds}
            outcome = joined_outcome(stage, seen)
            told += [Check(count, stage.check, outcome=outcome)] if outcome else []
        return {stage.name: told} if told else {}


def _usual_stage(kind: str) -> str:
    """The stage of common practice that a check decides; else it is its own."""
    return (CHECKS[kind].stage if kind in CHECKS else "") or kind


def speaks_of(check: Check, stage: Stage) -> bool:
    """Whether a check says anything of a stage that it alone decides."""
    told = check.outcome if stage.limit is None else check.value
    return check.kind == stage.check and told is not None


def _alike(checks: Sequence[Check]) -> str | None:
    """What several tries come to: a doubt where they disagree; None without any."""
    outcomes = {check.outcome for check in checks}
    if not outcomes:
        return None
    return outcomes.pop() if len(outcomes) == 1 else "doubt"


def joined_outcome(stage: Stage, seen: Mapping[str, str | None]) -> str | None:
    """What several checks at one count say of their stage; None while one that decides is
    missing.
    """
    outcomes = [seen.get(kind) for kind in stage.kinds]
    decides = "fail" if stage.together == "any" else "pass"
    if decides in outcomes:
        return decides
    if None in outcomes:
        return None
    return "doubt" if "doubt" in outcomes else ("pass" if decides == "fail" else "fail")


def judged(check: Check, stage: Stage, stages: Sequence[Stage]) -> str:
    """What a check says of one stage, pass, fail or doubt: a number by its limit, a grade by those
    that lose it; where a doubt is a stage of its own, it leaves the later ones standing.
    """
    if stage.limit is not None:
        assert check.value is not None
        return "fail" if stage.is_beyond(check.value) else "pass"
    assert check.outcome is not None
    if check.outcome in stage.lost_on:
        return "fail"
    if check.outcome not in PASS_FAIL:
        return "pass"
    graded = any("doubt" in other.lost_on for other in stages)
    return "pass" if graded or check.outcome == "pass" else "doubt"


def by_count(checks: Sequence[Check]) -> Iterator[tuple[float, list[Check]]]:
    """Force checks grouped by the count they were taken at, in their order."""
    for count, group in groupby(checks, key=lambda check: check.count):
        yield count, list(group)


def outcome_of(check: str, said: str | None) -> str | None:
    """Pass, fail or doubt; an inspection passes while the apex is clean, a tester's own check says
    its grade, and other checks have no outcome.
    """
    if said is None:
        return None
    if check in CHECKS and CHECKS[check].result == "damage":
        return (
            "fail" if said in DEFORMED or said == "fail" else "doubt" if said == "doubt" else "pass"
        )
    return said if check not in CHECKS or CHECKS[check].is_judged else None


def seen_in(check: str, outcome: str) -> str:
    """What the lamp showed, or the grade of a scale, as it was said; empty for other checks."""
    if check in CHECKS:
        return outcome if CHECKS[check].result == "damage" else ""
    return outcome if check != WRITTEN and outcome not in PASS_FAIL else ""
