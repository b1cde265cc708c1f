"""Repeatability and reproducibility of parts read by operators, by analysis of variance.

Reading = part + operator + part by operator + error, all of them random. Sums of squares come by
fitting with and without each term (Henderson's third method), so that a study may be unbalanced;
where it is balanced they are the textbook's. The interaction is kept where its p is at most 0.25,
else its squares go to the error; a negative component is 0, and said to be so.

A worked example: 2 parts, 1 operator, readings 10, 12 and 20, 22: error mean square 2, parts 100;
repeatability 2, part (100 - 2) / 2 = 49.

References
----------
[1] S. R. Searle, G. Casella, C. E. McCulloch, Variance Components, chapter 5: fitting constants.
[2] R. K. Burdick, C. M. Borror, D. C. Montgomery, Design and Analysis of Gauge R&R Studies (2005).
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from scipy.special import fdtrc

from kessik.core.errors import OutOfRangeError
from kessik.core.gauge.intervals import Combination, Interval, bounded

Floats = NDArray[np.float64]
Component = Literal["repeatability", "operator", "interaction", "part"]
COMPONENTS: tuple[Component, ...] = ("repeatability", "operator", "interaction", "part")
KEPT_UP_TO_P = 0.25
_FAR_OFF = 4.0
_RANK = 1e-9


@dataclass(frozen=True)
class GaugeReading:
    """One reading of a part by an operator."""

    part: str
    operator: str
    value: float


@dataclass(frozen=True)
class InteractionTest:
    """Whether operators rank parts differently; `f` and `p` are None where it cannot be told."""

    f: float | None
    p: float | None
    pooled: bool


@dataclass(frozen=True)
class GaugeStudy:
    """Components as variances with their 95 % intervals; shares are those of the gauge.

    `negative` were estimated below 0 and are 0; `unseen` cannot be told from this study; `far_off`
    are readings that lie far from what the model says of them, by their place.
    """

    components: Mapping[Component, float]
    intervals: Mapping[str, Interval]
    interaction: InteractionTest
    parts: int
    operators: int
    readings: int
    is_balanced: bool
    negative: tuple[Component, ...] = ()
    unseen: tuple[Component, ...] = ()
    far_off: tuple[int, ...] = ()
    means: Mapping[tuple[str, str], float] = field(default_factory=dict)

    @property
    def grr(self) -> float:
        """Variance of the gauge: repeatability, operator and interaction."""
        return sum(self.components[name] for name in COMPONENTS if name != "part")

    @property
    def total(self) -> float:
        """Variance of all readings."""
        return self.grr + self.components["part"]

    @property
    def percent_contribution(self) -> float | None:
        """The gauge's share of the whole variance; None where nothing varies."""
        return 100.0 * self.grr / self.total if self.total > 0 else None

    @property
    def percent_study(self) -> float | None:
        """The gauge's share of the whole spread; None where nothing varies."""
        return 100.0 * math.sqrt(self.grr / self.total) if self.total > 0 else None

    @property
    def distinct(self) -> int | None:
        """How many categories of parts the gauge tells apart; None where parts cannot differ."""
        if "part" in self.unseen or self.grr <= 0:
            return None
        return max(1, int(1.41 * math.sqrt(self.components["part"] / self.grr)))


@dataclass(frozen=True)
class _Square:
    """A reduction in squares: of what, its degrees, and how much each component adds to it."""

    of: Component
    squares: float
    df: int
    adds: Mapping[Component, float]

    @property
    def mean(self) -> float:
        return self.squares / self.df


