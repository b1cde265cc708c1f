"""Lives against composition, and two recipes side by side, over the wire."""

from kessik.api.schemas.common import Wire
from kessik.api.schemas.records import Answer
from kessik.services.assays.performance import Performance


class OfferOut(Wire):
    """A blade whose life is far below its grade's usual, and what to look at."""

    blade_id: str
    says: str


class BladePointOut(Wire):
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
    points: list[BladePointOut]


class DescribedBladeOut(Wire):
    """A blade as it is described."""

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


class SideBySideOut(Wire):
    """Two blades as their makers describe them."""

    first: DescribedBladeOut
    second: DescribedBladeOut
    differs: list[DiffersOut]
    warnings: list[str]
    standing: str
    equal_comparison: str
