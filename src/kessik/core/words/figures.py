"""Figures in words: end readings, depths and effort, and pairs compared by them."""

from collections.abc import Mapping

from kessik.core.comparison.analysis import TrialAnalysis
from kessik.core.comparison.figures import KINDS
from kessik.core.comparison.findings import Mismatch
from kessik.core.comparison.verdict import Comparison
from kessik.core.words.matching import what_differs


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
        first = next(r for r in comparison.reasons if isinstance(r, Mismatch))
        why = what_differs(first)
        return f"{a} and {b} cannot be compared fairly by {kind.label}: {why}."
    return f"{a} and {b} cannot be told apart yet by {kind.label} ({span})."


def figure_headline(analysis: TrialAnalysis) -> str:
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
        return "No edge that was cut counts under the rule."
    if shown:
        return f"Only {shown[0]} has been cut so far; a comparison needs a second blade."
    return "No reading has been taken yet, so there is nothing to say."
