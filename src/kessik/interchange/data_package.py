"""`datapackage.json`: what the tables of a trial hold, as a tabular data package says it.

References
----------
[1] Data Package and Table Schema, version 1, specs.frictionlessdata.io; from memory, checked by the
    reference validator in the tests.
"""

import csv
import io
import json
import re
from collections.abc import Mapping, Sequence
from typing import Any

from kessik.interchange.csv_tables import Column
from kessik.interchange.record_csv import BLADE_COLUMNS, EDGE_COLUMNS, RUN_COLUMNS
from kessik.interchange.series_csv import COLUMNS as SERIES_COLUMNS

FILE_NAME = "datapackage.json"
_TABLES: Mapping[str, Sequence[Column]] = {
    "series": SERIES_COLUMNS, "runs": RUN_COLUMNS, "blades": BLADE_COLUMNS, "edges": EDGE_COLUMNS,
}  # fmt: skip  # a table is read by its rows
_TYPES = {"number": "number", "integer": "integer", "yes_no": "boolean", "day": "date"}


def describe(title: str, made_utc: str, files: Mapping[str, str]) -> str:
    """The text of the package over the tables among some files, by their names."""
    resources = [
        _resource(name, kind, text)
        for name, text in files.items()
        for kind in _TABLES
        if name.endswith(f".{kind}.csv")
    ]
    package = {
        "profile": "tabular-data-package",
        "name": _slug(title),
        "title": title,
        "created": made_utc,
        "resources": resources,
    }
    return json.dumps(package, ensure_ascii=False, indent=2) + "\n"


def _resource(name: str, kind: str, text: str) -> dict[str, Any]:
    header = next(csv.reader(io.StringIO(text)))
    known = {column.name: column for column in _TABLES[kind]}
    fields = [_field(column, known.get(column)) for column in header]
    return {
        "profile": "tabular-data-resource",
        "name": kind,
        "path": name,
        "format": "csv",
        "mediatype": "text/csv",
        "encoding": "utf-8",
        "dialect": {"delimiter": ",", "quoteChar": '"', "doubleQuote": True},
        "schema": {"fields": fields, "missingValues": [""]},
    }


def _field(name: str, column: Column | None) -> dict[str, Any]:
    if column is None:
        return {"name": name, "type": "string"}
    found: dict[str, Any] = {"name": name, "type": _TYPES.get(column.kind, "string")}
    if column.kind == "yes_no":
        found |= {"trueValues": ["yes"], "falseValues": ["no"]}
    constraints: dict[str, Any] = {}
    if column.required:
        constraints["required"] = True
    if column.kind == "choice":
        constraints["enum"] = list(column.choices)
    if constraints:
        found["constraints"] = constraints
    return found


def _slug(title: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-") or "trial"
