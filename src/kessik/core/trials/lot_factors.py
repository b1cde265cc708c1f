"""Lot factors of a trial."""

from collections.abc import Mapping, Sequence

from kessik.core.comparison.analysis import TrialAnalysis
from kessik.core.comparison.lot_factor import LotFactor, lot_factors
from kessik.core.trials.state import TrialRun


def lots_compared(
    runs: Sequence[TrialRun], analysis: TrialAnalysis, stage: str, names: Mapping[str, str]
) -> list[LotFactor]:
    """What blades that were cut on several lots of the medium say of those lots, whose `names` go
    by id; empty where none was.
    """
    taken = {}
    for r in runs:
        booking = next((b for b in r.run.bookings if b.use == "medium"), None)
        if booking is not None:
            taken[(r.blade.code, r.edge.number, r.run.number)] = booking.lot_id
    if len(set(taken.values())) < 2:
        return []
    named = {key: names[lot_id] for key, lot_id in taken.items()}
    return lot_factors(analysis.runs, named, stage)
