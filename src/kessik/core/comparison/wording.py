"""The answer in words: base of every per cent named, doubt and scope said in the same breath."""

from collections.abc import Mapping, Sequence

from kessik.core.comparison.analysis import BladeResult, TrialAnalysis
from kessik.core.comparison.figures import KINDS
from kessik.core.comparison.matching import Cell, MatchingRule
from kessik.core.comparison.verdict import Comparison
from kessik.core.sharpness.life import BeforeFirstCheck, Bracketed, Crossed, Found, NotReached


def honest(value: float, low: float, high: float) -> str:
    """A number with the digits its interval supports."""
    width = max(high - low, 1e-12)
    decimals = 0 if width >= 2 or value >= 100 else 1 if width >= 0.15 else 2
    return f"{value:.{decimals}f}"


def percent_longer(ratio: float) -> str:
    """The size of a ratio as the per cent that `longer` refers to."""
    return f"{100 * (ratio - 1):.0f} %"


def life_words(found: Found, unit: str) -> str:
    """One life in words, for every status."""
    match found:
        case Crossed(estimate, low, high):
            return (
                f"{honest(estimate, low, high)} {unit}, {honest(low, low, high)} to"
                f" {honest(high, low, high)}"
            )
        case Bracketed(last_pass, first_fail):
            return f"between {last_pass:g} and {first_fail:g} {unit}"
        case NotReached(last_good, None):
            return (
                f"not reached; still good at {last_good:g} {unit}, and the readings do not say how"
                " far it would go"
            )
        case NotReached(last_good, ahead):
            assert ahead is not None
            low, high = ahead.low, ahead.high
            span = f"{honest(low, low, high)} to {honest(high, low, high)}"
            return (
                f"not reached by {last_good:g} {unit}; carried on, about"
                f" {honest(ahead.estimate, low, high)} ({span})"
            )
        case BeforeFirstCheck(first_check):
            return (
                "was beyond the limit at its start"
                if first_check == 0
                else f"was beyond it by the first check at {first_check:g} {unit}"
            )


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
        return _figure_headline(analysis)
    if not pairs and analysis.with_all:
        counting = [b.blade for b in blades if not b.left_out]
        who = f"only {counting[0]} has" if counting else "no blade has"
        return (
            f"Under the rule fixed before cutting, {who} an edge that counts yet."
            f" {with_all_words(analysis, stage)}"
        )
    if not pairs and all(result.left_out for result in analysis.runs):
        return "No edge that was cut counts now; why is said below."
    if not pairs:
        return f"Only {blades[0].blade} has been cut so far; a comparison needs a second blade."
    spoiled = confounded_blades(pairs)
    fair = [c for c in pairs if c.verdict != "confounded"]
    sentences = [_wins(fair, [b.blade for b in blades])]
    sentences.extend(f"{code} is not ranked: {_first_reason(pairs, code)}." for code in spoiled)
    if not fair and not spoiled:
        sentences.append(
            "No two blades here can be compared fairly: what differs besides the factor is listed"
            " below."
        )
    return " ".join(sentence for sentence in sentences if sentence)


def figures_words(figures: Mapping[str, float]) -> list[str]:
    """The figures of a run or a blade, each with its name and unit."""
    said = []
    for name, value in figures.items():
        kind = KINDS[name]
        sign = "+" if name.startswith("change") and value > 0 else ""
        digits = 0 if kind.unit in ("gf", "%") else 1
        said.append(f"{kind.label}: {sign}{value:.{digits}f} {kind.unit}")
    return said


def figure_words(comparison: Comparison) -> str:
    """One pair by one figure, in one sentence."""
    kind = KINDS[comparison.stage]
    a, b, ratio, low, high = (
        comparison.a,
        comparison.b,
        comparison.ratio,
        comparison.low,
        comparison.high,
    )
    if ratio < 1:
        a, b, ratio, low, high = b, a, 1 / ratio, 1 / high, 1 / low
    span = f"{100 * (low - 1):.0f} to {100 * (high - 1):.0f} %"
    if comparison.verdict in ("longer", "shorter"):
        return f"{b} {kind.more} {a} by {100 * (ratio - 1):.0f} % ({span})."
    if comparison.verdict == "too_close":
        return f"{a} and {b} are too close to matter by {kind.label} ({span})."
    if comparison.verdict == "confounded":
        why = _first_reason([comparison], comparison.reasons[0].split(": ")[0])
        return f"{a} and {b} cannot be compared fairly by {kind.label}: {why}."
    return f"{a} and {b} cannot be told apart yet by {kind.label} ({span})."


