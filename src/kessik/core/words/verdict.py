"""The answer in words: base of every per cent named, doubt and scope said in the same breath."""

from collections.abc import Mapping, Sequence

from kessik.core.comparison.analysis import BladeResult, TrialAnalysis
from kessik.core.comparison.findings import HingesOnEdge, Mismatch
from kessik.core.comparison.ranking import confounded_blades, ranked
from kessik.core.comparison.verdict import THESE_BLADES, THESE_EDGES, Comparison
from kessik.core.trials.upkeep import upkeep
from kessik.core.trials.verdict import Verdict
from kessik.core.words.dose import dose_words, shown_words
from kessik.core.words.figures import figure_headline
from kessik.core.words.lives import life_words
from kessik.core.words.matching import and_words, open_lines, what_differs
from kessik.core.words.pairs import hinge_words, oriented, pair_words, size_words
from kessik.core.words.sentences import as_sentence, counted, two_sentences
from kessik.core.words.stages import to_stage
from kessik.core.words.upkeep import restored_words

WORKING = "Working it out."


def answer_headline(found: Verdict) -> str:
    """The answer of a trial in one or two sentences, or that it is still being worked out."""
    if not found.is_worked_out:
        return WORKING
    rounds = _rounds_words(found) if found.trial.method.cycles else ""
    if not rounds:
        return two_sentences(_after_dose_words(found.analysis), _plain_headline(found))
    return f"{rounds} {_first_rounds(found)}".strip()


def _after_dose_words(analysis: TrialAnalysis) -> str:
    """What the blades still do after a dose, by pass and fail first, then by the tester's own
    checks.
    """
    done, shown = dose_words(analysis.after_dose), shown_words(analysis.shown_after_dose)
    return f"{done} {shown}".strip()


def _first_rounds(found: Verdict) -> str:
    """Round 1 of each blade against round 1 of the others: rounds are never pooled."""
    fair, order = _fair_and_order(found.analysis, found.stage)
    ranks = _ranks(fair, order, "")
    return f"Round 1 against round 1, {to_stage(found.stage)}: {ranks}" if ranks else ""


def _plain_headline(found: Verdict) -> str:
    return as_sentence(headline(found.analysis, found.stage))


def _rounds_words(found: Verdict) -> str:
    """Whether the same light sharpening still restores each blade, since when not, and how its
    effort grows; empty before there are rounds to tell of.
    """
    judged = [(each.blade.code, each.restoring) for each in upkeep(found) if each.restoring]
    said = "; ".join(f"{code} {restored_words(restoring)}" for code, restoring in judged)
    return as_sentence(f"{said}.") if said else ""


def answer_standing(found: Verdict) -> str:
    """What a trial's answer rests on; empty while there is none."""
    return standing_words(found.analysis, found.stage) if found.is_worked_out else ""


def headline(analysis: TrialAnalysis, stage: str) -> str:
    """The answer to the trial's question in one or two sentences."""
    pairs = [c for c in analysis.comparisons if c.stage == stage]
    blades = ranked(analysis, stage)
    if not blades:
        return figure_headline(analysis)
    if not pairs and analysis.with_all:
        counting = [b.blade for b in blades if not b.left_out]
        who = f"only {counting[0]} has" if counting else "no blade has"
        return (
            f"Under the rule fixed before cutting, {who} an edge that counts yet."
            f" {with_all_words(analysis, stage)}"
        )
    if not pairs and all(result.left_out for result in analysis.runs):
        return "No edge that was cut counts under the rule."
    if not pairs:
        return _alone_words(blades[0], stage)
    to = to_stage(stage)
    spoiled = confounded_blades(pairs)
    fair = [c for c in pairs if c.verdict != "confounded"]
    if not fair and not spoiled:
        return (
            "No two blades here can be compared fairly: each pair differs in more than the factor."
        )
    order = [b.blade for b in blades if b.blade not in spoiled]
    left = "; ".join(f"{code} is not ranked: {_first_reason(pairs, code)}" for code in spoiled)
    return _answer(fair, order, left, to)


