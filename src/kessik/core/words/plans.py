"""Plans in words."""

from kessik.core.planning.one_blade import OneBladeSaves
from kessik.core.words.sentences import counted


def one_blade_words(found: OneBladeSaves) -> str:
    """What it saves that all arms are on one blade."""
    said = (
        f"{found.blade} carries every arm, so the blade itself cancels:"
        f" {counted(found.edges, 'edge')} an arm find {found.wanted_percent:g} %."
    )
    unseen = f"blades that count as matched here may still differ by {found.unseen_percent:.0f} %"
    if found.edges_on_several is None:
        return f"{said} With a blade for each arm no number would do: {unseen}."
    fewer = found.edges_on_several - found.edges
    saved = f"{fewer} more" if fewer else "no more, but their grinds would stand in the answer"
    return (
        f"{said} With a blade for each arm it would take {saved}"
        f" ({counted(found.edges_on_several, 'edge')}): {unseen}."
    )
