"""Texts of the tester's own, searched as they are stored."""

from collections.abc import Iterator, Sequence

from sqlalchemy import text
from sqlalchemy.orm import Session

from kessik.core.finding import FoundKind

_MOST = 20
_WHERE: tuple[tuple[FoundKind, str, str, str, str], ...] = (
    ("trial", "id", "name", "question", "trial WHERE arriving IS NULL AND"),
    ("blade", "id", "code", "coalesce(claimed_grade, '') || ' ' || owner || ' ' || note",
     "blade WHERE arriving IS NULL AND"),
    ("soak", "id", "name", "question || ' ' || note", "soak WHERE"),
    ("lot", "id", "name", "note", "lot WHERE"),
    ("note", "run.trial_id", "trial.name", "json_extract(run.other, '$.note')",
     "run JOIN trial ON trial.id = run.trial_id WHERE json_valid(run.other) AND"),
    ("note", "run.trial_id", "trial.name", "json_extract(event.payload, '$.text')",
     "event JOIN run ON run.id = event.run_id JOIN trial ON trial.id = run.trial_id"
     " WHERE event.kind = 'note' AND json_valid(event.payload) AND"),
)  # fmt: skip  # a table is read by its rows


def texts(session: Session, words: Sequence[str]) -> Iterator[tuple[FoundKind, str, str, str]]:
    """Kind, id, name and text of everything that holds all of the words."""
    told = {f"w{n}": f"%{_plain(word)}%" for n, word in enumerate(words)}
    for kind, owner, name, says, table in _WHERE:
        whole = f"{name} || ' ' || coalesce({says}, '')"
        each = " AND ".join(f"{whole} LIKE :{key} ESCAPE '!'" for key in told)
        query = f"SELECT {owner}, {name}, coalesce({says}, '') FROM {table} {each} LIMIT {_MOST}"
        for row in session.execute(text(query), told):
            yield kind, str(row[0]), str(row[1]), str(row[2])


def _plain(word: str) -> str:
    return word.replace("!", "!!").replace("%", "!%").replace("_", "!_")