def _alone_words(blade: BladeResult, stage: str) -> str:
    """What one blade shows by itself: its life and how well its edges repeat."""
    found = life_words(blade.lives[stage].found, blade.count_unit)
    over = f" over {blade.edges} edges" if blade.edges > 1 else " on one edge"
    spread = blade.spread_percent
    repeats = "" if spread is None else f", whose lives spread by {_percent_or_less(spread)}"
    return f"{blade.blade} alone, {to_stage(stage)}: {found}{over}{repeats}."


def _percent_or_less(percent: float) -> str:
    return f"{percent:.0f} %" if percent >= 1.0 else "less than 1 %"


def with_all_words(analysis: TrialAnalysis, stage: str) -> str:
    """The same answer with every edge, the ones the rule leaves out too; empty where the rule
    leaves none out.
    """
    pairs = [c for c in analysis.with_all if c.stage == stage]
    fair = [c for c in pairs if c.verdict != "confounded"]
    if not pairs:
        return ""
    if not fair:
        return "With every edge counted, no two blades can be compared fairly."
    order = [b.blade for b in ranked(analysis, stage)]
    with_all = _answer(fair, order, "", "")
    if analysis.comparisons and with_all == _answer(*_fair_and_order(analysis, stage), "", ""):
        return "With every edge counted the answer is the same: those left out weigh too little."
    return f"With every edge counted: {with_all}"


def _fair_and_order(analysis: TrialAnalysis, stage: str) -> tuple[list[Comparison], list[str]]:
    pairs = [c for c in analysis.comparisons if c.stage == stage]
    spoiled = confounded_blades(pairs)
    fair = [c for c in pairs if c.verdict != "confounded"]
    return fair, [b.blade for b in ranked(analysis, stage) if b.blade not in spoiled]


def _answer(fair: Sequence[Comparison], order: Sequence[str], left: str, to: str) -> str:
    """At most two sentences: the ranks to a stage, and of more than two blades how far the first
    lies ahead of the next, or which edge a place hangs on.
    """
    by_pair = {frozenset((c.a, c.b)): c for c in fair}
    groups = _groups(_seen(order, by_pair), by_pair)
    first = _ranks(fair, order, left)
    said = as_sentence(f"{to}, {first}" if to and first else first)
    if sum(len(group) for group in groups) < 3:
        return said
    doubtful = [r for c in fair for r in c.reasons if isinstance(r, HingesOnEdge)]
    if doubtful:
        return f"{said} {_doubt_words(doubtful)}."
    lead = by_pair.get(frozenset((groups[0][0], groups[1][0]))) if len(groups) > 1 else None
    return f"{said} {_pair_clause(lead)}." if lead is not None else said


def _doubt_words(found: Sequence[HingesOnEdge]) -> str:
    """The edges that do not fit among several blades, each said once."""
    edges = {(each.blade, each.edge): each for each in found}
    told = [
        f"{blade}'s edge {edge} ({round(each.lives[0], 1):g}, its others"
        f" {round(each.lives[1], 1):g} {each.unit})"
        for (blade, edge), each in edges.items()
    ]
    return f"Look at {and_words(told)} before believing the order"


def _ranks(fair: Sequence[Comparison], order: Sequence[str], left: str) -> str:
    """One sentence: two blades with the size of their difference, more of them in groups; `left`
    says who is not ranked.
    """
    by_pair = {frozenset((c.a, c.b)): c for c in fair}
    seen = _seen(order, by_pair)
    if not seen:
        return ""
    groups = _groups(seen, by_pair)
    if len(seen) == 2:
        clause = _pair_clause(by_pair[frozenset(seen)])
    elif len(groups) > 1:
        order_words = ", then ".join(_together(group, by_pair) for group in groups)
        clause = f"longest first: {order_words}"
    elif _is_apart(by_pair.get(frozenset((seen[0], seen[-1])))):
        ends = _pair_clause(by_pair[frozenset((seen[0], seen[-1]))])
        clause = f"{ends}; in the order {', '.join(seen)} neighbours cannot be told apart yet"
    else:
        clause = f"{and_words(seen)} cannot be told apart yet"
    return f"{clause}{f'; {left}' if left else ''}."


