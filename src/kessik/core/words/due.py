"""What waits, in words."""

from collections.abc import Mapping, Sequence

from kessik.core.due import (
    BackupFailed,
    BatchAway,
    CareToRepeat,
    ClaimExcluded,
    HardnessNotMeasured,
    LoanToComeBack,
    LoanToReturn,
    LotLow,
    MoreHardnessNotMeasured,
    PlannedWork,
    RestoreInterrupted,
    SecondCopyFailed,
    ShotsToUse,
    SoakDeed,
    Waiting,
    WorkAhead,
)
from kessik.core.shelf.care import CareKind
from kessik.core.vocabulary import STANDINGS
from kessik.core.words.rust import hours_words
from kessik.core.words.sentences import as_sentence, counted
from kessik.core.words.soaks import deed_words

_CODES_NAMED = 4
_CARE_AGAIN: Mapping[CareKind, str] = {
    "oiled": "Oil", "dried": "Dry", "cleaned": "Clean", "waxed": "Wax",
}  # fmt: skip  # a table is read by its rows


def due_words(what: Waiting) -> str:
    """What waits, and since or until when."""
    match what:
        case LoanToReturn(code, lender, days):
            return f"Return {code}{f' to {lender}' if lender else ''}, {_days_off(days)}"
        case LoanToComeBack(code, borrower, days):
            return f"{code} comes back from {borrower}, {_days_off(days)}"
        case CareToRepeat(codes, kind, used, days):
            with_it = f" with {used}" if used else ""
            again = f"{_CARE_AGAIN[kind]} {_named(codes)} again{with_it}"
            return f"{again}, {_days_off(days)}"
        case HardnessNotMeasured(code, standing):
            known = f"only {STANDINGS[standing]}" if standing else "not known"
            return f"Hardness of {code} is {known}"
        case MoreHardnessNotMeasured(blades):
            return f"Hardness of {blades} more blades is not measured"
        case WorkAhead(work, days):
            return f"{work_words(work)}, {_days_off(days)}"
        case LotLow(name, left, unit):
            return f"{name} runs low: {left:.1f} {unit} left"
        case ShotsToUse():
            return _shots_words(what)
        case BatchAway(name, sent_on):
            return f"{name} has been at the analyser since {sent_on}"
        case ClaimExcluded(code, grade):
            return f"{code}: the assay excludes {grade}; inform the lender"
        case SoakDeed(soak, deed, left_h, missing, places, medium):
            due = "due since" if left_h < 0 else "due in"
            deed_said = deed_words(deed, missing, places, medium)
            return f"{soak}: {deed_said}, {due} {hours_words(abs(left_h))}"
        case BackupFailed(why):
            return f"The last backup failed: {why}. It is tried again every hour"
        case SecondCopyFailed(why, since):
            day = f" since {since}" if since else ""
            return f"No backup on the second disk{day}: {why}. It is tried again every hour"
        case RestoreInterrupted(found):
            return as_sentence(found)


def work_words(work: PlannedWork) -> str:
    """A piece of a plan's work, with its trial and block."""
    verb = {"prepare": "Prepare the edges of", "cut": "Cut", "verify": "Cut again"}[work.kind]
    return f"{verb} {', '.join(work.blades)}: {work.trial}, block {work.block}"


def _shots_words(what: ShotsToUse) -> str:
    codes = [code for code, _ in what.by_code]
    shots = sum(number for _, number in what.by_code)
    shots_words = counted(shots, "unused shot")
    return f"{shots_words} of {_named(codes)}"


def _named(codes: Sequence[str]) -> str:
    more = len(codes) - _CODES_NAMED
    return ", ".join(codes[:_CODES_NAMED]) + (f" and {more} more" if more > 0 else "")


def _days_off(days: int) -> str:
    if days < 0:
        return f"{counted(-days, 'day')} overdue"
    return "today" if days == 0 else "tomorrow" if days == 1 else f"in {days} days"
