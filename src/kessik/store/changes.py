"""What one act of a tester changes, row by row as it is written, so that it can be taken back.

The connection that writes carries temporary triggers, made from the tables as they are; they note
rows only while an act is being recorded. The pattern is the one of SQLite's own documentation
("Automatic Undo/Redo Using SQLite").
"""

from collections.abc import Callable, Iterable, Mapping
from contextvars import ContextVar
from dataclasses import dataclass, field
from typing import Any, Literal

from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from kessik.core.composition.library import our_grades
from kessik.core.errors import ConflictError
from kessik.store.queries.foreign_keys import broken_keys, tables_hanging_on

Did = Literal["added", "changed", "removed"]
UNDOABLE = (
    "soak_look", "soak_act", "picture_use", "assay_shot", "lot_correction", "measurement", "edge",
    "archived", "blade", "trial_blade", "method", "trial", "soak_coupon", "soak", "assay_batch",
    "assay_blade", "lot", "recipe", "abrasive", "grade", "reference_check", "shot_file",
    "instrument", "toughness", "field_exposure", "care",
)  # fmt: skip  # names, several a line
_NAMED_IN: Mapping[str, tuple[tuple[str, str], ...]] = {
    "lot": (("run WHERE instr(bookings, {id})", "runs took of it since"),),
    "assay_batch": (("assay_shot WHERE batch_id = {id}", "shots of it came in since"),),
    "soak_coupon": (("soak_act WHERE instr(said, {id})", "something was done to it since"),),
    "recipe": (("edge WHERE recipe_id = {id}", "edges were made by it since"),),
    "grade": (("blade WHERE claimed_grade = {id}", "blades are sold as it by now"),),
    "method": (("trial WHERE method_id = {id}", "a trial goes by it by now"),),
}
"""Where a thing is named without a key that SQLite would watch: in a text, or inside of JSON."""
_LET_GO = "picture"
"""A picture that nothing shows any more is let go, and leaves the disk later; what comes stays."""
_LOG = "event"
_OTHERS = ("run", "bin", "trace", "paired_device")
"""What is put right in ways of its own: an act that touches one of these is not taken back here."""
_MOST_ROWS = 2000
_CHANGED_SINCE = "it was changed again since, and is not undone; put it right by hand"


@dataclass
class RowChange:
    """One row of a table before and after an act, as SQL literals; None where it was not there."""

    table: str
    key: str
    before: str | None
    after: str | None = None

    @property
    def did(self) -> Did:
        """What became of it."""
        if self.before is None:
            return "added"
        return "removed" if self.after is None else "changed"


@dataclass(frozen=True)
class Compensation:
    """How an act makes good what its rows alone cannot, and how the act is called."""

    says: str
    make_good: Callable[[], None]


@dataclass
class Change:
    """What an act changed so far, and which device did it; `is_whole` unless something of it cannot
    be taken back.

    The bench log is never rewritten: an act that appends to it says itself how that is made good,
    beside its rows or, `instead`, for all of it.
    """

    id: str
    by: str = ""
    rows: dict[tuple[str, str], RowChange] = field(default_factory=dict)
    made_good_by: Compensation | None = None
    replaces_rows: bool = False
    is_whole: bool = True
    is_undone: bool = False

    @property
    def can_be_undone(self) -> bool:
        """Whether all of what it changed can be put back."""
        return self.is_whole and bool(self.rows or self.made_good_by)

    @property
    def is_by_rows(self) -> bool:
        """Whether its rows are wanted."""
        return self.is_whole and not self.replaces_rows


RECORDED: ContextVar[Change | None] = ContextVar("change", default=None)
"""The act that is being recorded where a request is answered."""
_RECORDED = "change"


def begin(session: Session) -> None:
    """Note every row from here on, where an act is being recorded."""
    change = RECORDED.get()
    if change is not None and change.is_by_rows:
        session.info[_RECORDED] = change
        _watch(session)
        _sql(session, "INSERT INTO temp.recorded VALUES (1)")


