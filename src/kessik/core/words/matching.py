"""What matching found, in words: of one cell, of what is open, and of a whole line-up."""

from collections.abc import Iterable, Mapping, Sequence

from kessik.core.comparison.findings import Mismatch, Open
from kessik.core.comparison.matching import Cell, MatchingRule
from kessik.core.comparison.remedies import Remedy
from kessik.core.comparison.scales import RATIO, scale_of
from kessik.core.comparison.variables import BY_NAME, Variable
from kessik.core.sharpening.settled import Settled
from kessik.core.shelf.blades import TrialRole
from kessik.core.words.facts import expected_words
from kessik.core.words.settled import settled_words


def cell_words(cell: Cell, rule: MatchingRule) -> str:
    """Why a cell is not simply matched; empty where it is."""
    match cell.finding:
        case Mismatch():
            return mismatch_words(cell.finding, rule.factor)
        case Open():
            return _open_words(cell.finding)
    return ""


def mismatch_words(found: Mismatch, factor: str) -> str:
    """A mismatch with what it does to the answer, and its size where one is assumed."""
    differs = what_differs(found)
    if found.how == "left_out":
        return f"{differs}; it is left out of the answer under the rule"
    if found.how == "unusual_hardness":
        return f"{differs}; this blade is not what a user gets"
    if found.how == "claim_excluded":
        return f"{differs}; {found.blade}'s result holds for this blade, not for {found.value}"
    size = (
        f"; this mismatch alone could make {found.life_percent:.0f} % of life"
        if found.life_percent is not None
        else ""
    )
    return (
        f"{differs}: {BY_NAME[found.variable].consequence}{size}; {found.blade}'s result"
        f" does not count for {factor.replace('_', ' ')}"
    )


def what_differs(found: Mismatch) -> str:
    """The mismatch alone."""
    variable = BY_NAME[found.variable]
    match found.how:
        case "number":
            away = variable.shown(found.difference or 0.0)
            return f"{variable.label} differs by {away} from {found.against}"
        case "percent":
            return f"{variable.label} differs by {found.difference:.0f} % from {found.against}"
        case "kind" | "word":
            return f"{variable.label} is {found.value}, not {found.other}"
        case "one_edge":
            there = _shown(variable, found.other)
            return f"{variable.label} of one edge is {_shown(variable, found.value)}, not {there}"
        case "own_edges":
            apart = found.difference
            seen = apart is not None and apart >= 0.5 * 10**-variable.decimals
            return f"its edges differ{f' by {variable.shown(apart or 0.0)}' if seen else ''}"
        case "has_micro_bevel":
            return "has a micro-bevel, the others have none"
        case "lacks_micro_bevel":
            return "has no micro-bevel"
        case "unusual_hardness":
            assert found.usual_hrc is not None
            low, high = found.usual_hrc
            return f"its grade is usually hardened to {low:g} to {high:g} HRC"
        case "left_out":
            return _edges_words(found.edges)
        case "claim_excluded":
            fitting = found.claim.fitting if found.claim else ()
            instead = f"; {_named(fitting)} would fit" if fitting else "; nothing on the shelf fits"
            return f"the assay excludes {found.value}, which it is sold as{instead}"


def _named(grades: Sequence[str]) -> str:
    """The first of several grades by name."""
    return and_words(grades) if len(grades) < 4 else f"{', '.join(grades[:2])} and others"


def _shown(variable: Variable, value: float | str | None) -> str:
    return variable.shown(value) if isinstance(value, float) else str(value)


def _edges_words(edges: Iterable[tuple[int, Settled]]) -> str:
    return "; ".join(f"edge {number}: {settled_words(found)}" for number, found in edges)


def _open_words(found: Open) -> str:
    subject, rest = _open_parts(found)
    return f"{subject}{rest}"


_NOT_KNOWN = " is not known"


def _open_parts(found: Open) -> tuple[str, str]:
    """What is open, as the subject and the rest of a sentence; a line on several blades names them
    in between.
    """
    label = BY_NAME[found.variable].label if found.variable in BY_NAME else found.variable
    match found.why:
        case "not_known":
            return label, _NOT_KNOWN
        case "not_measured":
            return label, f" is only {(found.standing or 'claimed').replace('_', ' ')}"
        case "steel_not_named":
            return "steel", " is not named"
        case "claim_away":
            return "steel", " is at the analyser"
        case "claim_undecidable":
            fitting = found.claim.fitting if found.claim else ()
            rest = f"; {_named(fitting)} would fit as well" if fitting else ""
            return "", f"the assay leaves the claimed steel undecided{rest}"
        case "stale":
            return "", expected_words(found.stale) if found.stale else ""
        case "micro_bevel_not_recorded":
            return "micro-bevel", _NOT_KNOWN
        case "usual_hardness_not_known":
            return "", "the usual hardness of its grade is not known"
        case "settled_not_known":
            return "", _edges_words(found.edges)