def study(readings: Sequence[GaugeReading]) -> GaugeStudy:
    """Analyse a study; OutOfRangeError where there are too few readings to say anything."""
    if len(readings) < 2:
        raise OutOfRangeError("a gauge study needs two readings at least", field="value")
    data = _Data.of(readings)
    squares, test = data.squares()
    if not squares or squares[0].of != "repeatability":
        raise OutOfRangeError(
            "nobody read the same part twice: read every part again", field="trial"
        )
    weights = _solved(squares)
    raw: dict[Component, float] = {
        name: sum(weight * square.mean for weight, square in zip(own, squares, strict=True))
        for name, own in weights.items()
    }
    negative = tuple(name for name, value in raw.items() if value < 0)
    found: dict[Component, float] = {name: max(raw.get(name, 0.0), 0.0) for name in COMPONENTS}
    told = {*raw, *(("interaction",) if test.pooled else ())}
    unseen = tuple(name for name in COMPONENTS if name not in told)
    return GaugeStudy(
        found,
        _intervals(squares, weights),
        test,
        len(data.parts),
        len(data.operators),
        len(readings),
        data.is_balanced,
        negative,
        unseen,
        data.far_off(),
        data.means(),
    )


def _solved(squares: Sequence[_Square]) -> dict[Component, list[float]]:
    """Each component as weights of the mean squares: their expectations solved one by one."""
    weights: dict[Component, list[float]] = {}
    for number, square in enumerate(squares):
        own = [0.0] * len(squares)
        own[number] = 1.0
        for name, adds in square.adds.items():
            if name != square.of:
                own = [a - adds * b for a, b in zip(own, weights[name], strict=True)]
        weights[square.of] = [a / square.adds[square.of] for a in own]
    return weights


def _intervals(
    squares: Sequence[_Square], weights: Mapping[Component, Sequence[float]]
) -> dict[str, Interval]:
    """95 % intervals of components, of the gauge and of the whole."""
    means, df = [s.mean for s in squares], [s.df for s in squares]
    gauge = [name for name in weights if name != "part"]
    sums: dict[str, list[float]] = {str(name): list(own) for name, own in weights.items()}
    sums["grr"] = [sum(weights[name][at] for name in gauge) for at in range(len(squares))]
    sums["total"] = [sum(own[at] for own in weights.values()) for at in range(len(squares))]
    return {
        name: bounded([Combination(w, m, d) for w, m, d in zip(own, means, df, strict=True)])
        for name, own in sums.items()
    }


