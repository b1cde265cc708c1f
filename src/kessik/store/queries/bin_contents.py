"""What goes into the bin with a thing: its rows, read and packed before anything is locked."""

import base64
import json
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from typing import Any

from sqlalchemy import LargeBinary, text
from sqlalchemy.orm import Session

from kessik.core.bin import Binned
from kessik.store.tables import Base, BinRow

_RUNS_OF_TRIAL = "(SELECT id FROM run WHERE trial_id = :id)"
_RUNS_OF_BLADE = (
    "(SELECT run.id FROM run JOIN edge ON edge.id = run.edge_id WHERE edge.blade_id = :id)"
)
_RESULTS = "IN (SELECT value FROM json_each(:{}))"
OWNED: Mapping[Binned, Sequence[tuple[str, str]]] = {
    "run": (("event", "run_id = :id"), ("run", "id = :id")),
    "trial": (
        ("event", f"run_id IN {_RUNS_OF_TRIAL}"),
        ("run", "trial_id = :id"),
        ("trial_blade", "trial_id = :id"),
        ("archived", "kind = 'trial' AND owner_id = :id"),
        ("trial", "id = :id"),
    ),
    "blade": (
        ("event", f"run_id IN {_RUNS_OF_BLADE}"),
        ("run", f"id IN {_RUNS_OF_BLADE}"),
        ("measurement", "blade_id = :id"),
        ("assay_shot", "blade_id = :id"),
        ("toughness", "blade_id = :id"),
        ("field_exposure", "blade_id = :id"),
        ("care", "blade_id = :id"),
        ("assay_blade", "blade_id = :id"),
        ("trial_blade", "blade_id = :id"),
        ("edge", "blade_id = :id"),
        ("blade", "id = :id"),
    ),
    "lot": (("lot_correction", "lot_id = :id"), ("lot", "id = :id")),
    "method": (
        ("archived", "kind = 'method' AND owner_id = :id"),
        ("method", "line_id = :id"),
    ),
    "soak": (
        ("soak_look", "soak_id = :id"),
        ("soak_act", "soak_id = :id"),
        ("soak_coupon", "soak_id = :id"),
        ("soak", "id = :id"),
    ),
    "results": (
        ("event", f"run_id {_RESULTS.format('runs')}"),
        ("run", f"id {_RESULTS.format('runs')}"),
        (
            "trial_blade",
            f"trial_id = :id AND blade_id {_RESULTS.format('placed')}"
            f" OR trial_id {_RESULTS.format('trials')}",
        ),
        (
            "measurement",
            f"edge_id {_RESULTS.format('edges')} OR blade_id {_RESULTS.format('blades')}",
        ),
        ("edge", f"id {_RESULTS.format('edges')}"),
        ("blade", f"id {_RESULTS.format('blades')}"),
        ("trial", f"id {_RESULTS.format('trials')}"),
        ("method", f"id {_RESULTS.format('methods')}"),
    ),
}
"""What goes with a thing, in the order in which rows can leave their tables."""
_BYTES = "base64:"
_AT_ONCE = 200
_REVISIONS = text(
    "SELECT trial_id, number FROM revision WHERE trial_id IN (SELECT value FROM json_each(:ids))"
)
_COUPONS = text("SELECT id FROM soak_coupon WHERE blade_id = :id ORDER BY id")


@dataclass(frozen=True)
class Results:
    """Results that came together, into a trial or with `trials` of their own: ids of what came with
    them.
    """

    trial_id: str
    runs: Sequence[str]
    edges: Sequence[str] = ()
    placed: Sequence[str] = ()
    blades: Sequence[str] = ()
    trials: Sequence[str] = ()
    methods: Sequence[str] = ()

    def parameters(self) -> Mapping[str, str]:
        """The ids as the statements of what goes with them take them."""
        ids = asdict(self)
        return {"id": self.trial_id, **{what: json.dumps(ids[what]) for what in ids}}


@dataclass(frozen=True)
class Gathered:
    """What goes with a thing, packed, and how its rows were when they were read."""

    kind: Binned
    parameters: Mapping[str, str]
    packed: bytes
    revisions: Mapping[str, int]
    fingerprint: tuple[object, ...]


def gather(session: Session, kind: Binned, parameters: Mapping[str, str]) -> Gathered:
    """Read and pack all that goes with a thing; thousands of rows take seconds."""
    rows = {table: _rows(session, table, where, parameters) for table, where in OWNED[kind]}
    head = {
        "coupons": _coupons(session, kind, parameters),
        "beside": _beside(session, rows.get("run", [])),
    }
    revisions = _revisions(session, kind, parameters)
    packed = _packed(head, rows)
    return Gathered(kind, parameters, packed, revisions, _fingerprint(session, kind, parameters))


