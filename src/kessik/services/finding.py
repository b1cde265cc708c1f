"""Anything found by a few letters of it: trials, blades, grades, lots, soaks and notes."""

from collections.abc import Iterator
from dataclasses import dataclass

from kessik.core.finding import FoundKind
from kessik.services.reading.grades import grades_by_name
from kessik.store.database import Database, Session
from kessik.store.queries import finding

_MOST = 30


@dataclass(frozen=True)
class Found:
    """Something found, and the words it was found by."""

    kind: FoundKind
    id: str
    name: str
    says: str = ""


def find(db: Database, text: str) -> list[Found]:
    """What holds every word of a text, at most so many; nothing for a text of one letter."""
    words = text.casefold().split()
    if len("".join(words)) < 2:
        return []
    with db.read() as session:
        return list(_found(session, words))[:_MOST]


def _found(session: Session, words: list[str]) -> Iterator[Found]:
    for kind, owner, name, says in finding.texts(session, words):
        yield Found(kind, owner, name, _around(says, words[0]))
    for name, grade in grades_by_name(session).items():
        told = f"{name} {grade.standard}".casefold()
        if all(word in told for word in words):
            yield Found("grade", name, name, grade.standard)


def _around(text: str, word: str, most: int = 90) -> str:
    """The part of a text that holds a word."""
    at = max(text.casefold().find(word), 0)
    start = max(at - most // 3, 0)
    part = text[start : start + most].strip()
    return f"{'…' if start else ''}{part}{'…' if start + most < len(text) else ''}"
