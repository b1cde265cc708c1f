"""Which edges count, and why one does not, in words."""

from kessik.core.comparison.findings import UnlikeMethod, WhyLeftOut
from kessik.core.sharpening.settled import Settled, SettledRule
from kessik.core.words.methods import difference_words


def rule_words(rule: SettledRule) -> str:
    """The rule as it was fixed before cutting."""
    match rule.kind:
        case "every_edge":
            return "every sharpening counts"
        case "edge_number":
            return f"an edge counts from number {rule.edge_number} since new or damage"
        case "steel_removed":
            gone_mm = f"{rule.steel_removed_mm:g} mm"
            return f"an edge counts once {gone_mm} of steel is removed since new or damage"


def settled_words(found: Settled) -> str:
    """Why an edge counts or does not."""
    match found.why:
        case "factory":
            return "the maker's own edge: a separate question, never pooled"
        case "own_word":
            return f"decided by the tester: {found.reason or 'no reason given'}"
        case "every_edge":
            return "every sharpening counts here"
        case "place":
            place = f"edge {found.place} since {found.since}"
            return place if found.counts else f"{place} is cut into fatigued steel and reads low"
        case "least_place":
            return (
                f"at least edge {found.place} since {found.since}, and its history is not known: it"
                " may be settled"
            )
        case "steel_gone":
            gone = f"{found.gone_mm:g} mm of steel removed since {found.since}"
            return gone if found.counts else f"only {gone}"
        case "steel_not_known":
            return f"steel removed since {found.since} is not recorded for every edge"


def left_out_words(why: WhyLeftOut) -> str:
    """Why an edge stands in no comparison."""
    if isinstance(why, UnlikeMethod):
        return (
            f"cut under version {why.number} of the method, which differs in"
            f" {'; '.join(map(difference_words, why.differs))}"
        )
    return settled_words(why)
