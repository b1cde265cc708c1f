"""Rows of records: a column holds the field of its name, so that a field is written once.

What stands inside a record (steps of an edge, the brine of a soak) is kept as plain values in one
column, and read back by the type of the field.
"""

from collections.abc import Callable, Mapping
from dataclasses import asdict, fields, is_dataclass
from functools import cache
from types import NoneType, UnionType
from typing import Annotated, Any, TypeVar, Union, get_args, get_origin, get_type_hints

from sqlalchemy import inspect

from kessik.store.tables.base import Base

R = TypeVar("R")
_Read = Callable[[Any], Any]


def row_values(table: type[Base], record: object, /, **said: object) -> dict[str, Any]:
    """What the columns of a table hold of a record, with what is said besides."""
    shared = _columns_of(table) & {field.name for field in fields(record)}  # type: ignore[arg-type]  # a dataclass
    same = {name: plain(getattr(record, name)) for name in shared - said.keys()}
    return {**same, **said}


def record_of(made: type[R], row: object, /, **said: object) -> R:
    """The record that a row holds, with what is said besides: what stands in no column.

    The row may be of a table, or of some of its columns. TypeError where what is stored makes none.
    """
    found = {
        name: read(getattr(row, name))
        for name, read in _readers_of(made).items()  # type: ignore[arg-type]  # a class has a hash
        if name not in said and hasattr(row, name)
    }
    return made(**{**found, **said})


def from_plain(made: type[R], kept: Mapping[str, Any]) -> R:
    """A record from its plain values; TypeError where they make none."""
    readers = _readers_of(made)  # type: ignore[arg-type]  # a class has a hash
    return made(**{name: readers.get(name, _as_is)(value) for name, value in kept.items()})


def plain(value: object) -> object:
    """A value as a column keeps it."""
    if is_dataclass(value) and not isinstance(value, type):
        return asdict(value)
    if isinstance(value, tuple | list):
        return [plain(each) for each in value]
    return dict(value) if isinstance(value, Mapping) else value


@cache
def _columns_of(table: type[Base]) -> frozenset[str]:
    return frozenset(inspect(table).column_attrs.keys())


@cache
def _readers_of(made: type) -> Mapping[str, _Read]:
    hints = get_type_hints(made)
    return {field.name: _reader(hints[field.name]) for field in fields(made)}


def _reader(hint: Any) -> _Read:  # noqa: ANN401 - a type
    """How a value of a type is read back."""
    origin, inside = get_origin(hint), get_args(hint)
    if origin is Annotated:
        return _reader(inside[0])
    if origin in (Union, UnionType) and NoneType in inside:
        read = _reader(next(each for each in inside if each is not NoneType))
        return lambda value: None if value is None else read(value)
    if origin is tuple:
        each = _reader(inside[0])
        return lambda value: tuple(each(one) for one in value)
    if is_dataclass(hint):
        return lambda value: from_plain(hint, value)  # type: ignore[arg-type]  # a class
    return _as_is


def _as_is(value: Any) -> Any:  # noqa: ANN401 - any value
    return value