def end(session: Session) -> None:
    """Hand the rows that were noted to the act, before they are committed."""
    change: Change | None = session.info.pop(_RECORDED, None)
    if change is None:
        return
    session.flush()
    wanted = f"SELECT tbl, key, before FROM temp.noted ORDER BY place LIMIT {_MOST_ROWS}"
    noted = _sql(session, wanted)
    _sql(session, "DELETE FROM temp.recorded")
    _sql(session, "DELETE FROM temp.noted")
    if change.replaces_rows:
        return
    never_back = _OTHERS if change.made_good_by else (*_OTHERS, _LOG)
    if len(noted) == _MOST_ROWS or any(table in never_back for table, _, _ in noted):
        change.is_whole = False
        return
    touched = set()
    for table, key, before in noted:
        if table == _LOG:
            continue
        change.rows.setdefault((table, key), RowChange(table, key, before))
        touched.add((table, key))
    for place in touched:
        row = change.rows[place]
        row.after = _now(session, row)
        if row.after == row.before:
            del change.rows[place]


def revert(session: Session, change: Change) -> None:
    """Put every row back as it was before an act; ConflictError where one was changed since, or
    something hangs on it by now.
    """
    rows = list(change.rows.values())
    if any(_now(session, row) != row.after for row in rows):
        raise ConflictError(_CHANGED_SINCE, field="change")
    _sql(session, "PRAGMA defer_foreign_keys = ON")
    try:
        for row in rows:
            names = ", ".join(f'"{name}"' for name in _columns(session, row.table))
            if row.before is None:
                _sql(session, f"DELETE FROM {row.table} WHERE {row.key}")
            elif row.after is None:
                _sql(session, f"INSERT INTO {row.table} ({names}) VALUES ({row.before})")
            else:
                _sql(session, f"UPDATE {row.table} SET ({names}) = ({row.before}) WHERE {row.key}")
    except IntegrityError as taken:
        raise ConflictError(_CHANGED_SINCE, field="change") from taken
    touched = {row.table for row in rows}
    if broken_keys(session, {*touched, *tables_hanging_on(touched)}):
        raise ConflictError(_CHANGED_SINCE, field="change")
    for row in rows:
        if row.did == "added":
            _refuse_named(session, row)


def _refuse_named(session: Session, row: RowChange) -> None:
    """Refuse to take away what is named elsewhere by now."""
    for where, says in _NAMED_IN.get(row.table, ()):
        _, _, own = row.key.partition(" = ")
        if row.table == "grade" and own.strip("'") in our_grades():
            continue  # the library has it all the same
        if _sql(session, f"SELECT 1 FROM {where.format(id=own)} LIMIT 1"):
            raise ConflictError(
                f"{says}: it is not undone; correct by hand what is not wanted", field="change"
            )


def _now(session: Session, row: RowChange) -> str | None:
    literals = _literals(_columns(session, row.table))
    found = _sql(session, f"SELECT {literals} FROM {row.table} WHERE {row.key}")
    return found[0][0] if found else None


def _watch(session: Session) -> None:
    """The triggers and what they fill, once for each connection."""
    if _sql(session, "SELECT 1 FROM sqlite_temp_master WHERE name = 'noted'"):
        return
    _sql(session, "CREATE TEMP TABLE recorded (is_on INTEGER)")
    _sql(
        session,
        "CREATE TEMP TABLE noted (place INTEGER PRIMARY KEY, tbl TEXT, key TEXT, before TEXT)",
    )
    for table in (*UNDOABLE, _LET_GO, *_OTHERS, _LOG):
        columns, keys = _columns(session, table), _keys(session, table)
        for act in ("UPDATE",) if table == _LET_GO else ("INSERT", "UPDATE", "DELETE"):
            row = "NEW" if act == "INSERT" else "OLD"
            before = "NULL" if act == "INSERT" else _literals(columns, "OLD.")
            key = " || ' AND ' || ".join(f"""'"{k}" = ' || quote({row}."{k}")""" for k in keys)
            _sql(
                session,
                f"CREATE TEMP TRIGGER noted_{table}_{act} AFTER {act} ON main.{table}"
                " WHEN EXISTS (SELECT 1 FROM temp.recorded) BEGIN"
                f" INSERT INTO noted (tbl, key, before) VALUES ('{table}', {key}, {before}); END",
            )


def _literals(columns: Iterable[str], of: str = "") -> str:
    """The SQL that writes columns as literals, side by side."""
    return " || ', ' || ".join(f'quote({of}"{name}")' for name in columns)


def _columns(session: Session, table: str) -> list[str]:
    return [row[1] for row in _sql(session, f"PRAGMA table_info({table})")]


def _keys(session: Session, table: str) -> list[str]:
    return [row[1] for row in _sql(session, f"PRAGMA table_info({table})") if row[5]]


def _sql(session: Session, statement: str) -> list[Any]:
    found = session.connection().exec_driver_sql(statement)
    return list(found) if found.returns_rows else []