@dataclass(frozen=True)
class _Data:
    """Readings as columns: the number of the part and of the operator of each."""

    parts: tuple[str, ...]
    operators: tuple[str, ...]
    part: NDArray[np.intp]
    operator: NDArray[np.intp]
    value: Floats

    @classmethod
    def of(cls, readings: Sequence[GaugeReading]) -> "_Data":
        parts = list(dict.fromkeys(r.part for r in readings))
        operators = list(dict.fromkeys(r.operator for r in readings))
        return cls(
            tuple(parts),
            tuple(operators),
            np.array([parts.index(r.part) for r in readings], dtype=np.intp),
            np.array([operators.index(r.operator) for r in readings], dtype=np.intp),
            np.array([r.value for r in readings], dtype=float),
        )

    @property
    def cell(self) -> NDArray[np.intp]:
        """The number of each reading's part and operator together."""
        both = self.part * len(self.operators) + self.operator
        return np.asarray(np.unique(both, return_inverse=True)[1], dtype=np.intp)

    @property
    def is_balanced(self) -> bool:
        """Whether every operator read every part equally often."""
        counts = np.bincount(self.cell)
        whole = counts.size == len(self.parts) * len(self.operators)
        return bool(whole and np.all(counts == counts[0]))

    def columns(self, of: Component) -> Floats:
        """Indicators of a component's levels, shape (readings, levels)."""
        number = {"part": self.part, "operator": self.operator, "interaction": self.cell}[of]
        return np.eye(int(number.max()) + 1)[number]

    def squares(self) -> tuple[list[_Square], InteractionTest]:
        """Reductions from the error upwards, and whether the interaction is kept."""
        mains: list[Component] = []
        if len(self.operators) > 1:
            mains.append("operator")
        if len(self.parts) > 1:
            mains.append("part")
        within = self._within()
        between = self._reduction("interaction", mains, ["interaction"]) if len(mains) > 1 else None
        test = _test(within, between)
        has = ["interaction"] if between and not test.pooled else []
        error = _pooled(within, between) if test.pooled else within
        found = [error] if error else []
        if has and between:
            found.append(between)
        for name in mains:
            rest = [other for other in mains if other != name]
            square = self._reduction(name, rest, [name, *has])  # type: ignore[list-item]  # names
            if square and error:
                found.append(square)
        return found, test

    def _within(self) -> _Square | None:
        """Squares of readings of one part by one operator."""
        left = self.value - self._cell_means[self.cell]
        df = self.value.size - int(self.cell.max()) - 1
        if df == 0:
            return None
        return _Square("repeatability", float(left @ left), df, {"repeatability": 1.0})

    @property
    def _cell_means(self) -> Floats:
        return np.asarray(np.bincount(self.cell, self.value) / np.bincount(self.cell))

    def _reduction(
        self, of: Component, rest: Sequence[Component], with_in: Sequence[Component]
    ) -> _Square | None:
        """What a term explains beyond others, and what each component adds to its mean square."""
        before = _basis([self.columns(name) for name in rest], self.value.size)
        after = _basis([*(self.columns(name) for name in rest), self.columns(of)], self.value.size)
        df = after.shape[1] - before.shape[1]
        if df < 1:
            return None
        value = self.value - self.value[0]  # readings that are all equal have no squares at all
        squares = float(((after.T @ value) ** 2).sum() - ((before.T @ value) ** 2).sum())
        adds: dict[Component, float] = {"repeatability": 1.0}
        for name in with_in:
            levels = self.columns(name)
            adds[name] = (
                float(((after.T @ levels) ** 2).sum() - ((before.T @ levels) ** 2).sum()) / df
            )
        return _Square(of, max(squares, 0.0), df, adds)

    def means(self) -> dict[tuple[str, str], float]:
        """The mean of each part by each operator."""
        cells = zip(self.cell.tolist(), self.part.tolist(), self.operator.tolist(), strict=True)
        return {
            (self.parts[part], self.operators[operator]): float(self._cell_means[cell])
            for cell, part, operator in cells
        }

    def far_off(self) -> tuple[int, ...]:
        """Readings far from the others of their part and operator, beside how far such lie."""
        middle = np.array([np.median(self.value[self.cell == cell]) for cell in self.cell])
        left = np.abs(self.value - middle)
        usual = float(np.median(left[left > 0])) / 0.6745 if np.any(left > 0) else 0.0
        return tuple(int(at) for at in np.flatnonzero(left > _FAR_OFF * usual)) if usual else ()


def _basis(columns: Sequence[Floats], size: int) -> Floats:
    """Orthonormal columns that span the mean and these terms."""
    design = np.hstack([np.ones((size, 1)), *columns])
    left, singular, _ = np.linalg.svd(design, full_matrices=False)
    return np.asarray(left[:, singular > _RANK * singular[0]])


def _test(within: _Square | None, between: _Square | None) -> InteractionTest:
    if between is None or within is None:
        return InteractionTest(None, None, pooled=between is not None)
    if within.squares <= 0:
        return InteractionTest(None, None, pooled=between.squares <= 0)
    f = between.mean / within.mean
    p = float(fdtrc(between.df, within.df, f))
    return InteractionTest(f, p, pooled=p > KEPT_UP_TO_P)


def _pooled(within: _Square | None, between: _Square | None) -> _Square | None:
    """Error and interaction together."""
    told = [each for each in (within, between) if each is not None]
    if not told:
        return None
    squares, df = sum(each.squares for each in told), sum(each.df for each in told)
    return _Square("repeatability", squares, df, {"repeatability": 1.0})
