"""Into the bin and out of it, however much it is: read and packed before anything is locked, moved
in one short transaction, and stored or removed in pieces that taps get through between.
"""

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager

from kessik.core.bin import Binned, InBin
from kessik.services.arriving import (
    arrival_label,
    let_taps_through,
    remove_arrival,
    remove_earlier,
)
from kessik.store.database import Database, Session
from kessik.store.queries import binning, restoring_rows
from kessik.store.queries.bin_contents import Results, gather
from kessik.store.queries.hidden_rows import make_placeholders
from kessik.store.queries.restoring_rows import Back


@contextmanager
def leaving(
    db: Database, kind: Binned, parameters: Mapping[str, str]
) -> Iterator[Callable[[Session, InBin], None]]:
    """What is given moves the thing into the bin within a transaction of the caller's; what of it
    is hidden then is removed at the end.
    """
    with db.read() as session:
        gathered = gather(session, kind, parameters)
    labels = []

    def move(session: Session, entry: InBin) -> None:
        labels.append(arrival_label(entry.id))
        binning.move_to_bin(session, entry, gathered, labels[-1])

    yield move
    for label in labels:
        remove_arrival(db, label)


@contextmanager
def results_leaving(db: Database, results: Results) -> Iterator[Callable[[Session, InBin], None]]:
    """The same for results that came together."""
    with leaving(db, "results", results.parameters()) as move:

        def move_together(session: Session, entry: InBin) -> None:
            binning.check_together(session, results)
            move(session, entry)

        yield move_together


@contextmanager
def coming_back(db: Database, bin_id: str) -> Iterator[Callable[[Session], Back]]:
    """A thing of the bin stands hidden in the tables; what is given lets it be seen within a
    transaction of the caller's. UnknownError where it is not in the bin.
    """
    with db.read() as session:
        packed = restoring_rows.unpack(session, bin_id)
    remove_earlier(db, bin_id)  # what a server left that was killed
    label = arrival_label(bin_id)
    try:
        with db.write() as session:
            there = make_placeholders(session, label)
        for table, rows in restoring_rows.hidden_pieces(packed, there):
            with db.write() as session:
                restoring_rows.store_piece(session, table, rows)
            let_taps_through()
        yield lambda session: restoring_rows.land(session, packed, there)
    except BaseException:
        remove_arrival(db, label)
        raise
