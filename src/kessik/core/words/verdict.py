"""The answer in words: base of every per cent named, doubt and scope said in the same breath."""

from collections.abc import Mapping, Sequence

from kessik.core.comparison.analysis import TrialAnalysis
from kessik.core.comparison.findings import (
    Apart,
    Mismatch,
    NotApart,
    OneEdgeEach,
    Reason,
    SmallButReal,
    StartedDuller,
    WithinIndifference,
)
from kessik.core.comparison.matching import MatchingRule
from kessik.core.comparison.ranking import confounded_blades, ranked
from kessik.core.comparison.verdict import INDIFFERENCE, Comparison
from kessik.core.trials.verdict import Verdict
from kessik.core.words.figures import figure_headline
from kessik.core.words.lives import percent_longer
from kessik.core.words.matching import mismatch_words, open_lines, what_differs

WORKING = "Working it out."


def answer_headline(found: Verdict) -> str:
    """The answer of a trial in one or two sentences, or that it is still being worked out."""
    return headline(found.analysis, found.stage) if found.is_worked_out else WORKING


def answer_standing(found: Verdict) -> str:
    """What a trial's answer rests on; empty while there is none."""
    return standing_words(found.analysis, found.stage) if found.is_worked_out else ""


def comparison_words(comparison: Comparison) -> str:
    """One pair in one sentence; longer and shorter carry both bases."""
    a, b, ratio, low, high = (
        comparison.a,
        comparison.b,
        comparison.ratio,
        comparison.low,
        comparison.high,
    )
    if ratio < 1:
        a, b, ratio, low, high = b, a, 1 / ratio, 1 / high, 1 / low
    if comparison.verdict in ("longer", "shorter"):
        span = f"{100 * (low - 1):.0f} to {100 * (high - 1):.0f} %"
        short = f"{a} falls short of {b} by {100 * (1 - 1 / ratio):.0f} %"
        return f"{b} outlasts {a} by {percent_longer(ratio)} ({span}); {short}."
    if comparison.verdict == "too_close":
        return (
            f"{a} and {b} are too close to matter: {b} lasts {low:.2f} to {high:.2f} times as long"
            f" as {a}."
        )
    if comparison.verdict == "confounded":
        lasted = f"{b} lasted {ratio:.2f} times as long as {a} ({low:.2f} to {high:.2f})"
        return (
            f"{a} and {b} cannot be compared fairly; {lasted}, and the mismatch has a share in it."
        )
    return (
        f"{a} and {b} cannot be told apart yet: {b} lasts {low:.2f} to {high:.2f} times as long as"
        f" {a}."
    )


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
        return f"Only {blades[0].blade} has been cut so far; a comparison needs a second blade."
    spoiled = confounded_blades(pairs)
    fair = [c for c in pairs if c.verdict != "confounded"]
    sentences = [_wins(fair, [b.blade for b in blades])]
    sentences.extend(f"{code} is not ranked: {_first_reason(pairs, code)}." for code in spoiled)
    if not fair and not spoiled:
        sentences.append(
            "No two blades here can be compared fairly: each pair differs in more than the factor."
        )
    return " ".join(sentence for sentence in sentences if sentence)


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
    return f"With every edge counted: {_wins(fair, [b.blade for b in ranked(analysis, stage)])}"


def _wins(fair: Sequence[Comparison], order: Sequence[str]) -> str:
    by_pair: Mapping[frozenset[str], Comparison] = {frozenset((c.a, c.b)): c for c in fair}
    clauses = []
    for index, better in enumerate(order):
        beaten, level = [], []
        for worse in order[index + 1 :]:
            pair = by_pair.get(frozenset((better, worse)))
            if pair is None:
                continue
            if pair.verdict in ("longer", "shorter"):
                beaten.append(f"{worse} by {percent_longer(max(pair.ratio, 1 / pair.ratio))}")
            elif pair.verdict == "too_close":
                level.append(f"{better} and {worse} are too close to matter")
            else:
                level.append(f"{better} and {worse} cannot be told apart yet")
        if beaten:
            clauses.append(f"{better} outlasts {' and '.join(beaten)}")
        clauses.extend(level)
    return "; ".join(clauses) + "." if clauses else ""


def _first_reason(pairs: Sequence[Comparison], code: str) -> str:
    for found in (reason for pair in pairs for reason in pair.reasons):
        if isinstance(found, Mismatch) and found.blade == code:
            return what_differs(found)
    return "something other than the factor differs"


def reason_words(reason: Reason, rule: MatchingRule) -> str:
    """Why a pair's verdict is what it is."""
    match reason:
        case Mismatch():
            return f"{reason.blade}: {mismatch_words(reason, rule.factor)}"
        case WithinIndifference():
            within = f"{1 / INDIFFERENCE:.2f} to {INDIFFERENCE:g}"
            return f"the ratio lies within {within} with 90 % confidence"
        case SmallButReal(low, high):
            return f"a real but smaller difference: 95 % interval {low:.2f} to {high:.2f}"
        case Apart(low, high):
            return f"the 95 % interval of the ratio, {low:.2f} to {high:.2f}, excludes 1"
        case NotApart(low, high):
            return f"the 95 % interval of the ratio, {low:.2f} to {high:.2f}, holds 1"
        case OneEdgeEach():
            return (
                "one edge each: how much re-sharpening changes the life is taken from common"
                " practice, not seen"
            )
        case StartedDuller(blade, percent):
            return (
                f"{blade} started {percent:.0f} % duller: per cent lost and end sharpness may"
                " disagree"
            )


def _scopes(pairs: Sequence[Comparison]) -> str:
    """One scope where all pairs share it; else the narrow one, with the pairs that may say more."""
    scopes = list(dict.fromkeys(c.scope for c in pairs))
    wider = [scope for scope in scopes if scope != "these blades"]
    if len(scopes) == 1 or not wider:
        return scopes[0]
    which = ", ".join(f"{c.a} against {c.b}" for c in pairs if c.scope == wider[0])
    return f"these blades, and of {wider[0]} only for {which}"


def standing_words(analysis: TrialAnalysis, stage: str) -> str:
    """What the answer rests on and what it may speak of, under the headline."""
    pairs = [c for c in analysis.comparisons if c.stage == stage and c.verdict != "confounded"]
    runs = sum(1 for r in analysis.runs if stage in r.lives or (not stage and r.figures))
    blades = ranked(analysis, stage) or [b for b in analysis.blades if b.figures]
    pairs = pairs or [c for c in analysis.figure_comparisons if c.verdict != "confounded"]
    parts = [
        f"{runs} {'run' if runs == 1 else 'runs'} on {len(blades)}"
        f" {'blade' if len(blades) == 1 else 'blades'}"
    ]
    if pairs:
        parts.append(f"the answer speaks of {_scopes(pairs)}")
    words = "; ".join(parts) + "."
    still_open = open_lines(analysis.pending)
    return f"{words} Open: {'; '.join(still_open)}." if still_open else words
