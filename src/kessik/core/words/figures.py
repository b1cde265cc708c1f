"""Figures in words: end readings, depths and effort, and pairs compared by them."""

from collections.abc import Mapping, Sequence

from kessik.core.comparison.analysis import BladeResult, TrialAnalysis
from kessik.core.comparison.efforts import EffortTable
from kessik.core.comparison.figures import KINDS
from kessik.core.comparison.findings import Mismatch
from kessik.core.comparison.verdict import Comparison
from kessik.core.words.matching import and_words, what_differs
from kessik.core.words.pairs import oriented, size_words


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
    told = oriented(comparison)
    more, less = told.longer, told.shorter
    if comparison.verdict in ("longer", "shorter"):
        return f"{more} {kind.more} {less} by {size_words(told)}."
    if comparison.verdict == "confounded":
        why = next(what_differs(r) for r in comparison.reasons if isinstance(r, Mismatch))
        return f"{more} and {less} cannot be compared fairly by {kind.label}: {why}."
    assert told.low is not None
    assert told.high is not None
    span = f"{100 * (told.low - 1):+.0f} to {100 * (told.high - 1):+.0f} %".replace("-", "−")
    level = "are too close to matter"
    if comparison.verdict != "too_close":
        level = "cannot be told apart yet"
    return f"{more} and {less} {level} by {kind.label} ({span} of {less}'s)."


def figure_headline(analysis: TrialAnalysis) -> str:
    """The answer of a trial whose runs end with figures instead of lives, in two sentences."""
    pairs = analysis.figure_comparisons
    if pairs:
        first = [c for c in pairs if c.stage == pairs[0].stage]
        if len(first) > 1:
            return _figure_order(analysis, first)
        return " ".join(figure_words(pair) for pair in pairs[:2])
    if analysis.efforts is not None:
        return _effort_words(analysis, analysis.efforts)
    shown = analysis.measured_blades
    if analysis.shown_after_dose:
        return ""  # said already, check by check
    if shown and all(result.left_out for result in analysis.runs):
        return "No edge that was cut counts under the rule."
    if shown:
        return _alone_words(shown[0])
    return "No reading has been taken yet."


def _alone_words(blade: BladeResult) -> str:
    """What one blade shows by itself, by its first figure."""
    over = f"over {blade.edges} edges" if blade.edges > 1 else "on one edge"
    return f"{blade.blade} alone, {figures_words(blade.figures)[0]}, {over}."


def _figure_order(analysis: TrialAnalysis, pairs: Sequence[Comparison]) -> str:
    """Several blades by one figure: their order in groups that tie, and the lead of the first."""
    kind = KINDS[pairs[0].stage]
    name = pairs[0].stage
    own = {b.blade: b.figures[name] for b in analysis.blades if name in b.figures}
    fair = [c for c in pairs if c.verdict != "confounded"]
    apart = {frozenset((c.a, c.b)) for c in fair if c.verdict in ("longer", "shorter")}
    codes = {code for c in fair for code in (c.a, c.b)}
    order = sorted((c for c in own if c in codes), key=own.__getitem__)
    order = order if kind.better == "low" else order[::-1]
    groups: list[list[str]] = []
    for code in order:
        if groups and not all(frozenset((code, other)) in apart for other in groups[-1]):
            groups[-1].append(code)
        else:
            groups.append([code])
    unit = f" {kind.unit}" if kind.unit else ""
    told = [
        and_words([f"{code} ({own[code]:.0f}{unit})" for code in group])
        + (" together" if len(group) > 1 else "")
        for group in groups
    ]
    unfair = [code for code in own if code not in codes]
    left = f" {and_words(unfair)} cannot be compared fairly." if unfair else ""
    if len(groups) < 2:
        return f"By {kind.label} the blades cannot be told apart yet: {told[0]}.{left}"
    return f"By {kind.label}, best first: {', then '.join(told)}.{left}"


def _effort_words(analysis: TrialAnalysis, efforts: EffortTable) -> str:
    """Who asks for least effort, in groups that tie, and from how many layers on it shows."""
    blades = list(efforts.by_blade)
    if len(blades) < 2:
        return f"Only {blades[0]} has been cut so far; a comparison needs a second blade."
    left = [*_missing_words(analysis, efforts)]
    unlike = next((c.finding for c in analysis.cells if isinstance(c.finding, Mismatch)), None)
    if unlike is not None:
        left.append(
            f"{unlike.blade}: {what_differs(unlike)}, so the effort does not measure the factor"
            " alone"
        )
    rest = f" {'; '.join(left)}." if left else ""
    if efforts.separates_at is None or len(efforts.groups) < 2:
        return f"The blades cannot be told apart at any number of layers.{rest}"
    order = ", then ".join(
        f"{and_words(group)} together" if len(group) > 1 else group[0] for group in efforts.groups
    )
    unit = next((r.run.count_unit for r in analysis.runs), "layers")
    unit = "layer" if efforts.separates_at == 1 and unit == "layers" else unit
    return (
        f"Least effort first: {order}; they can be told apart from {efforts.separates_at:g}"
        f" {unit} on.{rest}"
    )


def _missing_words(analysis: TrialAnalysis, efforts: EffortTable) -> list[str]:
    """Which blades did not do every layer, and how they are compared all the same."""
    told = []
    for blade, missing in efforts.missing.items():
        if blade in efforts.alone:
            continue
        without = and_words([f"{n:g}" for n in missing])
        noun = "layer" if missing == (1.0,) else "layers"
        told.append(f"{blade} did not do {without} {noun}, and is compared on those it did")
    if efforts.alone:
        told.append(f"{and_words(efforts.alone)} shares no layer with the others: not compared")
    return told
