"""What blades still do after a dose by pass and fail, and what their untouched edge does there."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.comparison.results import RunResult
from kessik.core.protocols.methods import JUDGED, CheckKind, Method
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


def after_dose(results: Sequence[RunResult], method: Method) -> list[AfterDose]:
    """What each blade does after the dose by each pass/fail check of a method that ends with one;
    of edges that count.
    """
    if method.dose is None:
        return []
    counted = [result for result in results if not result.left_out]
    found = []
    for kind in (spec.kind for spec in method.checks if spec.kind in JUDGED):
        for blade in dict.fromkeys(r.run.blade for r in counted):
            own = [r for r in counted if r.run.blade == blade]
            told = _of_blade(own, kind, method.dose)
            found += [told] if told is not None else []
    return found


def _of_blade(own: Sequence[RunResult], kind: CheckKind, dose: float) -> AfterDose | None:
    checks = [
        (r.run.is_control(check), check)
        for r in own
        for check in r.run.checks
        if check.kind == kind and check.outcome and not check.struck and check.count >= dose
    ]
    worked = [check for beside, check in checks if not beside]
    control = [check for beside, check in checks if beside]
    if not worked:
        return None
    places = {check.position_mm for check in control if check.position_mm is not None}
    return AfterDose(
        own[0].run.blade,
        kind,
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
