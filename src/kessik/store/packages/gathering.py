"""All that belongs to some trials, read in one state of the data."""

import re
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy.orm import Session

from kessik.store.packages.stored_rows import StoredRow, Tables, read_rows

_IN = "IN (SELECT value FROM json_each(:{}))"
_PICTURE = re.compile(r"[0-9a-f]{64}")
_SHOWING = ("event", "soak_look", "soak_coupon", "soak")
"""Tables whose rows may name a picture in what they say."""


@dataclass
class _Gathering:
    session: Session
    ids: dict[str, set[str]] = field(default_factory=dict)
    tables: dict[str, list[StoredRow]] = field(default_factory=dict)

    def take(self, table: str, where: str) -> list[StoredRow]:
        """Rows of a table by a condition on ids that are known by now."""
        self.tables[table] = read_rows(self.session, table, where, self.ids)
        return self.tables[table]

    def know(self, name: str, found: Iterable[str | None]) -> None:
        """More ids of a kind."""
        self.ids.setdefault(name, set()).update(each for each in found if each)


def gather(session: Session, trial_ids: Sequence[str]) -> Tables:
    """The rows of trials and of all that they rest on, by table: runs with their logs, blades with
    edges and measurements, methods, lots, shots, soaks, toughness, pictures, and the tester's own
    grades, which claims are held against.
    """
    found = _Gathering(session)
    found.know("trials", trial_ids)
    _trials(found)
    _soaks(found)
    _blades(found)
    _assays(found)
    _lots(found)
    _pictures(found)
    return found.tables


def _trials(found: _Gathering) -> None:
    trials = found.take("trial", f"id {_IN.format('trials')}")
    found.take("archived", f"kind = 'trial' AND owner_id {_IN.format('trials')}")
    found.take("trace", f"trial_id {_IN.format('trials')}")
    placed = found.take("trial_blade", f"trial_id {_IN.format('trials')}")
    found.know("blades", _column(placed, "blade_id"))
    runs = found.take("run", f"trial_id {_IN.format('trials')}")
    found.know("runs", _column(runs, "id"))
    found.take("event", f"run_id {_IN.format('runs')}")
    found.know("edges", _column(runs, "edge_id"))
    cut = read_rows(found.session, "edge", f"id {_IN.format('edges')}", found.ids)
    found.know("blades", _column(cut, "blade_id"))
    found.know("methods", (*_column(trials, "method_id"), *_column(runs, "method_id")))
    lines = f"line_id IN (SELECT line_id FROM method WHERE id {_IN.format('methods')})"
    found.take("method", lines)
    for run in runs:  # an edge may go on from a run of a trial that stays behind
        run["after_strop_of"] = _if_known(run["after_strop_of"], found.ids["runs"])


def _if_known(own_id: str | None, known: set[str]) -> str | None:
    return own_id if own_id in known else None


def _soaks(found: _Gathering) -> None:
    """Whole soaks: a blade stands beside the others that it was exposed with."""
    of_blades = f"blade_id {_IN.format('blades')}"
    coupons = read_rows(found.session, "soak_coupon", of_blades, found.ids)
    found.know("soaks", _column(coupons, "soak_id"))
    found.take("soak", f"id {_IN.format('soaks')}")
    coupons = found.take("soak_coupon", f"soak_id {_IN.format('soaks')}")
    found.know("blades", _column(coupons, "blade_id"))
    found.take("soak_act", f"soak_id {_IN.format('soaks')}")
    found.take("soak_look", f"soak_id {_IN.format('soaks')}")


def _blades(found: _Gathering) -> None:
    blades = found.take("blade", f"id {_IN.format('blades')}")
    of_blades = f"blade_id {_IN.format('blades')}"
    edges = found.take("edge", of_blades)
    found.know("recipes", _column(edges, "recipe_id"))
    found.take("recipe", f"id {_IN.format('recipes')}")
    found.take("measurement", of_blades)
    found.take("field_exposure", of_blades)
    found.take("care", of_blades)
    found.know("grades", _column(blades, "claimed_grade"))
    found.take("toughness", f"{of_blades} OR grade {_IN.format('grades')} AND blade_id IS NULL")
    found.take("grade", "TRUE")


def _assays(found: _Gathering) -> None:
    of_blades = f"blade_id {_IN.format('blades')}"
    shots = found.take("assay_shot", of_blades)
    placed = found.take("assay_blade", of_blades)
    found.know("batches", (*_column(shots, "batch_id"), *_column(placed, "batch_id")))
    found.take("assay_batch", f"id {_IN.format('batches')}")


def _lots(found: _Gathering) -> None:
    """Lots that runs took from, or soaks name."""
    lots = read_rows(found.session, "lot", "TRUE", {})
    told = "\n".join(_texts(found.tables[table] for table in ("run", "event", "soak", "soak_act")))
    found.know("lots", (lot["id"] for lot in lots if lot["id"] in told))
    found.take("lot", f"id {_IN.format('lots')}")
    found.take("lot_correction", f"lot_id {_IN.format('lots')}")


def _pictures(found: _Gathering) -> None:
    owners = [_column(found.tables[table], "id") for table in ("blade", "event", "soak")]
    found.know("owners", (each for own in owners for each in own))
    used = found.take("picture_use", f"owner_id {_IN.format('owners')}")
    found.know("pictures", _column(used, "hash"))
    for told in _texts(found.tables[table] for table in _SHOWING):
        found.know("pictures", _PICTURE.findall(told))
    found.take("picture", f"hash {_IN.format('pictures')}")


def _column(rows: Sequence[Mapping[str, Any]], name: str) -> list[str | None]:
    return [row[name] for row in rows]


def _texts(tables: Iterable[Sequence[StoredRow]]) -> Iterator[str]:
    return (str(value) for rows in tables for row in rows for value in row.values())
