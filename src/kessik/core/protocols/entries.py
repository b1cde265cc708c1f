"""What one field of an event may hold: read strictly from plain JSON values, and described as JSON
Schema.
"""

import math
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, NoReturn, Protocol

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS, check_limit, most

Schema = dict[str, Any]
_UNPLAIN = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f\ud800-\udfff]")


class Entry(Protocol):
    """One kind of field: `read` gives the typed value or raises OutOfRangeError at the field."""

    def read(self, field: str, value: object) -> object: ...

    def schema(self) -> Schema: ...


@dataclass(frozen=True)
class Number:
    """A finite number within a limit of the table; without one, the event's own rule says which."""

    limit: str = ""

    def read(self, field: str, value: object) -> float:
        if isinstance(value, bool) or not isinstance(value, int | float):
            _refuse(f"{field} must be a number, and is {_shown(value)}", field)
        try:
            number = float(value)
        except OverflowError:
            number = math.inf
        if self.limit:
            return check_limit(self.limit, number, field)
        return number if math.isfinite(number) else _refuse(f"{field} has too many digits", field)

    def schema(self) -> Schema:
        if not self.limit:
            return {"type": "number"}
        limit = LIMITS[self.limit]
        return {
            "type": "number",
            "minimum": limit.least,
            "maximum": limit.most,
            "description": limit.help,
        }


@dataclass(frozen=True)
class Choice:
    """One word of a list."""

    words: tuple[str, ...]
    says: str

    def read(self, field: str, value: object) -> str:
        if not isinstance(value, str) or value not in self.words:
            _refuse(f"{self.says} {', '.join(word for word in self.words if word)}", field)
        return value

    def schema(self) -> Schema:
        return {"type": "string", "enum": list(self.words)}


@dataclass(frozen=True)
class Text:
    """Text that can be kept and printed; `needed` says why it may not be empty."""

    limit: str = "word"
    needed: str = ""

    def read(self, field: str, value: object) -> str:
        if not isinstance(value, str):
            _refuse(self.needed or f"{field} must be text, and is {_shown(value)}", field)
        if self.needed and not value.strip():
            _refuse(self.needed, field)
        if len(value) > most(self.limit):
            _refuse(LIMITS[self.limit].says(str(len(value))), field)
        if not is_plain(value):
            _refuse(f"{field} holds a character that is not text", field)
        return value

    def schema(self) -> Schema:
        least = {"minLength": 1} if self.needed else {}
        return {"type": "string", "maxLength": most(self.limit), **least}


@dataclass(frozen=True)
class Flag:
    """Yes or no."""

    def read(self, field: str, value: object) -> bool:
        if not isinstance(value, bool):
            _refuse(f"{field} is yes or no", field)
        return value

    def schema(self) -> Schema:
        return {"type": "boolean"}


@dataclass(frozen=True)
class Ids:
    """Ids of events, one at least."""

    says: str

    def read(self, field: str, value: object) -> tuple[str, ...]:
        if (
            isinstance(value, str)
            or not isinstance(value, Sequence)
            or not 0 < len(value) <= most("targets")
        ):
            _refuse(self.says, field)
        return tuple(Text(needed=self.says).read(field, each) for each in value)

    def schema(self) -> Schema:
        return {
            "type": "array",
            "items": {"type": "string"},
            "minItems": 1,
            "maxItems": most("targets"),
        }


@dataclass(frozen=True)
class Pair:
    """Two values: both counts of a band, or a value and its unit as they stood in a file."""

    first: Entry
    second: Entry

    def read(self, field: str, value: object) -> tuple[object, object]:
        if isinstance(value, str) or not isinstance(value, Sequence) or len(value) != 2:
            _refuse(f"{field} holds two values", field)
        first, second = value
        return self._one(self.first, field, first), self._one(self.second, field, second)

    @staticmethod
    def _one(entry: Entry, field: str, value: object) -> object:
        return None if value is None else entry.read(field, value)

    def schema(self) -> Schema:
        either = [self.first.schema(), self.second.schema(), {"type": "null"}]
        return {"type": "array", "items": {"anyOf": either}, "minItems": 2, "maxItems": 2}


@dataclass(frozen=True)
class Extra:
    """Unknown columns of a file, by name: short texts."""

    def read(self, field: str, value: object) -> Mapping[str, str]:
        if not isinstance(value, Mapping) or len(value) > most("file_columns"):
            _refuse(f"{field} holds texts by name", field)
        cell = Text("cell")
        return {cell.read(field, name): cell.read(field, each) for name, each in value.items()}

    def schema(self) -> Schema:
        return {
            "type": "object",
            "additionalProperties": {"type": "string", "maxLength": most("cell")},
        }


@dataclass(frozen=True)
class ChangedFields:
    """Fields of another event with what they become; read further by that event's own class."""

    def read(self, field: str, value: object) -> Mapping[str, object]:
        if not isinstance(value, Mapping) or len(value) > most("file_columns"):
            _refuse(
                f"{field} names fields with their new values, or is empty to undo",
                field,
            )
        return {str(name): each for name, each in value.items()}

    def schema(self) -> Schema:
        return {"type": "object", "additionalProperties": True}


def is_plain(text: str) -> bool:
    """Whether a text can be stored and printed everywhere: no half characters, no control signs but
    line breaks.
    """
    return _UNPLAIN.search(text) is None


def _shown(value: object) -> str:
    if value is None:
        return "missing"
    return {bool: "yes or no", str: "text", list: "a list", tuple: "a list", dict: "an object"}.get(
        type(value), "something else"
    )


def _refuse(message: str, field: str) -> NoReturn:
    raise OutOfRangeError(message, field=field)