def _seen(order: Sequence[str], by_pair: Mapping[frozenset[str], Comparison]) -> list[str]:
    return [code for code in order if any(code in pair for pair in by_pair)]


def _pair_clause(pair: Comparison) -> str:
    hanging = [reason for reason in pair.reasons if isinstance(reason, HingesOnEdge)]
    if hanging:
        return hinge_words(pair, hanging)
    if pair.verdict in ("longer", "shorter"):
        told = oriented(pair)
        return f"{told.longer} outlasts {told.shorter} by {size_words(told)}"
    return pair_words(pair).rstrip(".")


def _groups(order: Sequence[str], by_pair: Mapping[frozenset[str], Comparison]) -> list[list[str]]:
    """The ranking in groups: a blade joins the one above it unless it is apart from all of it."""
    groups: list[list[str]] = []
    for code in order:
        pairs = [by_pair.get(frozenset((code, other))) for other in (groups[-1] if groups else [])]
        if pairs and not all(_is_apart(pair) for pair in pairs):
            groups[-1].append(code)
        else:
            groups.append([code])
    return groups


def _is_apart(pair: Comparison | None) -> bool:
    return pair is not None and pair.verdict in ("longer", "shorter")


def _together(group: Sequence[str], by_pair: Mapping[frozenset[str], Comparison]) -> str:
    """A group in words; one whose ends are apart is a chain of neighbours that are not."""
    if len(group) == 1:
        return group[0]
    if _is_apart(by_pair.get(frozenset((group[0], group[-1])))):
        return f"{', '.join(group)} in this order, neighbours not separated"
    return f"{and_words(group)} together"


def _first_reason(pairs: Sequence[Comparison], code: str) -> str:
    for found in (reason for pair in pairs for reason in pair.reasons):
        if isinstance(found, Mismatch) and found.blade == code:
            return what_differs(found)
    return "something other than the factor differs"


def _of_what(analysis: TrialAnalysis, codes: Sequence[str]) -> str:
    """What the runs are of: so many blades, or arms of so many."""
    bodies = {r.run.cut_with for r in analysis.runs if r.run.blade in codes}
    if len(bodies) >= len(codes):
        return f"on {counted(len(codes), 'blade')}"
    arms = f"of {counted(len(codes), 'arm')}"
    return f"{arms} of {bodies.pop()}" if len(bodies) == 1 else f"{arms} on {len(bodies)} blades"


def _scopes(pairs: Sequence[Comparison]) -> str:
    """One scope where all pairs share it; else the narrow one, with the pairs that may say more."""
    scopes = list(dict.fromkeys(c.scope for c in pairs))
    wider = [scope for scope in scopes if scope not in (THESE_BLADES, THESE_EDGES)]
    if not wider:
        return THESE_BLADES if THESE_BLADES in scopes else scopes[0]
    if len(scopes) == 1:
        return scopes[0]
    which = ", ".join(f"{c.a} against {c.b}" for c in pairs if c.scope == wider[0])
    return f"{THESE_BLADES}, and of {wider[0]} only for {which}"


def standing_words(analysis: TrialAnalysis, stage: str) -> str:
    """What the answer rests on and what it may speak of, under the headline."""
    pairs = [c for c in analysis.comparisons if c.stage == stage and c.verdict != "confounded"]
    runs = sum(
        1
        for r in analysis.runs
        if not r.left_out and (stage in r.lives or (not stage and analysis.is_measured(r)))
    )
    blades = ranked(analysis, stage) or analysis.measured_blades
    pairs = pairs or [c for c in analysis.figure_comparisons if c.verdict != "confounded"]
    parts = [f"{counted(runs, 'run')} {_of_what(analysis, [b.blade for b in blades])}"]
    if pairs:
        parts.append(f"the answer holds for {_scopes(pairs)}")
    words = "; ".join(parts) + "."
    still_open = open_lines(analysis.pending, len(analysis.blades))
    return f"{words} Open: {'; '.join(still_open)}." if still_open else words
