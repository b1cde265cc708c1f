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
from dataclasses import dataclass
from typing import Any

from kessik.interchange.csv_tables import Column
from kessik.interchange.looks_csv import COLUMNS as LOOK_COLUMNS
from kessik.interchange.record_csv import BLADE_COLUMNS, EDGE_COLUMNS, RUN_COLUMNS
from kessik.interchange.series_csv import COLUMNS as SERIES_COLUMNS
from kessik.interchange.shots_csv import COLUMNS as SHOT_COLUMNS

FILE_NAME = "datapackage.json"
_TABLES: Mapping[str, Sequence[Column]] = {
    "series": SERIES_COLUMNS, "runs": RUN_COLUMNS, "blades": BLADE_COLUMNS, "edges": EDGE_COLUMNS,
    "shots": SHOT_COLUMNS, "looks": LOOK_COLUMNS,
}  # fmt: skip  # a table is read by its rows
_TRIALS = "trials"
"""The tables of a package of trials begin with this word."""
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


@dataclass(frozen=True)
class FileFacts:
    """A file of a package: its name, its sum (SHA-256), how long it is, and its first line."""

    name: str
    sha256: str
    size: int
    head: str = ""


def describe_package(title: str, made_utc: str, files: Sequence[FileFacts]) -> str:
    """The text of a package of trials: each of its files with its sum, the tables with their
    columns.
    """
    package = {
        "profile": "data-package",
        "name": _slug(title),
        "title": title,
        "created": made_utc,
        "resources": [_described(file) for file in files],
    }
    return json.dumps(package, ensure_ascii=False, indent=2) + "\n"


def described_sums(text: bytes) -> dict[str, str]:
    """The sums of the files of a package, by name; ValueError where its text does not tell them."""
    try:
        resources = json.loads(text)["resources"]
        return {each["path"]: each["hash"].removeprefix("sha256:") for each in resources}
    except (ValueError, KeyError, TypeError, AttributeError, RecursionError) as error:
        raise ValueError(f"{FILE_NAME} does not say what is in the package") from error


def _described(file: FileFacts) -> dict[str, Any]:
    kind = next((kind for kind in _TABLES if file.name == f"{_TRIALS}.{kind}.csv"), None)
    known = {"hash": f"sha256:{file.sha256}", "bytes": file.size}
    if kind is not None:
        return {**_resource(file.name, kind, file.head), **known}
    name = _slug(file.name.removesuffix(".json"))
    return {"name": name, "path": file.name, "mediatype": _media_type(file.name), **known}


def _media_type(name: str) -> str:
    return "application/json" if name.endswith(".json") else "application/octet-stream"


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
    if column.required and not column.may_be_empty:
        constraints["required"] = True
    if column.kind == "choice":
        constraints["enum"] = list(column.choices)
    if constraints:
        found["constraints"] = constraints
    return found


def _slug(title: str) -> str:
    return re.sub(r"[^a-z0-9]+", "-", title.lower()).strip("-") or "trial"
