"""Results on paper over the wire."""

from kessik.api.schemas.common import FaultOut
from kessik.api.schemas.paper import (
    PaperArmOut,
    PaperCheckedOut,
    PaperFormOut,
)
from kessik.services.paper.runs import Checked, PaperForm


def paper_form_out(form: PaperForm) -> PaperFormOut:
    """The form that a paper record of a trial is entered by."""
    return PaperFormOut.showing(
        form,
        arms=[PaperArmOut(code=code, next_edge=edge) for code, edge in form.arms],
    )


def paper_checked_out(found: Checked) -> PaperCheckedOut:
    """What is wrong with a paper record, and what it leaves open."""
    slips = [FaultOut.showing(fault) for fault in found.slips]
    return PaperCheckedOut(slips=slips, totals_without_gap=found.totals_without_gap)
