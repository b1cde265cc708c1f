"""What a report holds, whatever it is written as."""

from collections.abc import Sequence
from dataclasses import dataclass, field


@dataclass(frozen=True)
class Heading:
    """The heading of a part; level 1 is a trial, 2 a part of it."""

    text: str
    level: int = 2


@dataclass(frozen=True)
class Paragraph:
    """A paragraph; a `lead` is the answer itself, a `note` stands small."""

    text: str
    look: str = ""


@dataclass(frozen=True)
class Points:
    """A list."""

    items: tuple[str, ...]


@dataclass(frozen=True)
class Grid:
    """A table: `numeric` columns are flush right."""

    heads: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]
    caption: str = ""
    numeric: frozenset[int] = frozenset()
    small: bool = False


@dataclass(frozen=True)
class Drawing:
    """A chart as SVG, with its caption and what it shows for those who do not see it."""

    name: str
    svg: str
    caption: str
    told: str


Block = Heading | Paragraph | Points | Grid | Drawing


@dataclass(frozen=True)
class Report:
    """A document: its title, one line under it, and its blocks.

    `made_from` says which state of the data and which analysis it rests on; `day` is the day of the
    last of them, so that the same data give the same bytes whenever they are written.
    """

    title: str
    under: str
    blocks: tuple[Block, ...]
    made_from: str
    day: str
    figures: Sequence[Drawing] = field(init=False)

    def __post_init__(self) -> None:
        found = [block for block in self.blocks if isinstance(block, Drawing)]
        object.__setattr__(self, "figures", tuple(found))
