"""A soak among earlier ones, in words."""

from kessik.core.corrosion.among import AmongSoaks, PlacedSteel
from kessik.core.words.matching import and_words


def among_words(found: AmongSoaks) -> list[str]:
    """Where the steels of a soak stand among those of others, and through what."""
    placed = [each for each in found.placed if each.less or each.more]
    said = [_placed_words(each) for each in placed]
    if not said:
        said = ["None of these steels is told apart from those of other soaks."]
    through = f"Placed through {and_words(list(found.through))}, which {_were(found)}"
    media = ""
    if found.media:
        media = f" Other media were among them ({and_words(list(found.media))}): ranks may change."
    return [*said, f"{through} {and_words(list(found.others))} as well.{media}"]


def _were(found: AmongSoaks) -> str:
    return "were in" if len(found.through) > 1 else "was in"


def _placed_words(found: PlacedSteel) -> str:
    if found.less and found.more:
        return f"{found.steel} lies between {found.less} (less rust) and {found.more} (more rust)."
    if found.less:
        return f"{found.steel} rusts more than {found.less}, and than all that rust less than it."
    return f"{found.steel} rusts less than {found.more}, and than all that rust more than it."
