"""How the fields of a record say what they may hold; bodies of the wire are made from that.

Plain text is short where nothing is said (a name, a word), a number finite.
"""

from dataclasses import dataclass
from typing import Annotated, Literal


@dataclass(frozen=True)
class Within:
    """A limit of the table: the bounds of a number, the length of a text or a list."""

    limit: str


@dataclass(frozen=True)
class TextForm:
    """A text of a set form: an id made by a client, or a day such as 2026-05-04."""

    form: Literal["id", "day"]


Id = Annotated[str, TextForm("id")]
Day = Annotated[str, TextForm("day")]
LongText = Annotated[str, Within("text")]
