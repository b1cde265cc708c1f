"""How the variables of each kind are compared: a comparer a kind."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace

from kessik.core.comparison.column import ComparedColumn, agree, are_alike, most_agreed, span
from kessik.core.comparison.compared_facts import (
    BladeFacts,
    Cell,
    MatchingRule,
    MatchState,
    shared_blade,
)
from kessik.core.comparison.findings import Mismatch, Open, OpenKind, Unlike
from kessik.core.comparison.scales import RATIO, RELATIVE, scale_of
from kessik.core.comparison.variables import Variable, VariableKind

Comparer = Callable[[Variable, Sequence[BladeFacts], MatchingRule], list[Cell]]


def _usually(compare: Callable[[ComparedColumn], list[Cell]]) -> Comparer:
    """What holds for nearly all: no cells where nobody recorded it, arms of one blade share what is
    the blade's, and what the trial asks about is not compared.
    """

    def cells(variable: Variable, blades: Sequence[BladeFacts], rule: MatchingRule) -> list[Cell]:
        column = ComparedColumn.of(variable, blades, rule)
        if column.is_unrecorded:
            return []
        if variable.of == "blade" and shared_blade(blades):
            return column.all("matched")
        if rule.factor in variable.factors and compare is not _steel:
            return column.all("factor")
        return compare(column)

    return cells


def _steel(column: ComparedColumn) -> list[Cell]:
    """The steel that each is sold as: what an assay excludes is a mismatch, and what it leaves open
    is open, whatever the trial asks.
    """
    varies = column.rule.factor in column.variable.factors
    plain = column.all("factor") if varies else _against_the_others(column)
    return [_as_assayed(column, i, cell) for i, cell in enumerate(plain)]


def _as_assayed(column: ComparedColumn, i: int, cell: Cell) -> Cell:
    claim, name = column.blades[i].claim, column.variable.name
    if claim is None:
        return replace(cell, standing="claimed") if cell.standing else cell
    if claim.standing == "excluded":
        found = Mismatch(column.code(i), name, "claim_excluded", claim.grade, claim=claim)
        return replace(cell, state="confounded", finding=found, standing="claimed")
    if claim.standing == "consistent":
        return replace(cell, standing="measured_here")
    why: OpenKind = "claim_away" if claim.standing == "away" else "claim_undecidable"
    if cell.state == "confounded":
        return replace(cell, standing="claimed")
    opened = Open(column.code(i), name, why, claim=claim)
    return replace(cell, state="pending", finding=opened, standing="claimed")


def _against_the_others(column: ComparedColumn) -> list[Cell]:
    known = [i for i, fact in enumerate(column.facts) if fact.evidence]
    reference, fits = most_agreed(column, known)
    cells = []
    for i in range(len(column.facts)):
        if reference is None or i not in fits:
            cells.append(_partly_known(column, i, reference))
        elif not fits[i]:
            cells.append(_mismatch(column, i, reference))
        elif not are_alike(column, column.values[i]):
            apart = span(column.values[i])
            cells.append(column.confounded(i, "own_edges", difference=apart))
        else:
            cells.append(column.cell(i, "matched"))
    return cells


def _partly_known(column: ComparedColumn, i: int, reference: int | None) -> Cell:
    """One edge's value is still open; what is known of the others may forbid a comparison
    already.
    """
    odd = [
        v.value
        for v in column.values[i]
        if v.evidence and reference is not None and not agree(column, v, column.facts[reference])
    ]
    if not odd or reference is None:
        return column.pending(i)
    there = column.facts[reference].value
    return column.confounded(i, "one_edge", odd[0], reference, there)


def _mismatch(column: ComparedColumn, i: int, reference: int) -> Cell:
    variable, fact, other = column.variable, column.facts[i], column.facts[reference]
    if not isinstance(fact.value, float) or not isinstance(other.value, float):
        return column.confounded(i, "word", fact.value, reference, other.value)
    away = fact.value - other.value
    scale = scale_of(variable.kind)
    if scale is RATIO and _is_near(column, fact.value, other.value):
        return column.confounded(i, "kind", fact.kind, reference, other.kind)
    if scale is RELATIVE:
        percent = 100.0 * abs(away) / other.value
        return column.confounded(i, "percent", fact.value, reference, other.value, percent)
    return column.confounded(i, "number", fact.value, reference, other.value, away)


def _is_near(column: ComparedColumn, a: float, b: float) -> bool:
    """Whether two sizes lie within the factor that is allowed, and so differ only in kind."""
    return RATIO.apart(a, b) <= column.rule.tolerance(column.variable)


def _micro_bevel(column: ComparedColumn) -> list[Cell]:
    """Present on all or none; where present, alike within the tolerance."""
    present = [bool(fact.value) for fact in column.facts]
    majority = sum(present) * 2 > len(present)
    reference, fits = most_agreed(column, [i for i, there in enumerate(present) if there])
    cells = []
    for i, blade in enumerate(column.blades):
        if column.facts[i].value is None:
            unknown = Open(blade.code, column.variable.name, "micro_bevel_not_recorded")
            cells.append(column.open(i, unknown))
        elif not are_alike(column, column.values[i]):
            cells.append(column.confounded(i, "own_edges", difference=span(column.values[i])))
        elif present[i] != majority:
            how: Unlike = "has_micro_bevel" if present[i] else "lacks_micro_bevel"
            cells.append(column.confounded(i, how, column.facts[i].value))
        elif reference is not None and not fits.get(i, True):
            cells.append(_mismatch(column, i, reference))
        else:
            cells.append(column.cell(i, "matched"))
    return cells


def _hardness(column: ComparedColumn) -> list[Cell]:
    if column.rule.hardness_reading == "as_usually_hardened":
        return [_usual_hardness(column, i) for i in range(len(column.blades))]
    return _against_the_others(column)


def _usual_hardness(column: ComparedColumn, i: int) -> Cell:
    blade, fact, name = column.blades[i], column.facts[i], column.variable.name
    if not fact.evidence or not isinstance(fact.value, float):
        return column.pending(i)
    if blade.usual_hardness_hrc is None:
        return column.open(i, Open(blade.code, name, "usual_hardness_not_known"))
    low, high = blade.usual_hardness_hrc
    if low <= fact.value <= high:
        return column.cell(i, "matched")
    found = Mismatch(blade.code, name, "unusual_hardness", fact.value, usual_hrc=(low, high))
    return column.cell(i, "confounded", found)


def _length(column: ComparedColumn) -> list[Cell]:
    """Counts that are put on one length need it measured, not equal."""
    if column.rule.scale_edge_length:
        return [
            column.cell(i, "matched" if fact.evidence else "pending")
            for i, fact in enumerate(column.facts)
        ]
    return _against_the_others(column)


def _settled(variable: Variable, blades: Sequence[BladeFacts], _rule: MatchingRule) -> list[Cell]:
    """Whether the edges in use count under the rule; what does not count is left out, and so spoils
    no pair.
    """
    cells = []
    for blade in blades:
        if not blade.settled:
            continue
        numbers = ", ".join(str(number) for number, _ in blade.settled)
        shown = f"edge {numbers}" if len(blade.settled) == 1 else f"edges {numbers}"
        odd = tuple((number, found) for number, found in blade.settled if not found.counts)
        state: MatchState = "matched"
        finding: Mismatch | Open | None = None
        if odd and all(found.state == "unknown" for _, found in odd):
            state = "pending"
            finding = Open(blade.code, variable.name, "settled_not_known", edges=odd)
        elif odd:
            state = "confounded"
            finding = Mismatch(blade.code, variable.name, "left_out", edges=odd)
        cells.append(Cell(blade.code, variable.name, None, shown, None, state, finding))
    return cells


COMPARERS: Mapping[VariableKind, Comparer] = {
    "absolute": _usually(_against_the_others),
    "relative": _usually(_against_the_others),
    "ratio": _usually(_against_the_others),
    "alike": _usually(_against_the_others),
    "start": _usually(_against_the_others),
    "steel": _usually(_steel),
    "micro_bevel": _usually(_micro_bevel),
    "hardness": _usually(_hardness),
    "length": _usually(_length),
    "settled": _settled,
}
