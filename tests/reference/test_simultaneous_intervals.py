"""The level of pairwise intervals against SciPy's studentized range, with many degrees of freedom
(Tukey).
"""

import numpy as np
import pytest
from scipy import stats

from kessik.core.comparison.ratios import pair_level


@pytest.mark.parametrize("blades", [3, 4, 6])
@pytest.mark.parametrize("level", [0.90, 0.95])
def test_pair_level_is_tukeys(blades, level):
    width = stats.studentized_range.ppf(level, blades, 1e6)
    assert pair_level(blades, level) == pytest.approx(
        2 * stats.norm.cdf(width / np.sqrt(2)) - 1, abs=2e-4
    )


def test_two_blades_need_no_correction():
    assert pair_level(2, 0.95) == 0.95
