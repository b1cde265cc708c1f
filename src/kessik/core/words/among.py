"""A soak among earlier ones, in words."""

from kessik.core.corrosion.among import AmongSoaks
from kessik.core.words.matching import and_words


def among_words(found: AmongSoaks) -> list[str]:
    """Where the steels of a soak stand among those of others, and through what; steels between the
    same two are said together.
    """
    groups: dict[tuple[str | None, str | None], list[str]] = {}
    for each in found.placed:
        if each.less or each.more:
            groups.setdefault((each.less, each.more), []).append(each.steel)
    said = [_placed_words(steels, *between) for between, steels in groups.items()]
    if not said:
        said = ["None of these steels is told apart from those of other soaks."]
    were = "were in" if len(found.through) > 1 else "was in"
    through = f"Placed through {and_words(list(found.through))}, which {were}"
    media = ""
    if found.media:
        media = f" Other media were among them ({'; '.join(found.media)}): ranks may change."
    return [*said, f"{through} {and_words(list(found.others))} as well.{media}"]


def _placed_words(steels: list[str], less: str | None, more: str | None) -> str:
    names, is_one = and_words(steels), len(steels) == 1
    if less and more:
        return (
            f"{names} {'lies' if is_one else 'lie'} between {less} (less rust) and {more} (more)."
        )
    rusts = "rusts" if is_one else "rust"
    return f"{names} {rusts} more than {less}." if less else f"{names} {rusts} less than {more}."
