"""Toughness: energies by hand and by SciPy's own integral, and what cannot be a value."""

import math

import numpy as np
import pytest
import scipy

from kessik.core.errors import OutOfRangeError
from kessik.core.shelf.toughness import (
    Toughness,
    check_toughness,
    energy_of_curve,
    pendulum_energy,
)
from kessik.core.words.toughness import beside_words, got_by_words, joules_words


def test_a_straight_curve_is_its_triangle_and_a_pendulum_its_height():
    """By hand: ½ · 1000 N · 2 mm = 1 J; 20 kg · 9.80665 m/s² · 0.1 m = 19.61 J, less 0.3 J."""
    path = np.linspace(0, 2, 201)
    found = energy_of_curve(path, 500 * path)
    assert found.joules == pytest.approx(1.0)
    assert (found.low_j, found.high_j) == pytest.approx((0.986, 1.014), abs=1e-3)
    swung = pendulum_energy(20, 1500, 1400, 1, 0.3)
    assert swung.joules == pytest.approx(19.313, abs=1e-3)
    assert swung.high_j - swung.joules == pytest.approx(20 * 9.80665e-3 * math.sqrt(2), abs=1e-4)


def test_a_bent_curve_is_its_integral_and_few_points_leave_more_open():
    """Against scipy.integrate.quad of the same function."""

    def force(x):
        return 900 * math.sin(1.4 * x)

    true_j = scipy.integrate.quad(force, 0, 1.6)[0] / 1000
    widths = []
    for count in (9, 33, 400):
        path = np.linspace(0, 1.6, count)
        found = energy_of_curve(path, [force(x) for x in path])
        assert found.low_j <= true_j <= found.high_j
        widths.append(found.high_j - found.low_j)
    assert widths == sorted(widths, reverse=True)


@pytest.mark.parametrize(
    ("path", "force"),
    [([0, 1, 2], [0, 5, 0]), ([0, 1, 0.2, 1, 2], [0, 1, 2, 3, 4]), ([1] * 6, [5] * 6),
     ([0, 1, 2, 3, 4], [0, -1, -2, -3, -4])],
)  # fmt: skip
def test_a_curve_that_cannot_be_is_refused(path, force):
    with pytest.raises(OutOfRangeError):
        energy_of_curve(path, force)


@pytest.mark.parametrize(
    ("said", "field"),
    [({"joules": 0}, "joules"), ({"joules": 5000}, "joules"), ({"low_j": 30}, "low_j"),
     ({"high_j": 3}, "high_j"), ({"specimen": " "}, "specimen"),
     ({"standing": "literature"}, "source"), ({"grade": "1.2842"}, "grade"),
     ({"blade_id": ""}, "grade")],
)  # fmt: skip
def test_a_value_that_says_too_little_is_refused_at_its_field(said, field):
    sound = {"blade_id": "blade-0001", "joules": 12, "specimen": "10 x 10 x 55 mm"}
    check_toughness(Toughness("t", **sound))
    with pytest.raises(OutOfRangeError) as wrong:
        check_toughness(Toughness("t", **{**sound, **said}))
    assert wrong.value.field == field


def test_only_values_of_one_test_and_specimen_stand_beside_each_other():
    own = Toughness("a", "blade-0001", test="charpy_plain", joules=24.0, low_j=22, high_j=26,
                    specimen="10 x 10 x 55 mm", orientation="along", hardness_hrc=60)  # fmt: skip
    same = Toughness("b", grade="1.2379", test="charpy_plain", joules=11,
                     specimen="10 X 10 x 55 mm", orientation="along", hardness_hrc=61)  # fmt: skip
    other = Toughness("c", grade="1.2842", test="charpy_v", joules=9, specimen="10 x 10 x 55 mm")
    assert joules_words(own) == "24 J (22 to 26)"
    assert (
        got_by_words(own) == "Charpy, without a notch, 10 x 10 x 55 mm, along the rolling, 60 HRC"
    )
    assert beside_words([own], [("1.2379", same), ("1.2842", other)]) == [
        "Beside it, Charpy, without a notch on the same specimen: 1.2379 11 J at 61 HRC."
    ]
