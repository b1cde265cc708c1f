"""Stages that add up, in words."""

from kessik.core.comparison.sums import Span, StageSum


def sum_words(found: StageSum) -> str:
    """How the stages of an edge or a blade make its total."""
    who = found.blade if found.edge is None else f"{found.blade}, edge {found.edge}"
    parts = " + ".join(f"{stage} {_span_words(span)}" for stage, span in found.parts)
    return f"{who}: {parts} = total {_span_words(found.total)} {found.unit}"


def _span_words(span: Span) -> str:
    if span.middle is None:
        return f"{span.low:g} or more"
    return f"{span.middle:.1f}"
