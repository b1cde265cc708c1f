"""Plans in words."""

from kessik.core.planning.one_blade import OneBladeSaves
from kessik.core.planning.starting_life import StartingLife
from kessik.core.words.sentences import counted


def basis_words(found: StartingLife) -> str:
    """Where the life that a plan begins with comes from."""
    match found.basis:
        case "own_runs":
            return "from its own runs"
        case "typed":
            return "as typed"
        case "own_elsewhere":
            return "from its runs in other trials"
        case "others":
            return f"from {counted(found.blades, 'other blade')} under this school"
        case "usual":
            return "usual for this school"


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
    saved = (
        f"{fewer} more" if fewer else "no more, but different grinds would be part of the answer"
    )
    return (
        f"{said} With a blade for each arm it would take {saved}"
        f" ({counted(found.edges_on_several, 'edge')}): {unseen}."
    )
