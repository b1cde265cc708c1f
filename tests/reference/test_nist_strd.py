"""Curve constants against NIST StRD nonlinear regression (public domain): certified values and
standard deviations.

Tolerances: 1e-6 relative on values and 1e-5 on standard deviations, from both certified starting
points; the Jacobian is by central differences, which leaves about eight sound digits of a standard
deviation.
"""

import re
from pathlib import Path

import numpy as np
import pytest

from kessik.core.sharpness.textbook import FORMS, curve_constants, least_squares_constants

FOLDER = Path(__file__).parent / "nist_strd"

MODELS = {
    "Misra1a": lambda x, b: b[0] * -np.expm1(-b[1] * x),
    "Misra1d": lambda x, b: b[0] * b[1] * x / (1 + b[1] * x),
    "BoxBOD": lambda x, b: b[0] * -np.expm1(-b[1] * x),
    "DanWood": lambda x, b: b[0] * x ** b[1],
    "Bennett5": lambda x, b: b[0] * (b[1] + x) ** (-1 / b[2]),
    "Chwirut2": lambda x, b: np.exp(-b[0] * x) / (b[1] + b[2] * x),
}


def certified(name):
    """Columns y, x after 60 header lines; per parameter two starts, the value and its standard
    deviation.
    """
    lines = (FOLDER / f"{name}.dat").read_text().splitlines()
    rows = [
        re.findall(r"[-+]?\d[\d.]*(?:E[-+]?\d+)?", line.split("=")[1])
        for line in lines[40:50]
        if re.match(r"\s+b\d", line)
    ]
    y, x = np.array([[float(n) for n in line.split()] for line in lines[60:] if line.strip()]).T
    return x, y, np.array(rows, dtype=float)


@pytest.mark.filterwarnings(
    "ignore::RuntimeWarning"
)  # far starting points overflow on their way in
@pytest.mark.parametrize("start", [0, 1])
@pytest.mark.parametrize("name", MODELS)
def test_values_and_standard_deviations(name, start):
    x, y, rows = certified(name)
    found = least_squares_constants(MODELS[name], x, y, rows[:, start])
    assert found.values == pytest.approx(rows[:, 2], rel=1e-6)
    assert found.standard_deviations == pytest.approx(rows[:, 3], rel=1e-5)


@pytest.mark.parametrize("form", FORMS)
def test_every_form_gives_back_its_own_constants(form):
    counts = np.arange(1.0, 31.0)
    truth = {
        "linear": [150, 8],
        "power": [150, 30, 0.6],
        "saturating": [150, 300, 0.06],
        "logarithmic": [150, 80, 0.5],
    }
    force = FORMS[form].model(counts, np.array(truth[form], dtype=float))
    assert curve_constants(form, counts, force).values == pytest.approx(truth[form], rel=1e-4)
