"""Lives against composition, and two recipes side by side, over the wire."""

from kessik.api.schemas.common import Wire
from kessik.core.words.assay import range_words
from kessik.services.assays.performance import Performance
from kessik.services.assays.side_by_side import SideBySide, Told


class OfferOut(Wire):
    """A blade whose life is far below its grade's usual."""

    blade_id: str
    says: str


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


class PerformanceOut(Wire):
    """Composition against performance, over trials of one method."""

    methods: list[str]
    variables: list[AgainstOut]
    method: str
    against: str
    unit: str
    points: list[PointOut]
    says: str
    travels: str

    @classmethod
    def of(cls, found: Performance) -> "PerformanceOut":
        return cls(
            methods=list(found.methods),
            variables=[AgainstOut(name=n, label=lab, unit=u) for n, lab, u in found.variables],
            method=found.method,
            against=found.against,
            unit=found.unit,
            points=[PointOut.model_validate(point) for point in found.points],
            says=found.says,
            travels=found.travels,
        )


class ToldOut(Wire):
    """What is told of one blade."""

    id: str
    code: str
    mark: int
    claim: str
    hardness: str
    hardening: str
    lives: list[str]

    @classmethod
    def of(cls, found: Told) -> "ToldOut":
        return cls(
            id=found.blade.id,
            code=found.blade.code,
            mark=found.blade.mark,
            claim=found.blade.claimed_grade or "",
            hardness=found.hardness,
            hardening=found.hardening,
            lives=list(found.lives),
        )


class DiffersOut(Wire):
    """An element in which two recipes differ."""

    element: str
    first: str
    second: str
    says: str


class SideBySideOut(Wire):
    """Two blades as their makers tell of them."""

    first: ToldOut
    second: ToldOut
    differs: list[DiffersOut]
    warnings: list[str]
    standing: str
    equal_comparison: str

    @classmethod
    def of(cls, found: SideBySide) -> "SideBySideOut":
        return cls(
            first=ToldOut.of(found.first),
            second=ToldOut.of(found.second),
            differs=[
                DiffersOut(
                    element=d.element,
                    first=range_words(d.first),
                    second=range_words(d.second),
                    says=d.says,
                )
                for d in found.differs
            ],
            warnings=list(found.warnings),
            standing=found.standing,
            equal_comparison=found.equal_comparison,
        )
