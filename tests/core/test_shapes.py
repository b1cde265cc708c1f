"""One law for every registered shape, whoever adds the next."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.sharpness import shapes
from kessik.core.sharpness.joint import masters


@pytest.mark.parametrize("shape", shapes.library(), ids=lambda shape: shape.name)
@given(places=st.lists(st.floats(0.0, 6.0), min_size=2, max_size=30))
def test_a_shape_starts_at_nothing_crosses_at_one_and_never_falls(shape, places):
    assert shape.rise(np.array([0.0, 1.0])) == pytest.approx([0.0, 1.0], abs=1e-9)
    assert np.all(np.diff(shape.rise(np.sort(np.array(places)))) >= -1e-9)


def test_the_library_holds_what_the_handbook_asks_for():
    names = " ".join(shape.name for shape in shapes.library())
    for family in ("power", "saturating", "early drop", "cliff", "power 1 "):
        assert family.strip() in names
    assert shapes.prior_weights().sum() == pytest.approx(1.0)


def test_kinship_is_a_probability_for_every_master():
    kin = masters().given_shared
    assert kin.sum(axis=1) == pytest.approx(np.ones(kin.shape[0]))
    assert masters().prior.sum() == pytest.approx(1)
    assert np.all(kin >= 0)
