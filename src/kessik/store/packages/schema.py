"""The JSON Schema of the records of a package, from the tables as they are."""

from collections.abc import Mapping
from typing import Any

from sqlalchemy import REAL, Column, Integer, LargeBinary

from kessik.core.packages import FORMAT
from kessik.store.packages.merging import BESIDE
from kessik.store.tables import Base
from kessik.store.tables.base import JsonText, YesNo

PACKED = ("trial", "trial_blade", "run", "event", "method", "blade", "edge", *BESIDE)
"""The tables that a package has."""


def package_schema() -> dict[str, Any]:
    """What `trials.kessik.json` of this Kessik holds."""
    tables = Base.metadata.tables
    return _whole(
        {name: {column.name: _schema(column) for column in tables[name].columns} for name in PACKED}
    )


def _schema(column: Column[Any]) -> Mapping[str, Any]:
    kind = column.type
    if isinstance(kind, JsonText):
        return {}
    if isinstance(kind, Integer | YesNo):
        named = "integer"
    else:
        named = "number" if isinstance(kind, REAL) else "string"
    told: dict[str, Any] = {"type": [named, "null"] if column.nullable else named}
    if isinstance(kind, LargeBinary):
        told["contentEncoding"] = "base64"
    return told


def _whole(tables: Mapping[str, Mapping[str, Any]]) -> dict[str, Any]:
    """The JSON Schema of a package, from the schemas of the columns by table."""
    text = {"type": "string"}
    head = dict.fromkeys(("revision", "made_utc", "tester_id", "tester", "analysis"), text)
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Trials of Kessik with all that belongs to them",
        "type": "object",
        "required": ["format", "head", "tables"],
        "properties": {
            "format": {"const": FORMAT},
            "head": {
                "type": "object",
                "required": list(head),
                "properties": {**head, "hidden": {"type": "array", "items": text}},
            },
            "tables": {
                "type": "object",
                "additionalProperties": False,
                "properties": {
                    name: {
                        "type": "array",
                        "items": {
                            "type": "object",
                            "additionalProperties": False,
                            "required": list(columns),
                            "properties": dict(columns),
                        },
                    }
                    for name, columns in tables.items()
                },
            },
        },
    }
