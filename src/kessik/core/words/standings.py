"""Standings in words: lives beside a reference, places, and trials that disagree."""

import math
from collections.abc import Mapping, Sequence
from typing import Any

from kessik.core.protocols.schools import SCHOOLS
from kessik.core.spreads import Z_95
from kessik.core.standings.answer import LifeRatio
from kessik.core.standings.board import Board, Doubted, Rung
from kessik.core.standings.comparable import CRITERIA, LikeClass
from kessik.core.standings.consistency import ConsistencyLevel, Judged
from kessik.core.standings.doubt import NetworkCell
from kessik.core.standings.groups import GroupLife, Spread
from kessik.core.standings.network import Network
from kessik.core.standings.next_cut import MOST_EDGES, Advice, Bridge, UsefulCut
from kessik.core.standings.testers import TesterStanding
from kessik.core.units import format_interval, format_to_uncertainty
from kessik.core.vocabulary import CUTS, HARDNESS_READINGS, MEDIA

_NTH = {1: "st", 2: "nd", 3: "rd"}
_TRAITS: Mapping[str, Mapping[Any, str]] = {
    "school": {method.school: method.name for method in SCHOOLS},
    "medium": MEDIA,
    "cut": CUTS,
    "hardness_reading": HARDNESS_READINGS,
    "edge_length": {"known": "edge length known"},
}
_FIRSTS_NAMED = 4
CHECKLIST = (
    "the edge: burr, angle, thickness behind the edge",
    "the lot of the medium",
    "the hardness, and whether the blade was hardened again",
    "the heat treatment",
    "the grade: an assay shows whether it is what it is sold as",
)
"""What a difference larger than its own error asks about."""


def ratio_words(ratio: float | None, low: float | None, high: float | None) -> str:
    """A life as a multiple of the reference's: 1.24 ×, 1.1 to 1.4."""
    if ratio is not None and low is not None and high is not None:
        if low == high:
            return "1 ×"
        return f"{format_to_uncertainty(ratio, low, high)} ×, {format_interval(low, high)}"
    if low is not None:
        return f"at least {low:.2g} ×"
    return f"at most {high:.2g} ×" if high is not None else "not known"


def life_ratio_words(life: LifeRatio | None) -> str:
    """The same of a pair; a pair without any path is not known."""
    return "not known" if life is None else ratio_words(life.ratio, life.low, life.high)


def nth(place: int) -> str:
    """1st, 2nd, 3rd, 11th."""
    is_teen = place % 100 in (11, 12, 13)
    return f"{place}{'th' if is_teen else _NTH.get(place % 10, 'th')}"


def place_words(best: int, worst: int, of: int | None = None) -> str:
    """4th to 6th of 23."""
    span = nth(best) if best == worst else f"{nth(best)} to {nth(worst)}"
    return span if of is None else f"{span} of {of}"


def headline(found: Board, codes: Mapping[str, str]) -> str:
    """Who stands first of the largest island, and how far that is known."""
    main = [rung for rung in found.rungs if rung.island == 0]
    firsts = [codes[rung.arm] for rung in main if rung.place.best == 1]
    if len(main) == 1:
        return f"{firsts[0]} is the only blade so far; nothing was cut beside it."
    if len(firsts) == len(main):
        return f"No order yet: each of {len(main)} blades could be first."
    if len(firsts) == 1:
        first = main[0]
        beside = "" if first.arm == found.reference else f": {_beside(found, first, codes)}"
        return f"{firsts[0]} is first of {len(main)}{beside}."
    if len(firsts) <= _FIRSTS_NAMED:
        return f"First of {len(main)}: {_either(firsts)}. They are too close to order."
    return f"{len(firsts)} of {len(main)} blades are too close to say which is first."


def _beside(found: Board, rung: Rung, codes: Mapping[str, str]) -> str:
    life = rung.ratio
    assert life is not None
    if life.ratio is None:
        return f"{life_ratio_words(life)} {codes[found.reference]}"
    return f"{life_ratio_words(life)}, beside {codes[found.reference]}"


def basis_words(found: Board) -> list[str]:
    """What the answer rests on, sentence by sentence."""
    edges = _count(found.runs, "edge")
    out = [
        f"{edges} in {_count(found.trials, 'trial')}.",
        f"Edges of one blade differ by about {100 * found.edge_sd:.0f} %.",
    ]
    share = f"{100 * found.tester_sd:.0f} %"
    if found.testers > 1:
        out.append(f"A blade differs by about {share} from one tester to another.")
    else:
        out.append(
            f"One tester only: that a blade differs by {share} from tester to tester is assumed."
        )
    return out


