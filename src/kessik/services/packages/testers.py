"""Whose folder this is, and who sent packages."""

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass

from kessik.services.packages.writing import name_maker
from kessik.store.database import Database
from kessik.store.queries import testers
from kessik.store.queries.testers import Tester


@dataclass(frozen=True)
class Testers:
    """The name of whose folder this is, the others, and how many trials came from each."""

    here: str
    others: tuple[Tester, ...]
    trials: Mapping[str, int]


def testers_of(db: Database) -> Testers:
    """Everybody who cut what is here."""
    with db.read() as session:
        found = testers.all_testers(session).values()
        sent = Counter(origin.tester_id for origin in testers.origins(session).values())
    here = next((each.name for each in found if each.is_here), "")
    others = sorted((each for each in found if not each.is_here), key=lambda each: each.name)
    return Testers(here, tuple(others), sent)


def name_here(db: Database, name: str) -> Testers:
    """Name whose folder this is."""
    name_maker(db, name)
    return testers_of(db)
