"""What assays say of the claims for the blades of a trial, as matching takes it."""

from kessik.core.comparison.findings import Claimed
from kessik.core.composition.claims import Assay


def claimed_of(assay: Assay, *, is_away: bool) -> Claimed | None:
    """What matching needs to know of a claim; None where nothing was measured, and is not going to
    be.
    """
    if assay.claim is None:
        return None
    name = assay.claim.name
    if assay.verdict == "not_shot":
        return Claimed(name, "away") if is_away else None
    fitting = assay.steels_in if assay.verdict == "excluded" else assay.rivals
    names = tuple(steel.grade.name for steel in fitting)
    match assay.verdict:
        case "consistent" | "undecidable" | "excluded":
            return Claimed(name, assay.verdict, names)
        case _:
            return None