def loosened_words(like: LikeClass) -> list[str]:
    """What the lives that are compared do not agree in."""
    out = []
    for criterion in CRITERIA:
        there = [_trait(criterion.key, value) for value in like.mixed.get(criterion.key, ())]
        if criterion.key == "edge_length" and there:
            out.append(
                "Edge length is not known in every trial; those lives are not scaled to one length."
            )
        elif there:
            out.append(f"Trials differ in {criterion.label}: {'; '.join(there)}.")
    return out


def _trait(key: str, value: str) -> str:
    return _TRAITS.get(key, {}).get(value, value)


def class_words(like: LikeClass) -> str:
    """What a class of lives shares: Force-limit rope series, rope, slice, 400 gf."""
    told = [_trait(key, value) for key, value in like.traits]
    return ", ".join(each for each in told if each) or "all lives"


def class_size_words(like: LikeClass) -> str:
    """How much a class holds."""
    return f"{_count(like.arms, 'blade')}, {_count(like.trials, 'trial')}"


def rests_words(rung: Rung, codes: Mapping[str, str], reference: str) -> str:
    """What a place rests on: trials, edges and ways to the reference."""
    rests = f"{_count(rung.runs, 'edge')} in {_count(len(rung.trials), 'trial')}"
    if rung.arm == reference or not rung.paths:
        return f"{rests}."
    ways = "one path leads" if rung.paths == 1 else f"{rung.paths} separate paths lead"
    return f"{rests}; {ways} to {codes[reference]}."


def unlike_words(rung: Rung) -> list[str]:
    """In how many trials its edge was not matched, by variable."""
    return [
        f"{variable} not matched in {_count(trials, 'trial')}"
        for variable, trials in sorted(rung.unlike.items())
    ]


def off_group_words(factor: float, group: GroupLife) -> str:
    """A blade that is far from the others of its group."""
    side = "below" if factor < 1 else "above"
    return (
        f"{_span(group)}; this one lies {side} the others, at {_times(factor)}"
        " theirs. Check the edge, the hardness and, by assay, the grade."
    )


def group_words(group: GroupLife) -> str:
    """From where to where a group has run."""
    return f"{_span(group)}."


def _span(group: GroupLife) -> str:
    blades = _count(len(group.arms), "blade")
    if len(group.arms) == 1:
        return f"{group.name}: {group.lowest:.2g} × the reference, one blade"
    return f"{group.name}: {group.lowest:.2g} to {group.highest:.2g} × the reference over {blades}"


def spread_words(spread: Spread, grouping: str) -> list[tuple[str, float]]:
    """The parts of the whole spread with the share of each, per cent."""
    labels = {
        "groups": grouping, "arms": "blades of one " + grouping, "edges": "edges of one blade",
        "testers": "testers", "blocks": "lots, days and blocks",
    }  # fmt: skip  # a table is read by its rows
    return [(labels[name], 100 * share) for name, share in spread.shares().items()]


def doubt_sentence(network: Network, cell: NetworkCell) -> str:
    """Which trial disagrees with all others, by which blade, and by how much."""
    arm = network.arms[cell.arm]
    rivals = [network.arms[other] for other in cell.or_else]
    return _doubt(network.trials[cell.trial], [arm, *rivals], cell.factor)


def doubted_words(doubted: Doubted, codes: Mapping[str, str], trial: str) -> str:
    """The same by the names of the page."""
    return _doubt(trial, [codes[arm] for arm in (doubted.arm, *doubted.or_else)], doubted.factor)


def _doubt(trial: str, blades: Sequence[str], factor: float) -> str:
    said = f"{trial}: {blades[0]} lasted {_times(factor)} as long as all other trials predict."
    if len(blades) > 1:
        said += f" Or {_either(blades[1:])} is off by as much the other way."
    return said


def with_and_without_words(doubted: Doubted, codes: Mapping[str, str]) -> str:
    """Where the blade stands with that trial's lives of it and without."""
    code = codes[doubted.arm]
    return (
        f"{code} with them: {life_ratio_words(doubted.with_it)}. Without:"
        f" {life_ratio_words(doubted.without)}."
    )


def tester_words(found: TesterStanding, first: str) -> str:
    """On how much a tester's own standings rest, and how far their counts go beside the first's."""
    rests = f"{_count(found.trials, 'trial')}, {_count(found.runs, 'run')}"
    level = found.level
    if level is None or level.ratio is None or level.low is None or level.high is None:
        return rests
    ratio = format_to_uncertainty(level.ratio, level.low, level.high)
    span = format_interval(level.low, level.high)
    return f"{rests}; the same blade lasts {ratio} times ({span}) as long as with {first}"


