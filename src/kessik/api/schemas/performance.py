"""Lives against composition, and two recipes side by side, over the wire."""

from kessik.api.schemas.common import Wire
from kessik.api.schemas.records import Answer
from kessik.services.assays.offers import Offer
from kessik.services.assays.performance import Performance
from kessik.services.assays.side_by_side import SideBySide


class OfferOut(Answer[Offer]):
    """A blade whose life is far below its grade's usual."""


class PointOut(Wire):
    """A blade: what it is made of against how it did."""

    blade_id: str
    code: str
    mark: int
    x: float
    y: float
    low: float | None
    high: float | None
    counts: bool
    x_from: str


class AgainstOut(Wire):
    """Something that lives can be held against."""

    name: str
    label: str
    unit: str


class PerformanceOut(Answer[Performance], without="trend"):
    """Composition against performance, over trials of one method."""

    variables: list[AgainstOut]
    points: list[PointOut]


class ToldOut(Wire):
    """What is told of one blade."""

    id: str
    code: str
    mark: int
    claim: str
    hardness: str
    hardening: str
    lives: list[str]


class DiffersOut(Wire):
    """An element in which two recipes differ."""

    element: str
    first: str
    second: str
    says: str


class SideBySideOut(Answer[SideBySide]):
    """Two blades as their makers tell of them."""

    first: ToldOut
    second: ToldOut
    differs: list[DiffersOut]
