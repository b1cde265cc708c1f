"""What blades still do after a dose by pass and fail, and what their untouched edge does there."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kessik.core.comparison.results import RunResult
from kessik.core.protocols.checks import CheckKind
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check

Still = Literal["does", "does_not", "in_part"]


@dataclass(frozen=True)
class AfterDose:
    """What one blade does by one check after the dose, over its edges; `control` what its edge does
    beside the worked zone, None where nobody looked, and where that was (mm from the heel).
    """

    blade: str
    check: CheckKind
    count: float
    unit: str
    still: Still
    control: Still | None = None
    control_mm: tuple[float, ...] = ()


@dataclass(frozen=True)
class ShownAfterDose:
    """What one blade shows after the dose by a check of the tester's own that is no pass or fail:
    its mean number, or its median grade by place (1 for the sharpest), over its edges that count.
    """

    blade: str
    check: CheckKind
    count: float
    unit: str
    value: float

    @property
    def grade(self) -> str:
        """The grade that it is at; empty of a number."""
        return self.check.grades[round(self.value) - 1] if self.check.grades else ""


def shown_after_dose(results: Sequence[RunResult], method: Method) -> list[ShownAfterDose]:
    """What each blade shows after the dose by each scale and number of the tester's own, check by
    check, the sharpest blade first.
    """
    if method.dose is None:
        return []
    counted = [result for result in results if not result.left_out]
    found: list[ShownAfterDose] = []
    for row in (row for row in method.rows if row.is_own and not row.passes_or_fails):
        shown = []
        for blade in dict.fromkeys(r.run.blade for r in counted):
            own = [r for r in counted if r.run.blade == blade]
            shown += _shown(own, row, method.dose)
        found += sorted(shown, key=lambda s: -s.value if row.sharp_is == "high" else s.value)
    return found


def _shown(own: Sequence[RunResult], row: CheckKind, dose: float) -> list[ShownAfterDose]:
    checks = [
        check
        for r in own
        for check in r.run.checks
        if check.kind == row.key
        and check.count >= dose
        and not check.struck
        and not r.run.is_control(check)
    ]
    values = [v for v in (_place_or_number(check, row) for check in checks) if v is not None]
    if not values:
        return []
    middle = float(np.median(values) if row.grades else np.mean(values))
    first = own[0].run
    return [
        ShownAfterDose(first.blade, row, min(c.count for c in checks), first.count_unit, middle)
    ]


def _place_or_number(check: Check, row: CheckKind) -> float | None:
    if not row.grades:
        return check.value
    return row.grades.index(check.outcome) + 1.0 if check.outcome in row.grades else None


def after_dose(results: Sequence[RunResult], method: Method) -> list[AfterDose]:
    """What each blade does after the dose by each pass/fail check of a method that ends with one;
    of edges that count.
    """
    if method.dose is None:
        return []
    counted = [result for result in results if not result.left_out]
    found = []
    for row in (row for row in method.rows if row.passes_or_fails):
        for blade in dict.fromkeys(r.run.blade for r in counted):
            own = [r for r in counted if r.run.blade == blade]
            told = _of_blade(own, row, method.dose)
            found += [told] if told is not None else []
    return found


def _of_blade(own: Sequence[RunResult], row: CheckKind, dose: float) -> AfterDose | None:
    checks = [
        (r.run.is_control(check), check)
        for r in own
        for check in r.run.checks
        if check.kind == row.key and check.outcome and not check.struck and check.count >= dose
    ]
    worked = [check for beside, check in checks if not beside]
    control = [check for beside, check in checks if beside]
    if not worked:
        return None
    places = {check.position_mm for check in control if check.position_mm is not None}
    return AfterDose(
        own[0].run.blade,
        row,
        min(check.count for check in worked),
        own[0].run.count_unit,
        _still(worked),
        _still(control) if control else None,
        tuple(sorted(places)),
    )


def _still(checks: Sequence[Check]) -> Still:
    if all(check.outcome == "pass" for check in checks):
        return "does"
    return "does_not" if all(check.outcome == "fail" for check in checks) else "in_part"