def consistency_words(level: ConsistencyLevel, code: str, names: Mapping[str, str]) -> list[str]:
    """What of a blade's lives stands apart from one tester to the others, a line each."""
    told = []
    for cell in level.cells:
        name = names[cell.tester]
        if cell.h and cell.h.is_apart:
            way = "higher" if cell.h.value > 0 else "lower"
            told.append(f"{code}: lives of {name} lie {way} than those of the others do (h).")
        if cell.k and cell.k.is_apart:
            told.append(
                f"{code}: edges of {name} scatter {cell.k.value:.1f} times as much as all do (k)."
            )
    return told


def judged_words(found: Judged | None) -> str:
    """A figure, and whether it is a straggler or an outlier."""
    if found is None:
        return ""
    said = ", outlier" if found.is_outlier else ", straggler" if found.is_straggler else ""
    return f"{found.value:.2f}{said}"


def repeat_words(found: Board) -> str:
    """How far two edges of one blade lie apart, cut by one tester and by two."""
    if len(found.by_tester) < 2:
        return ""
    of_two = Z_95 * math.sqrt(2.0)
    one = math.expm1(of_two * found.edge_sd)
    two = math.expm1(of_two * math.hypot(found.edge_sd, found.tester_sd))
    return (
        f"Two edges of one blade, cut by one tester, differ by up to {100 * one:.0f} % in 95 of 100"
        f" (repeatability); cut by two testers, by up to {100 * two:.0f} % (reproducibility)."
    )


def power_words(found: Board) -> str:
    """What the search for trials that disagree could have found."""
    power = found.power
    if not power.cells:
        return "No trial can be checked against the others: no blade was cut in two of them."
    said = (
        f"A blade that lasted 1.5 times too long in one trial would be found in {power.found} of"
        f" {_count(power.cells, 'case')}"
    )
    never = f"; in {power.never} nothing could be found" if power.never else ""
    return f"{said}{never}. More edges in a trial find more."


def bridge_words(bridge: Bridge, codes: Mapping[str, str], islands: Sequence[int]) -> str:
    """What to cut side by side so that an island is compared with the rest."""
    size = islands[bridge.islands[1]]
    what = "This blade is" if size == 1 else f"These {size} blades are"
    return (
        f"{what} not connected to the others. Cut {codes[bridge.b]} beside {codes[bridge.a]},"
        f" {_count(bridge.edges, 'edge')} each: pairs across are then known to within a factor of"
        f" {bridge.factor_after:.2f}."
    )


def advice_words(advice: Advice, codes: Mapping[str, str], about: Sequence[str]) -> str:
    """What the cuts are for, or that more cutting is not worth it."""
    names = [codes[arm] for arm in about if arm in codes]
    asked = {
        "top": "To settle which blade is first",
        "place": f"To settle where {names[0] if names else 'it'} stands",
        "pair": f"To compare {' and '.join(names)}",
        "bridge": "To connect them",
    }[advice.asked]
    if not advice.cuts:
        return f"{asked} there is nothing left to cut."
    if advice.asked == "pair":
        return f"{asked}: {_to_order(advice.edges_to_order)}"
    if advice.is_enough:
        return f"{asked} more cutting is not worth it: no two edges would change the order much."
    return f"{asked}, cut:"


def _to_order(edges: int | None) -> str:
    """The cheapest honest answer to which of two lasts longer."""
    if edges == 0:
        return "their order is known already. What would narrow the ratio further:"
    if edges is None:
        return (
            f"even {MOST_EDGES} edges each would not show which lasts longer; call them equal"
            " within this interval. What would narrow it most:"
        )
    return f"{_count(edges, 'edge')} each, side by side, should show which lasts longer."


def cut_words(cut: UsefulCut, codes: Mapping[str, str]) -> str:
    """One cut with what it is expected to do."""
    edges = _count(cut.edges, "edge")
    now = "not known" if cut.factor_now > 1e6 else f"{cut.factor_now:.2f}"
    return (
        f"{codes[cut.a]} beside {codes[cut.b]}, {edges} each, about {cut.hours:.1f} h and"
        f" {cut.metres:.1f} m: their ratio would be known within a factor of"
        f" {cut.factor_after:.2f}, now {now}"
    )


def _times(factor: float) -> str:
    return f"{factor:.1f} times" if factor >= 1 else f"{factor:.2f} times"


def _either(names: Sequence[str]) -> str:
    if len(names) == 1:
        return names[0]
    return f"{', '.join(names[:-1])} or {names[-1]}"


def _count(number: int, noun: str) -> str:
    return f"{number} {noun}{'' if number == 1 else 's'}"
