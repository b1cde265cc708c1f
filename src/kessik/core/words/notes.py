"""What has to be known beside an answer, in words."""

from kessik.core.comparison.findings import (
    Contradicting,
    CorrectedAfterStop,
    DoubtfulSpread,
    EdgeLeftOut,
    EventsNotUnderstood,
    FromPaper,
    GapNotKnown,
    LotChanged,
    Note,
    OddEdge,
    Oddity,
    OnOneLength,
    PercentMisleads,
    SpoiledCuts,
    UnlikeCounts,
    Verified,
    VersionsPooled,
    WidthAssumed,
)
from kessik.core.comparison.lot_factor import LotFactor
from kessik.core.units import format_interval, format_to_uncertainty
from kessik.core.words.matching import and_words
from kessik.core.words.settled import left_out_words

_ODDITIES: dict[Oddity, str] = {
    "read_at_one_count": "only one count was read: the decay cannot be given",
    "reads_ever_sharper": (
        "the readings fall: the edge reads sharper the more it cuts; check the burr and the tester"
    ),
    "always_reads_the_same": "every reading is the same: check the tester",
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


_WHY = "check burr, angle, thickness grown by regrinding, lot and hardness first"


def _counted(life: float) -> str:
    return f"{life:.0f}" if life >= 100 else f"{round(life, 1):g}"


def _life(life: tuple[float, float, float]) -> str:
    estimate, low, high = life
    span = format_interval(low, high)
    return f"{format_to_uncertainty(estimate, low, high)} ({span})"


def oddity_words(found: Oddity) -> str:
    """What is odd about the readings of a run."""
    return _ODDITIES[found]


def _verified_words(found: Verified) -> str:
    """Two repeats of one blade: what they lasted, how far apart, and how far apart repeats lie."""
    (first, second), (one, other) = found.edges, found.lives
    apart = f"{found.percent:.{0 if found.percent >= 2 else 1}f} %"
    usual = f"repeats of these blades differ by up to {found.repeats_percent:.0f} %"
    lives = (
        f"{found.blade}, edge {second} verifies edge {first} to {found.stage}:"
        f" {_counted(one)} and {_counted(other)} {found.unit}"
    )
    if found.holds:
        return f"{lives} agree within {apart}; {usual}"
    return f"{lives} differ by {apart}, and {usual}. Cut a third edge, and {_WHY}"


def _width_words(found: WidthAssumed) -> str:
    """What is taken for the gap of checks that nobody knows."""
    runs = "1 run was" if found.runs == 1 else f"{found.runs} runs were"
    written = f"{runs} written down as totals, without the gap of the checks"
    if not found.from_runs:
        percent = found.widths[0][1]
        return f"{written}; each total is taken to be {percent:.0f} % wide (common practice)"
    widths = and_words([f"{stage} {percent:.0f} %" for stage, percent in found.widths])
    return f"{written}; each total is taken as wide as those of the other runs: {widths}"


def note_words(note: Note) -> str:
    """One note in one sentence, without its full stop."""
    match note:
        case EdgeLeftOut(blade, edge, why):
            return f"{blade}, edge {edge} is left out: {left_out_words(why)}"
        case DoubtfulSpread(stage, blade, percent):
            return (
                f"{stage}: {blade}'s edges differ by about {percent:.0f} %, more than re-sharpening"
                " usually makes; first check burr, angle, thickness grown by regrinding, lot"
                " and hardness"
            )
        case OddEdge(stage, blade, edge, life_with, life_without, unit):
            return (
                f"{stage}: {blade}, edge {edge} does not fit the others; with it the life is"
                f" {_life(life_with)} {unit}, without it {_life(life_without)}. It counts, with"
                f" little weight; {_WHY}"
            )
        case Contradicting(stage, blade, (first, second)):
            return (
                f"{stage}: {blade}'s edges {first} and {second} contradict each other; cut a"
                f" third edge to see which is off. {_WHY[:1].upper()}{_WHY[1:]}"
            )
        case Verified():
            return _verified_words(note)
        case PercentMisleads((one, other), percents, ends_gf):
            return (
                f"{one} lost less of its own start than {other} ({percents[0]:.0f} against"
                f" {percents[1]:.0f} %), and ends duller ({ends_gf[0]:.0f} against"
                f" {ends_gf[1]:.0f} gf): the per cent says how far an edge fell, the end reading"
                " how sharp it is now"
            )
        case GapNotKnown(stage, edges):
            named = and_words([f"{blade}, edge {edge}" for blade, edge in edges])
            return (
                f"{stage}: every check of {named} fails and no pass was noted before; how often"
                " was checked? Without the gap of the checks the lower end stays open"
            )
        case WidthAssumed():
            return _width_words(note)
        case OnOneLength(length_mm):
            return f"ratios are scaled to {length_mm:g} mm of edge; lives are shown as counted"
        case UnlikeCounts(stage, kinds):
            counted = " and ".join(kinds)
            return f"{stage}: blades counted in {counted} cannot be compared with each other"
        case SpoiledCuts(blade, edge, cuts):
            at = ", ".join(f"{count:g}{f' ({cause})' if cause else ''}" for count, cause in cuts)
            many = "1 spoiled cut" if len(cuts) == 1 else f"{len(cuts)} spoiled cuts"
            return (
                f"{blade}, edge {edge}: {many}, at {at}; check the edge there first: the"
                " life may be short by damage"
            )
        case EventsNotUnderstood(blade, edge, events):
            many = "1 event is" if events == 1 else f"{events} events are"
            return f"{blade}, edge {edge}: {many} not understood and not counted"
        case CorrectedAfterStop(blade, edge, events):
            many = "1 entry" if events == 1 else f"{events} entries"
            return f"{blade}, edge {edge}: corrected after the stop ({many})"
        case FromPaper(runs, of):
            told = "all runs are" if runs == of else f"{runs} of {of} runs are"
            told = "the one run is" if of == 1 else told
            return f"{told} from paper"
        case LotChanged(blade, edge, says):
            return f"{blade}, edge {edge}: {says}"
        case VersionsPooled(numbers):
            said = " and ".join(str(number) for number in numbers)
            return (
                f"runs under versions {said} of the method are pooled: they agree on all that"
                " matters"
            )
