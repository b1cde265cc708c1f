"""What waits, as Today shows it."""

from kessik.api.schemas.verdict import DueOut
from kessik.core.due import Due
from kessik.core.words.due import due_words


def due_out(due: Due) -> DueOut:
    """Something that waits, in words."""
    return DueOut.showing(due, says=due_words(due.what))
