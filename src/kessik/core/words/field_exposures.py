"""Hours wet without a soak, in words."""

from kessik.core.shelf.field_exposures import FieldExposure
from kessik.core.vocabulary import FIELD_SEEN
from kessik.core.words.rust import hours_words


def exposure_words(found: FieldExposure) -> str:
    """What a blade went through, and what was seen."""
    return f"{hours_words(found.hours)}, {found.medium}: {FIELD_SEEN[found.seen]}"