def way_words(way: Remedy, found: Mismatch) -> str:
    """A way out of a mismatch, as what would be done."""
    variable = BY_NAME[found.variable]
    match way.kind:
        case "sharpen":
            return "re-sharpen it to match"
        case "sharpen_on":
            return "sharpen it on"
        case "widen":
            assert way.rule is not None
            return f"widen the tolerance to {tolerance_words(variable, way.rule)}"
        case "let_go":
            return f"do not hold the {variable.label} equal here"
        case "one_length":
            return "scale counts to one edge length"
        case "factor":
            return "make it the factor"
        case "drop":
            return f"drop {found.blade}"


def tolerance_words(variable: Variable, rule: MatchingRule) -> str:
    """What a trial allows of a variable, in a few words."""
    if variable.kind == "hardness" and rule.hardness_reading == "as_usually_hardened":
        return "as usual for its grade"
    if variable.kind == "length" and rule.scale_edge_length:
        return "scaled to one length"
    if variable.kind in ("alike", "steel"):
        return "alike"
    if variable.kind == "settled":
        return "by the rule"
    tolerance = f"{rule.tolerance(variable):g}"
    scale = scale_of(variable.kind)
    if scale is RATIO:
        return f"within × {tolerance}"
    unit = scale.tolerance_unit or variable.unit
    return f"±{tolerance}{'' if unit == '°' else ' '}{unit}"


_NAMED_AT_MOST = 3


def open_lines(found: Sequence[Open], blades: int = 0) -> list[str]:
    """What is still unknown, one line for the blades that lack the same; of all `blades` where it
    is every one of several.
    """
    every = {each.blade for each in found}

    def whose(codes: Sequence[str]) -> str:
        is_all = blades > _NAMED_AT_MOST and len(set(codes)) == blades == len(every)
        return f"all {blades} blades" if is_all else and_words(codes)

    by_part: dict[tuple[str, str], list[str]] = {}
    for each in found:
        by_part.setdefault(_open_parts(each), []).append(each.blade)
    by_rest: dict[tuple[str, str], list[str]] = {}
    for (subject, rest), codes in by_part.items():
        by_rest.setdefault((whose(codes), rest), []).append(subject)
    return [
        f"{and_words(subjects)} of {codes}{_as_many(rest, subjects)}"
        if subjects[0]
        else f"{codes}: {rest}"
        for (codes, rest), subjects in by_rest.items()
    ]


def _as_many(rest: str, subjects: Sequence[str]) -> str:
    return f" are{rest.removeprefix(' is')}" if len(subjects) > 1 else rest


def and_words(words: Sequence[str]) -> str:
    """Names in a row: A, B and C."""
    return words[0] if len(words) == 1 else f"{', '.join(words[:-1])} and {words[-1]}"


def line_up_words(
    cells: Sequence[Cell], pending: Sequence[Open], rule: MatchingRule, blades: int, noun: str
) -> str:
    """What the comparison can and cannot show, before an edge is spent on it; `noun` is what is
    compared, blade or arm.
    """
    if blades == 0:
        return "No blade is in this trial yet."
    if blades == 1:
        return "There is one blade; a comparison needs a second, or two preparations of this one."
    question = rule.factor.replace("_", " ")
    spoiled = [cell.finding for cell in cells if isinstance(cell.finding, Mismatch)]
    if spoiled:
        code = spoiled[0].blade
        whys = [what_differs(found) for found in spoiled if found.blade == code]
        others = len({found.blade for found in spoiled}) - 1
        also = f" {others} more {'is' if others == 1 else 'are'} not either." if others else ""
        return f"{code} is not a fair test of {question}: {', '.join(whys)}.{also}"
    if pending:
        lines = open_lines(pending)
        what = "1 thing is" if len(lines) == 1 else f"{len(lines)} things are"
        return f"Everything known is matched; {what} not known yet."
    all_of_them = f"Both {noun}s" if blades == 2 else f"All {blades} {noun}s"
    return f"{all_of_them} are matched: what differs is the {question}."


MISSING_REFERENCE: Mapping[TrialRole, str] = {
    "low_reference": (
        "No low reference is named: a well-known modest blade marks the low end of the scale."
    ),
    "high_reference": (
        "No high reference is named: a well-known strong blade marks the high end of the scale."
    ),
}
