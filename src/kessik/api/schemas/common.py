"""Shared parts of the wire format."""

import re
from datetime import date
from typing import Annotated, Any, Self, get_args

from pydantic import (
    AfterValidator,
    BaseModel,
    ConfigDict,
    Field,
    GetCoreSchemaHandler,
    GetJsonSchemaHandler,
)
from pydantic_core import CoreSchema, PydanticCustomError, core_schema

from kessik.core.limits import LIMITS, most


class Bounded:  # read as a word of the field it stands at
    """The bounds of the table of limits, as a field has them; refused in the words of the table."""

    def __init__(self, name: str) -> None:
        self._limit = LIMITS[name]

    def __get_pydantic_core_schema__(
        self, source: type, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        return core_schema.no_info_after_validator_function(self._checked, handler(source))

    def __get_pydantic_json_schema__(
        self, schema: CoreSchema, handler: GetJsonSchemaHandler
    ) -> dict[str, Any]:
        limit = self._limit
        return {
            "minimum": limit.least,
            "maximum": limit.most,
            "description": limit.help,
            **handler(schema),
        }

    def _checked(self, value: float) -> float:
        if not self._limit.holds(value):
            raise PydanticCustomError("kessik", "{said}", {"said": self._limit.says(f"{value:g}")})
        return value


def plausible_magnitude(value: float) -> float:
    """A number of a size that something measured can have; 0 too."""
    if value and not 1e-9 <= abs(value) <= 1e9:
        raise ValueError(f"{value:g} cannot be measured")
    return value


def one_line(text: str) -> str:
    """A name or a word; what it goes into is read by its lines."""
    if len(text.splitlines()) > 1:
        raise ValueError("this has one line: take the line breaks out")
    return text


def a_day(text: str) -> str:
    """A day of the calendar, in a year that can be; empty where none is given."""
    try:
        year = date.fromisoformat(text).year if text else None
    except ValueError as wrong:
        raise ValueError(f"{text} is not a day of the calendar") from wrong
    if year is not None and not LIMITS["year"].holds(year):
        raise ValueError(LIMITS["year"].says(str(year)))
    return text


Id = Annotated[str, Field(min_length=8, max_length=64, pattern=r"^[0-9a-zA-Z-]+$")]
ArmId = Annotated[str, Field(min_length=8, max_length=400, pattern=r"^[0-9a-zA-Z-]+(/.+)?$")]
PictureHash = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
NoPictureYet = Annotated[str, Field(pattern=r"^([0-9a-f]{64})?$")]
ShortText = Annotated[str, Field(max_length=most("word")), AfterValidator(one_line)]
LongText = Annotated[str, Field(max_length=most("text"))]
Day = Annotated[str, Field(pattern=r"^(\d{4}-\d{2}-\d{2})?$"), AfterValidator(a_day)]
Finite = Annotated[float, Field(allow_inf_nan=False), AfterValidator(plausible_magnitude)]
LogPosition = Annotated[int, Bounded("log_position")]
Place = Annotated[float, Bounded("position_mm")]


class Wire(BaseModel):
    """Strict about unknown fields, so that a misspelt one is said and not lost."""

    model_config = ConfigDict(extra="forbid", from_attributes=True)

    @classmethod
    def showing(cls, known: object, **said: object) -> Self:
        """What `known` has under the names of the fields, and what is said besides or instead."""
        same = {
            name: getattr(known, name)
            for name in cls.model_fields
            if name not in said and hasattr(known, name)
        }
        return cls(**same, **said)


_ADDRESS = re.compile(r" at 0x[0-9a-f]+")


def shape_of(made: type[BaseModel]) -> str:
    """Every field of a body and of those inside it, with its type: the same text as long as the
    wire says the same. Quicker than its JSON Schema, for which a start would have to wait.
    """
    found: dict[str, str] = {}
    waiting: list[object] = [made]
    while waiting:
        kind = waiting.pop()
        waiting += get_args(kind)
        if not (isinstance(kind, type) and issubclass(kind, BaseModel)):
            continue
        name = f"{kind.__module__}.{kind.__qualname__}"
        if name not in found:
            fields = {key: each.annotation for key, each in kind.model_fields.items()}
            found[name] = _ADDRESS.sub("", repr(fields))
            waiting += fields.values()
    return repr(sorted(found.items()))


class FaultOut(Wire):
    """One thing wrong: in a file by line and column, in a form by field."""

    file: str = ""
    line: int = 0
    column: str = ""
    message: str


class Problem(Wire):
    """RFC 9457 problem details; `field` names the input at fault; `faults` lists the first, of
    `fault_count`.
    """

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    field: str | None = None
    faults: list[FaultOut] = Field(default_factory=list)
    fault_count: int = 0
