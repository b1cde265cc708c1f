"""What arrives in pieces: stored so that taps get through between them, seen all at once at the
end, and removed again where the end is not reached.
"""

import time
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from itertools import islice
from typing import TypeVar

from kessik.core.shelf.blades import Blade
from kessik.services.work import REMOVES, ImportWork
from kessik.store.database import Database, Session
from kessik.store.queries import arrivals

EVENTS_AT_ONCE = 400
_ROWS_OF_BLADES_AT_ONCE = 150
_LET_TAPS_THROUGH_S = 0.002
_LEFT_BEHIND = timedelta(hours=1)
_T = TypeVar("_T")


def in_pieces(items: Iterable[_T], most: int) -> Iterator[list[_T]]:
    """The items in lists of so many."""
    rest = iter(items)
    while some := list(islice(rest, most)):
        yield some


def blades_in_pieces(blades: Iterable[Blade]) -> Iterator[list[Blade]]:
    """Blades in lists of not too many edges and measurements."""
    some: list[Blade] = []
    rows = 0
    for blade in blades:
        some.append(blade)
        rows += 1 + len(blade.edges) + len(blade.measurements)
        if rows >= _ROWS_OF_BLADES_AT_ONCE:
            yield some
            some, rows = [], 0
    if some:
        yield some


def let_taps_through() -> None:
    """Leave the write lock to others for a moment, between two pieces."""
    time.sleep(_LET_TAPS_THROUGH_S)


@contextmanager
def arriving(
    db: Database,
    arrival: str,
    work: ImportWork,
    land: Callable[[Session], None] = lambda session: None,
) -> Iterator[str]:
    """What is stored inside under this arrival is seen at the end; `land` does, in the same
    transaction, what else belongs to it.
    """
    remove_earlier(db, arrival.partition("|")[2])
    try:
        yield arrival
        with db.write() as session:
            land(session)
            arrivals.land(session, arrival)
    except BaseException:
        work.stage = REMOVES
        remove_arrival(db, arrival)
        raise


def arrival_label(of: str) -> str:
    """A name for what arrives, or leaves, from now on under an id."""
    return f"{datetime.now(UTC).isoformat(timespec='milliseconds')}|{of}"


def remove_arrival(db: Database, arrival: str) -> None:
    """Remove in pieces what is hidden under a label."""
    more = True
    while more:
        with db.write() as session:
            more = arrivals.delete_some(session, arrival)
        let_taps_through()


def delete_left_behind(db: Database, now: datetime) -> None:
    """Remove what an earlier server was bringing in when it was killed."""
    with db.read() as session:
        found = arrivals.all_arrivals(session)
    for arrival in found:
        began = datetime.fromisoformat(arrival.split("|")[0]).replace(tzinfo=UTC)
        if now - began > _LEFT_BEHIND:
            remove_arrival(db, arrival)


def remove_earlier(db: Database, of: str) -> None:
    """Remove what is still hidden under an id from an earlier time."""
    with db.read() as session:
        found = arrivals.all_arrivals(session)
    for arrival in found:
        if arrival.endswith(f"|{of}"):
            remove_arrival(db, arrival)
