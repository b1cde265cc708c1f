"""What has to be known beside an answer, in words."""

from kessik.core.comparison.findings import (
    DoubtfulSpread,
    EdgeLeftOut,
    LoneEdge,
    LotChanged,
    Note,
    NotUnderstood,
    Oddity,
    OnOneLength,
    SpoiledCuts,
    UnlikeCounts,
    VersionsPooled,
)
from kessik.core.comparison.lot_factor import LotFactor

_ODDITIES: dict[Oddity, str] = {
    "read_at_one_count": "only one count was read: nothing can be said about how the edge falls",
    "reads_ever_sharper": (
        "the readings fall: the edge reads sharper the more it cuts; look at the burr and the"
        " tester"
    ),
    "always_reads_the_same": "every reading is the same: is the tester reading?",
}


def lot_factor_words(found: LotFactor) -> str:
    """How much longer a blade lasts on one lot than on another."""
    old, new = found.edges
    edges = "edge" if (old, new) == (1, 1) else "edges"
    return (
        f"{found.blade} lasts {found.ratio:.2f} times as long on {found.new} as on {found.old}"
        f" ({found.low:.2f} to {found.high:.2f}; {old} and {new} {edges}). No result is corrected"
        " by it."
    )


def oddity_words(found: Oddity) -> str:
    """What is odd about the readings of a run."""
    return _ODDITIES[found]


def note_words(note: Note) -> str:
    """One note in one sentence, without its full stop."""
    match note:
        case EdgeLeftOut(blade, edge, why):
            return f"{blade}, edge {edge} is left out: {why}"
        case DoubtfulSpread(stage, blade, percent):
            return (
                f"{stage}: {blade}'s edges differ by about {percent:.0f} %, more than re-sharpening"
                " usually makes; before believing either, look at burr, angle, thickness grown by"
                " regrinding, lot and hardness"
            )
        case LoneEdge(stage, blade, edge):
            return (
                f"{stage}: {blade}, edge {edge} lies far from its blade's other edges and hardly"
                " weighs in the answer; before leaving it at that, look at burr, angle, thickness,"
                " lot and hardness"
            )
        case OnOneLength(length_mm):
            return f"ratios are put on {length_mm:g} mm of edge; lives are shown as counted"
        case UnlikeCounts(stage, kinds):
            counted = " and ".join(kinds)
            return f"{stage}: blades counted in {counted} cannot be compared with each other"
        case SpoiledCuts(blade, edge, cuts):
            at = ", ".join(f"{count:g}{f' ({cause})' if cause else ''}" for count, cause in cuts)
            many = "1 spoiled cut" if len(cuts) == 1 else f"{len(cuts)} spoiled cuts"
            return (
                f"{blade}, edge {edge}: {many}, at {at}; look at the edge there before believing a"
                " short life"
            )
        case NotUnderstood(blade, edge, events):
            many = "1 event is" if events == 1 else f"{events} events are"
            return f"{blade}, edge {edge}: {many} not understood and left out of every sum"
        case LotChanged(blade, edge, says):
            return f"{blade}, edge {edge}: {says}"
        case VersionsPooled(numbers):
            said = " and ".join(str(number) for number in numbers)
            return (
                f"runs under versions {said} of the method are pooled: they agree on all that"
                " matters"
            )
