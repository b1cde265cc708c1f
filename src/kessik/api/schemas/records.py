"""Bodies, patches and answers that say what a record of the core says.

They are made of the fields of its dataclass, so that a field is written once: `class
BatchBody(Body[Batch], without="id")` has every field of a batch but its id. What a class spells
out itself stands instead of what the record has.
"""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import MISSING, Field, fields, is_dataclass
from inspect import get_annotations
from types import NoneType, UnionType
from typing import (
    TYPE_CHECKING,
    Annotated,
    Any,
    ClassVar,
    Generic,
    TypeVar,
    Union,
    get_args,
    get_origin,
    get_type_hints,
)

import pydantic

from kessik.api.schemas.common import Bounded, Day, Finite, Id, ShortText, Wire
from kessik.core.limits import most
from kessik.core.records import TextForm, Within

R = TypeVar("R")
_BODY_OF: dict[object, type[Wire]] = {}
_ANSWER_OF: dict[object, type[Wire]] = {}
_FORMS: Mapping[str, object] = {"id": Id, "day": Day}
_LISTS = (tuple, frozenset, list)


def _taken(hint: Any) -> Any:  # noqa: ANN401 - types are made of types
    """The type of a field as it is taken in, with its bounds."""
    if get_origin(hint) is Annotated:
        plain, said = get_args(hint)[:2]
        return _bounded(plain, said)
    if hint is str:
        return ShortText
    if hint is float:
        return Finite
    return _through(hint, _taken, _BODY_OF)


def _bounded(plain: Any, said: object) -> Any:  # noqa: ANN401 - types are made of types
    if isinstance(said, TextForm):
        return _FORMS[said.form]
    assert isinstance(said, Within)
    if plain is str:
        return Annotated[str, pydantic.Field(max_length=most(said.limit))]
    if get_origin(plain) in _LISTS:
        return Annotated[_taken(plain), pydantic.Field(max_length=most(said.limit))]
    return Annotated[_taken(plain), Bounded(said.limit)]


def _told(hint: Any) -> Any:  # noqa: ANN401 - types are made of types
    """The type of a field as it is told: what is kept was checked."""
    if get_origin(hint) is Annotated:
        return _told(get_args(hint)[0])
    return _through(hint, _told, {**_BODY_OF, **_ANSWER_OF})


def _through(hint: Any, each: Callable[[Any], Any], made: Mapping[object, type[Wire]]) -> Any:  # noqa: ANN401 - types are made of types
    """A type with what stands inside it put into the form of the wire."""
    origin, inside = get_origin(hint), get_args(hint)
    if origin in (Union, UnionType):
        return Union[tuple(each(one) for one in inside)]  # noqa: UP007 - made, not written
    if origin in _LISTS:
        return list.__class_getitem__(each(inside[0]))
    if isinstance(origin, type) and issubclass(origin, Mapping):
        return dict.__class_getitem__((inside[0], each(inside[1])))
    if is_dataclass(hint):
        if hint not in made:
            raise TypeError(f"{hint} has no form on the wire yet")
        return made[hint]
    return hint


class _OfRecord(Wire, Generic[R]):
    """What is made of a record, told by its type in brackets."""

    record: ClassVar[type]
    if TYPE_CHECKING:

        def __getattr__(self, name: str) -> Any: ...  # noqa: ANN401 - as the record has it

    def __init_subclass__(cls, without: str = "", **settings: Any) -> None:  # noqa: ANN401 - pydantic's own
        super().__init_subclass__(**settings)
        of = getattr(cls.__bases__[0], "__pydantic_generic_metadata__", {}).get("args", ())
        if of and is_dataclass(of[0]) and isinstance(of[0], type):
            cls.record = of[0]
            own = get_annotations(cls)
            left_out = {*without.split(), *own}
            hints = get_type_hints(cls.record, include_extras=True)
            if unknown := set(without.split()) - hints.keys():
                raise TypeError(f"{cls.record.__name__} has no {', '.join(sorted(unknown))}")
            cls.__annotations__ = {}
            cls._take_over(
                (known, hints[known.name])
                for known in fields(cls.record)
                if known.name not in left_out
            )
            cls.__annotations__ |= own

    @classmethod
    def _take_over(cls, known: Iterator[tuple[Field[Any], Any]]) -> None:
        """Make fields of these of the record."""

    @classmethod
    def _add(cls, name: str, hint: object, *default: object) -> None:
        cls.__annotations__[name] = hint
        for each in default:
            setattr(cls, name, each)


class Body(_OfRecord[R]):
    """A new record as it is sent; what may be left out is what the record has a default for."""

    @classmethod
    def _take_over(cls, known: Iterator[tuple[Field[Any], Any]]) -> None:
        for each, hint in known:
            cls._add(each.name, _taken(hint), *_default(each))
        _BODY_OF.setdefault(cls.record, cls)

    def to_core(self, **said: object) -> R:
        """The record, with what is said of it besides."""
        known = {field.name for field in fields(self.record)} & type(self).model_fields.keys()
        sent = {name: plain(getattr(self, name)) for name in known - said.keys()}
        return self.record(**{**sent, **said})  # type: ignore[no-any-return]  # it is the R


class PartialBody(Wire):
    """Some fields of a thing, to change; what is not sent stays, and null empties a field that may
    be empty.
    """

    emptiable: ClassVar[frozenset[str]] = frozenset()

    def changes(self) -> dict[str, Any]:
        """What was sent, as the record holds it."""
        sent = {name: plain(getattr(self, name)) for name in self.model_fields_set}
        return {
            name: value
            for name, value in sent.items()
            if value is not None or name in self.emptiable
        }


class Patch(_OfRecord[R], PartialBody, Generic[R]):
    """Some fields of a record, to change."""

    @classmethod
    def _take_over(cls, known: Iterator[tuple[Field[Any], Any]]) -> None:
        for each, hint in known:
            if NoneType in get_args(hint):
                cls.emptiable |= {each.name}
            cls._add(each.name, Union[_taken(hint), None], None)  # noqa: UP007 - made, not written


class Answer(_OfRecord[R]):
    """A record as it is told."""

    @classmethod
    def _take_over(cls, known: Iterator[tuple[Field[Any], Any]]) -> None:
        for each, hint in known:
            cls._add(each.name, _told(hint))
        _ANSWER_OF.setdefault(cls.record, cls)


def _default(known: Field[Any]) -> list[object]:
    """The default of a field of a body, if it has one."""
    if known.default_factory is not MISSING:
        make = known.default_factory
        return [pydantic.Field(default_factory=lambda: _shown(make()))]
    if known.default is MISSING:
        return []
    if known.default == () or isinstance(known.default, frozenset):
        return [pydantic.Field(default_factory=list)]
    return [_shown(known.default)]


def _shown(value: object) -> object:
    body = _BODY_OF.get(type(value))
    return body.showing(value) if body else value


def plain(value: object) -> object:
    """A value of a body as a record holds it."""
    if isinstance(value, Body):
        return value.to_core()
    if isinstance(value, list):
        return tuple(plain(one) for one in value)
    return value
