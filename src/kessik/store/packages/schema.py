"""The JSON Schema of the records of a package, from the tables as they are."""

from collections.abc import Mapping
from typing import Any

from sqlalchemy import REAL, Column, Integer, LargeBinary

from kessik.interchange.package_json import schema
from kessik.store.packages.merging import BESIDE
from kessik.store.tables import Base
from kessik.store.tables.base import JsonText, YesNo

PACKED = ("trial", "trial_blade", "run", "event", "method", "blade", "edge", *BESIDE)
"""The tables that a package has."""


def package_schema() -> dict[str, Any]:
    """What `trials.kessik.json` of this Kessik holds."""
    tables = Base.metadata.tables
    return schema(
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