def is_as_gathered(session: Session, gathered: Gathered) -> bool:
    """Whether all that goes with a thing is as it was when it was read."""
    kind, parameters = gathered.kind, gathered.parameters
    if gathered.revisions and _revisions(session, kind, parameters) == gathered.revisions:
        return True  # triggers raise them with all that a trial's answer rests on
    return _fingerprint(session, kind, parameters) == gathered.fingerprint


def _revisions(session: Session, kind: Binned, parameters: Mapping[str, str]) -> dict[str, int]:
    """How often what goes with whole trials has changed; empty where other things go, too."""
    if kind not in ("trial", "results"):
        return {}
    trials = json.loads(parameters.get("trials", "[]"))
    found = session.execute(_REVISIONS, {"ids": json.dumps([parameters["id"], *trials])})
    return dict(found.tuples().all())


def _fingerprint(
    session: Session, kind: Binned, parameters: Mapping[str, str]
) -> tuple[object, ...]:
    """Differs once any row that goes with a thing is another; of the log, which is never rewritten,
    how long it is.
    """
    found: list[object] = [tuple(_coupons(session, kind, parameters))]
    for table, where in OWNED[kind]:
        what = "max(position)" if table == "event" else f"total(crc32({_quoted(table)}))"
        wanted = text(f"SELECT count(*), {what} FROM {table} WHERE {where}")
        found.append(tuple(session.execute(wanted, parameters).one()))
    return tuple(found)


def content_of(row: BinRow) -> dict[str, Any]:
    """The rows of a thing by their tables, the coupons that named it, and the runs that stayed
    beside its own; a bin filled by an older Kessik does not tell those.
    """
    lines = zlib.decompress(row.content).split(b"\n")
    content: dict[str, Any] = json.loads(lines[0])
    rows = content.setdefault("rows", {})
    for line in lines[1:]:
        for table, some in json.loads(line).items():
            rows.setdefault(table, []).extend(some)
    return content


def _packed(head: Mapping[str, Any], rows: Mapping[str, Sequence[Any]]) -> bytes:
    """A line that says what there is besides, and lines of some rows each: nothing else gets a turn
    while one of them is made or read.
    """
    lines = [json.dumps({**head, "rows": {table: [] for table in rows}}, separators=(",", ":"))]
    for table, every in rows.items():
        for first in range(0, len(every), _AT_ONCE):
            some = {table: every[first : first + _AT_ONCE]}
            lines.append(json.dumps(some, separators=(",", ":")))
    return zlib.compress("\n".join(lines).encode())


def stored_value(value: Any) -> Any:  # noqa: ANN401 - whatever a column holds
    """A value of a packed row as its column holds it."""
    if isinstance(value, str) and value.startswith(_BYTES):
        return base64.b64decode(value.removeprefix(_BYTES))
    return value


def _coupons(session: Session, kind: Binned, parameters: Mapping[str, str]) -> list[str]:
    """The coupons that a blade is in soaks as: they stay there without it."""
    if kind != "blade":
        return []
    return [coupon for (coupon,) in session.execute(_COUPONS, parameters)]


def _beside(session: Session, runs: Sequence[Mapping[str, Any]]) -> list[str]:
    """The ids of runs that stay on the edges of these."""
    found = session.execute(
        text(
            "SELECT id FROM run WHERE edge_id IN (SELECT value FROM json_each(:edges))"
            " AND id NOT IN (SELECT value FROM json_each(:runs))"
        ),
        {
            "edges": json.dumps([run["edge_id"] for run in runs]),
            "runs": json.dumps([run["id"] for run in runs]),
        },
    )
    return [run_id for (run_id,) in found]


def _quoted(table: str) -> str:
    return " || ".join(f'quote("{c.name}")' for c in Base.metadata.tables[table].columns)


def _rows(session: Session, table: str, where: str, of: Mapping[str, str]) -> list[dict[str, Any]]:
    """Rows as SQLite holds them; thousands may go at once, so no row object is made of each."""
    columns = Base.metadata.tables[table].columns
    names = [column.name for column in columns]
    listed = ", ".join(f'"{name}"' for name in names)
    found = session.connection().exec_driver_sql(
        f"SELECT {listed} FROM {table} WHERE {where} ORDER BY rowid", dict(of)
    )
    rows = [dict(zip(names, row, strict=True)) for row in found.cursor.fetchall()]
    for name in (column.name for column in columns if isinstance(column.type, LargeBinary)):
        for row in rows:
            row[name] = _as_json(row[name])
    return rows


def _as_json(value: Any) -> Any:  # noqa: ANN401 - whatever a column holds
    if isinstance(value, bytes):
        return _BYTES + base64.b64encode(value).decode()
    return value
