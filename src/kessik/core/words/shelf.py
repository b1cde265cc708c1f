"""Loans and care of blades, in words."""

from kessik.core.shelf.blades import Blade
from kessik.core.shelf.care import CareAct
from kessik.core.vocabulary import CARE_KINDS, TOOK_OFF


def loan_words(blade: Blade) -> str:
    """Whose a blade is on loan, or to whom it is lent, until when; empty for none."""
    if not (blade.loan_from or blade.lent_to or blade.loan_due):
        return ""
    of = f"from {blade.loan_from}" if blade.loan_from else "on loan"
    said = f"lent to {blade.lent_to}" if blade.lent_to else of
    if blade.loan_returned:
        return f"{said}, returned {blade.loan_returned}"
    return f"{said}, due back {blade.loan_due}" if blade.loan_due else said


def care_words(act: CareAct) -> str:
    """What was done, with what, and what came off."""
    said = CARE_KINDS[act.kind]
    used = f" with {act.used}" if act.used else ""
    off = f"; it took off {TOOK_OFF[act.took_off]}" if act.took_off else ""
    return f"{said}{used}{off}"


def care_due_words(act: CareAct) -> str:
    """When it is due again; empty where no term was given."""
    return f"due again {act.due_on}" if act.due_on else ""
