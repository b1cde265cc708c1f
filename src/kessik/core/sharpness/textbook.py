"""Curve constants for those who publish a formula: ordinary least squares of the textbook forms.

A description beside the estimate, never its source.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.errors import OutOfRangeError

Floats = NDArray[np.float64]
Model = Callable[[Floats, Floats], Floats]


@dataclass(frozen=True)
class Form:
    """A textbook form F(n; parameters) in gf over the count, with a starting guess from the
    readings.
    """

    formula: str
    parameters: tuple[str, ...]
    model: Model
    guess: Callable[[Floats, Floats], Sequence[float]]


@dataclass(frozen=True)
class Constants:
    """Least-squares parameters with their standard deviations, and the residual standard
    deviation.
    """

    values: Floats
    standard_deviations: Floats
    residual_sd: float


def _rise(counts: Floats, force: Floats) -> float:
    return max(float(force[-1] - force[0]), 1.0)


FORMS: dict[str, Form] = {
    "linear": Form(
        "F = F0 + a n",
        ("F0", "a"),
        lambda n, p: p[0] + p[1] * n,
        lambda n, f: (f[0], _rise(n, f) / max(n[-1], 1.0)),
    ),
    "power": Form(
        "F = F0 + a n^b",
        ("F0", "a", "b"),
        lambda n, p: p[0] + p[1] * np.power(n, p[2], where=n > 0, out=np.zeros_like(n)),
        lambda n, f: (f[0], _rise(n, f) / max(n[-1], 1.0) ** 0.6, 0.6),
    ),
    "saturating": Form(
        "F = F0 + a (1 - exp(-b n))",
        ("F0", "a", "b"),
        lambda n, p: p[0] - p[1] * np.expm1(-p[2] * n),
        lambda n, f: (f[0], 1.5 * _rise(n, f), 1.0 / max(n[-1], 1.0)),
    ),
    "logarithmic": Form(
        "F = F0 + a ln(1 + b n)",
        ("F0", "a", "b"),
        lambda n, p: p[0] + p[1] * np.log1p(np.maximum(p[2] * n, -0.999999)),
        lambda n, f: (f[0], 0.5 * _rise(n, f), 5.0 / max(n[-1], 1.0)),
    ),
}


def curve_constants(form: str, counts: Floats, force_gf: Floats) -> Constants:
    """Constants of a registered form for one run; OutOfRangeError where readings are too few for
    it.

    References
    ----------
    [1] NIST/SEMATECH e-Handbook of Statistical Methods, 4.1.4.2: nonlinear least squares.
    """
    chosen = FORMS[form]
    if counts.size <= len(chosen.parameters):
        raise OutOfRangeError(
            f"{chosen.formula} has {len(chosen.parameters)} constants and needs more readings than"
            f" {counts.size}",
            field="readings",
            value=int(counts.size),
        )
    return least_squares_constants(chosen.model, counts, force_gf, chosen.guess(counts, force_gf))


_WAYS: tuple[Literal["lm", "trf", "dogbox"], ...] = ("lm", "trf", "dogbox")


def _descend(
    residuals: Callable[[Floats], Floats],
    jacobian: Callable[[Floats], Floats],
    first: Floats,
    way: Literal["lm", "trf", "dogbox"],
) -> Floats:
    """One descent, restarted from where it ended until it stays there; from far off, not every way
    arrives.
    """
    tight = {"ftol": 1e-15, "xtol": 1e-15, "gtol": 1e-15, "max_nfev": 4000}
    point = first
    for _ in range(6):
        found = scipy.optimize.least_squares(
            residuals, point, jac=jacobian, x_scale="jac", method=way, **tight
        ).x
        if np.allclose(found, point, rtol=1e-13, atol=0):
            break
        point = found
    return np.asarray(point)


def least_squares_constants(
    model: Model, x: Floats, y: Floats, start: Sequence[float]
) -> Constants:
    """Ordinary least squares of y = model(x, p): parameters and standard deviations.

    Parameters are scaled by the columns of the Jacobian and the covariance comes from a QR of the
    scaled columns: a plain pseudo-inverse loses the digits where parameters are of very unlike
    size.
    """

    def residuals(p: Floats) -> Floats:
        return np.asarray(model(x, p) - y)

    def jacobian(p: Floats) -> Floats:
        columns = []
        for index in range(p.size):
            step = 1e-6 * max(abs(p[index]), 1e-12)
            high, low = p.copy(), p.copy()
            high[index] += step
            low[index] -= step
            columns.append((model(x, high) - model(x, low)) / (high[index] - low[index]))
        return np.stack(columns, axis=1)

    first = np.asarray(start, dtype=float)
    point = min(
        (_descend(residuals, jacobian, first, way) for way in _WAYS),
        key=lambda p: float(np.sum(residuals(p) ** 2)),
    )
    scale = np.linalg.norm(jacobian(point), axis=0)
    upper = np.linalg.qr(jacobian(point) / scale, mode="r")
    freedom = x.size - point.size
    residual_sd = float(np.sqrt(np.sum(residuals(point) ** 2) / freedom))
    inverse = np.linalg.solve(upper, np.eye(point.size))
    return Constants(
        point, np.asarray(residual_sd * np.linalg.norm(inverse, axis=1) / scale), residual_sd
    )
