"""Stages in words: what a life goes to, and how stages add up."""

from kessik.core.comparison.sums import StageSum
from kessik.core.sharpness.life import LifeSpan

_ENDS = {"fine": "the end of the fine edge", "working": "the end of the working edge"}


def to_stage(stage: str) -> str:
    """What a life goes to: `to dull`, `to the end of the working edge`; empty without a stage."""
    return f"to {_ENDS.get(stage, stage)}" if stage else ""


def sum_words(found: StageSum) -> str:
    """How the stages of an edge or a blade make its total."""
    who = found.blade if found.edge is None else f"{found.blade}, edge {found.edge}"
    if found.zone_mm is not None:
        who = f"{who}, {found.zone_mm[0]:g} to {found.zone_mm[1]:g} mm"
    parts = " + ".join(f"{stage} {_span_words(span)}" for stage, span in found.parts)
    return f"{who}: {parts} = total {_span_words(found.total)} {found.unit}"


def _span_words(span: LifeSpan) -> str:
    if span.middle is None:
        return f"{span.low:g} or more"
    return f"{round(span.middle, 1):g}"
