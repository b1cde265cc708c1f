"""The answer of `kessik assay` as JSON."""

import math
from typing import Any

from kessik.core.composition.candidates import Candidate, Departure
from kessik.core.composition.claims import Assay
from kessik.core.composition.means import ElementMean


def assay_json(blade: str, assay: Assay) -> dict[str, Any]:
    """One blade as `kessik assay --json` prints it; percentages by mass, `fit` the weight of
    evidence among the grades still in.
    """
    own = assay.own
    return {
        "blade": blade,
        "claim": assay.claim.name if assay.claim else None,
        "verdict": "undecidable" if assay.verdict == "not_shot" else assay.verdict,
        "excluded_by": [_departure(d) for d in own.excluded_by] if own else [],
        "candidates": [_candidate(candidate) for candidate in assay.candidates],
        "not_separable_from": [grade.name for grade in assay.not_separable],
        "not_seen": list(assay.not_seen),
        "grades_tried": assay.grades_tried,
        "normalised": assay.blade.normalised,
        "shots": len(assay.blade.counted),
        "shots_on_coating": assay.blade.on_coating,
        "means": [_mean(mean) for mean in assay.blade.means],
        "coating_suspected": [m.element for m in assay.suspicion.elements]
        if assay.suspicion
        else [],
        "settled_by": [
            {"grade": s.rival.name, "by": s.by, "shots": s.shots, "elements": list(s.elements)}
            for s in assay.settlings
        ],
    }


def _candidate(candidate: Candidate) -> dict[str, Any]:
    return {
        "grade": candidate.grade.name,
        "fit": round(candidate.weight, 6),
        "excluded_by": [_departure(departure) for departure in candidate.excluded_by],
    }


def _departure(found: Departure) -> dict[str, Any]:
    return {
        "element": found.element,
        "measured": round(found.measured_percent, 4),
        "low": round(found.low_percent, 4),
        "high": round(found.high_percent, 4) if math.isfinite(found.high_percent) else None,
        "z": round(abs(found.z), 3),
        "recalled_from_memory": found.is_recalled,
    }


def _mean(mean: ElementMean) -> dict[str, Any]:
    return {
        "element": mean.element,
        "percent": round(mean.percent, 4) if mean.detected else None,
        "plus_minus": round(mean.uncertainty_percent, 4),
        "below": mean.limit_percent,
        "shots": mean.shots,
    }
