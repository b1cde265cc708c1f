"""Lives against composition, and two recipes side by side, over the wire."""

from kessik.api.schemas.performance import (
    AgainstOut,
    DiffersOut,
    PerformanceOut,
    SideBySideOut,
    ToldOut,
)
from kessik.core.words.assay import range_words
from kessik.services.assays.performance import Performance
from kessik.services.assays.side_by_side import SideBySide, Told


def performance_out(found: Performance) -> PerformanceOut:
    """Lives against what steels are made of, with what the points say."""
    return PerformanceOut.showing(
        found,
        variables=[AgainstOut(name=n, label=lab, unit=u) for n, lab, u in found.variables],
    )


def told_out(found: Told) -> ToldOut:
    """What a maker tells of a steel."""
    return ToldOut.showing(
        found,
        id=found.blade.id,
        code=found.blade.code,
        mark=found.blade.mark,
        claim=found.blade.claimed_grade or "",
    )


def side_by_side_out(found: SideBySide) -> SideBySideOut:
    """Two sheets of makers, side by side."""
    return SideBySideOut.showing(
        found,
        first=told_out(found.first),
        second=told_out(found.second),
        differs=[
            DiffersOut.showing(d, first=range_words(d.first), second=range_words(d.second))
            for d in found.differs
        ],
    )
