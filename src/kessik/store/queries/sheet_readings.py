"""How sheets were read, kept by a name for the next one of the same heads."""

from collections.abc import Iterator, Sequence
from dataclasses import asdict, dataclass
from uuid import NAMESPACE_URL, uuid5

from sqlalchemy import select
from sqlalchemy.orm import Session

from kessik.core.trials.paper.sheets import SheetReading
from kessik.store.queries.records import from_plain
from kessik.store.tables import SheetReadingRow


@dataclass(frozen=True)
class Remembered:
    """A reading under its name."""

    name: str
    reading: SheetReading


def remember(
    session: Session, name: str, heads: Sequence[str], reading: SheetReading, now_utc: str
) -> None:
    """Keep a reading for sheets of these heads; the same name again is put right."""
    key = str(uuid5(NAMESPACE_URL, f"kessik:sheet-reading:{name.casefold()}"))
    body = asdict(reading)
    session.merge(
        SheetReadingRow(id=key, name=name, heads=_plain(heads), body=body, used_utc=now_utc)
    )
    session.flush()


def remembered_for(session: Session, heads: Sequence[str]) -> Iterator[Remembered]:
    """The readings of sheets of the same heads, the last used first."""
    wanted = _plain(heads)
    for row in session.scalars(select(SheetReadingRow).order_by(SheetReadingRow.used_utc.desc())):
        if row.heads == wanted:
            yield Remembered(row.name, from_plain(SheetReading, row.body))


def _plain(heads: Sequence[str]) -> list[str]:
    return [head.casefold().strip() for head in heads]
