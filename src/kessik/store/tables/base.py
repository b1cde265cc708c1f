"""The base of all tables, and column types that SQLite's STRICT tables take."""

import json
from typing import Any

from sqlalchemy import Dialect, Integer, Text
from sqlalchemy.orm import DeclarativeBase
from sqlalchemy.types import TypeDecorator

STRICT = {"sqlite_strict": True}
JSON_TEXT = json.JSONEncoder(ensure_ascii=False, separators=(",", ":"))
"""Made once: `json.dumps` makes a new one for every value."""


class Base(DeclarativeBase):
    """Declarative base; every table is STRICT."""


class UnreadableJson(dict[str, Any]):
    """Where a column holds no JSON: nothing, so that what stands beside it can still be read."""


class JsonText(TypeDecorator[Any]):
    """JSON kept as text: a STRICT table has no JSON type."""

    impl = Text
    cache_ok = True

    def process_bind_param(self, value: Any, dialect: Dialect) -> str | None:  # noqa: ANN401 - any JSON value
        return None if value is None else JSON_TEXT.encode(value)

    def process_result_value(self, value: str | None, dialect: Dialect) -> Any:  # noqa: ANN401 - any JSON value
        if value is None:
            return None
        try:
            return json.loads(value)
        except (ValueError, RecursionError):
            return UnreadableJson()


class YesNo(TypeDecorator[bool]):
    """A truth value kept as 0 or 1."""

    impl = Integer
    cache_ok = True

    def process_bind_param(self, value: bool | None, dialect: Dialect) -> int | None:
        return None if value is None else int(value)

    def process_result_value(self, value: int | None, dialect: Dialect) -> bool | None:
        return None if value is None else bool(value)
