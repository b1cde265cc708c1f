"""Shared parts of the wire format."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

Id = Annotated[str, Field(min_length=8, max_length=64, pattern=r"^[0-9a-zA-Z-]+$")]
ShortText = Annotated[str, Field(max_length=200)]
LongText = Annotated[str, Field(max_length=4000)]
Day = Annotated[str, Field(pattern=r"^(\d{4}-\d{2}-\d{2})?$")]
Finite = Annotated[float, Field(allow_inf_nan=False)]
FactorName = Literal[
    "steel", "heat_treatment", "hardness", "finish", "angle", "geometry", "coating", "regime", "medium"
]  # fmt: skip
StandingName = Literal["measured_here", "measured_elsewhere", "standard", "literature", "claimed", "guessed"]


class Wire(BaseModel):
    """Strict about unknown fields, so that a misspelt one is said and not lost."""

    model_config = ConfigDict(extra="forbid", from_attributes=True)


class FaultOut(Wire):
    """One thing wrong: in a file by line and column, in a form by field."""

    file: str = ""
    line: int = 0
    column: str = ""
    message: str


class Problem(Wire):
    """RFC 9457 problem details; `field` names the input at fault, `faults` lists all of them."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    field: str | None = None
    faults: list[FaultOut] = Field(default_factory=list)