def _figure_headline(analysis: TrialAnalysis) -> str:
    """The answer of a trial whose runs end with figures instead of lives."""
    sentences = [figure_words(pair) for pair in analysis.figure_comparisons]
    if sentences:
        told = [
            s
            for s, p in zip(sentences, analysis.figure_comparisons, strict=True)
            if p.verdict in ("longer", "shorter")
        ]
        return " ".join(told or sentences[:2])
    efforts = analysis.efforts
    if efforts is not None:
        least = sorted(
            efforts.by_blade,
            key=lambda b: sum(efforts.by_blade[b].values()) / len(efforts.by_blade[b]),
        )
        order = ", then ".join(least)
        if len(least) < 2:
            return f"Only {least[0]} has been cut so far; a comparison needs a second blade."
        if efforts.separates_at is None:
            return (
                f"Least effort first: {order}. The blades do not separate at any number of layers."
            )
        return (
            f"Least effort first: {order}. They separate from {efforts.separates_at:g} layers on."
        )
    shown = [b.blade for b in analysis.blades if b.figures]
    if shown and all(result.left_out for result in analysis.runs):
        return "No edge that was cut counts now; why is said below."
    if shown:
        return f"Only {shown[0]} has been cut so far; a comparison needs a second blade."
    return "No reading has been taken yet, so there is nothing to say."


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
    for pair in pairs:
        for reason in pair.reasons:
            if reason.startswith(f"{code}: "):
                return reason.removeprefix(f"{code}: ").split(": ")[0]
    return "something other than the factor differs"


def confounded_blades(pairs: Sequence[Comparison]) -> list[str]:
    """Blades that spoil every pair they are in, where others compare fairly; of two blades neither
    is blamed.
    """
    codes = list(dict.fromkeys(code for c in pairs for code in (c.a, c.b)))
    if all(c.verdict == "confounded" for c in pairs):
        return []
    return [
        code
        for code in codes
        if all(c.verdict == "confounded" for c in pairs if code in (c.a, c.b))
    ]


def ranked(analysis: TrialAnalysis, stage: str) -> list[BladeResult]:
    """Blades that have a life at the stage, longest first."""
    return sorted(
        (b for b in analysis.blades if stage in b.lives),
        key=lambda b: -_middle(b.lives[stage].found),
    )


def _middle(found: Found) -> float:
    match found:
        case Crossed(estimate, _, _):
            return estimate
        case Bracketed(last_pass, first_fail):
            return 0.5 * (last_pass + first_fail)
        case NotReached(last_good, ahead):
            return ahead.estimate if ahead else last_good
        case BeforeFirstCheck():
            return 0.0


def _scopes(pairs: Sequence[Comparison]) -> str:
    """One scope where all pairs share it; else the narrow one, with the pairs that may say more."""
    scopes = list(dict.fromkeys(c.scope for c in pairs))
    wider = [scope for scope in scopes if scope != "these blades"]
    if len(scopes) == 1 or not wider:
        return scopes[0]
    which = ", ".join(f"{c.a} against {c.b}" for c in pairs if c.scope == wider[0])
    return f"these blades, and of {wider[0]} only for {which}"


def tie_groups(analysis: TrialAnalysis, stage: str) -> list[list[str]]:
    """Neighbours in the ranking whose every pair is unsettled or too close to matter, longest
    first.
    """
    level = {
        frozenset((c.a, c.b))
        for c in analysis.comparisons
        if c.stage == stage and c.verdict in ("too_close", "not_enough_evidence")
    }
    order = [blade.blade for blade in ranked(analysis, stage)]
    groups: list[list[str]] = []
    for start in range(len(order)):
        end = start + 1
        while end < len(order) and all(
            frozenset((order[i], order[end])) in level for i in range(start, end)
        ):
            end += 1
        group = order[start:end]
        if len(group) > 1 and not any(set(group) <= set(known) for known in groups):
            groups.append(group)
    return groups


def line_up_words(
    cells: Sequence[Cell], pending: Sequence[str], rule: MatchingRule, blades: int
) -> str:
    """What the comparison can and cannot show, before an edge is spent on it."""
    if blades == 0:
        return "No blade is in this trial yet."
    if blades == 1:
        return "One blade is in; a comparison needs a second."
    question = rule.factor.replace("_", " ")
    spoiled = [cell for cell in cells if cell.state == "confounded"]
    if spoiled:
        code = spoiled[0].blade
        whys = [cell.says.split(": ")[0] for cell in spoiled if cell.blade == code]
        others = len({cell.blade for cell in spoiled}) - 1
        also = f" {others} more cannot either." if others else ""
        return f"{code} cannot speak about {question}: {', and '.join(whys)}.{also}"
    if pending:
        what = "1 thing is" if len(pending) == 1 else f"{len(pending)} things are"
        return f"All that is known is matched; {what} still open."
    return f"All {blades} blades are matched: what differs is the {question}."


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
    return f"{words} Open: {'; '.join(analysis.pending)}." if analysis.pending else words
