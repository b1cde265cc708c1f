"""Lot factors of a trial, in words."""

from kessik.core.comparison.lot_factor import lot_factors
from kessik.services.verdicts import Verdict
from kessik.store.database import Database
from kessik.store.queries import stock


def lot_factor_words(db: Database, answer: Verdict) -> list[str]:
    """What blades that were cut on several lots of the medium say of those lots; empty where none
    was.
    """
    taken = {}
    for r in answer.runs:
        booking = next((b for b in r.run.bookings if b.use == "medium"), None)
        if booking is not None:
            taken[(r.blade.code, r.edge.number, r.run.number)] = booking.lot_id
    if len(set(taken.values())) < 2:
        return []
    with db.read() as session:
        names = {lot.id: lot.name for lot in stock.all_lots(session)}
    named = {key: names[lot_id] for key, lot_id in taken.items()}
    return [factor.words() for factor in lot_factors(answer.analysis.runs, named, answer.stage)]
