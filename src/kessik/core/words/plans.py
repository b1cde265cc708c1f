"""Plans in words."""

from kessik.core.planning.one_blade import OneBladeSaves
from kessik.core.planning.starting_life import StartingLife
from kessik.core.trials.shortfalls import (
    LongRun,
    NoEdgeReady,
    Shortfall,
    StartsTooDull,
    StockShort,
    TooFew,
)
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
        f"All arms are on {found.blade}, so its steel cancels out:"
        f" {counted(found.edges, 'edge')} an arm can show {found.wanted_percent:g} %."
    )
    unseen = f"blades that count as matched here may still differ by {found.unseen_percent:.0f} %"
    if found.edges_on_several is None:
        return f"{said} With a blade for each arm no number of edges is enough: {unseen}."
    fewer = found.edges_on_several - found.edges
    saved = (
        f"{fewer} more" if fewer else "no more, but different grinds would be part of the answer"
    )
    return (
        f"{said} With a blade for each arm it would take {saved}"
        f" ({counted(found.edges_on_several, 'edge')}): {unseen}."
    )


def shortfall_words(found: Shortfall) -> str:
    """What a plan cannot meet, and by how much."""
    match found:
        case NoEdgeReady(blades):
            return (
                f"{', '.join(blades)} {'has' if len(blades) == 1 else 'have'} no edge ready to cut"
            )
        case StartsTooDull(blade, start_gf, stage, limit_gf):
            return (
                f"{blade} starts at {start_gf:.0f} gf, above the {stage} limit of {limit_gf:g} gf:"
                " nothing can be timed to it"
            )
        case LongRun(cuts, cuts_a_day):
            return (
                f"one run of about {cuts:.0f} cuts is more than the {cuts_a_day} a day for one"
                " hand; pause it overnight"
            )
        case StockShort(what, unit, needed, left):
            return (
                f"{what} is short by {needed - left:.1f} {unit}: {needed:.1f} {unit} needed,"
                f" {left:.1f} {unit} left"
            )
        case TooFew("blades", there):
            return "a comparison needs a second blade" if there else "no blade is in the trial yet"
        case TooFew():
            return "one edge each proves little: re-sharpening alone can make such a difference"
