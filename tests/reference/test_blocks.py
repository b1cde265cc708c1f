"""Blocks against a mixed model on balanced data (statsmodels MixedLM)."""

import math

import numpy as np
import pandas
import pytest
import statsmodels.formula.api

from kessik.core.comparison.lives import BladeEdges, Bracket, solve
from kessik.core.comparison.ratios import all_ratios


def test_balanced_blocks_agree_with_a_mixed_model():
    # Two blades in six blocks, and a block's level as a random effect.
    rng = np.random.default_rng(5)
    levels, blocks = rng.normal(0.0, 0.3, 6), range(6)
    logs = {
        code: np.log(100.0) + shift + levels + rng.normal(0.0, 0.03, 6)
        for code, shift in (("A", 0.0), ("B", np.log(1.2)))
    }
    table = pandas.DataFrame(
        [
            {"log_life": log, "blade": code, "block": block}
            for code, own in logs.items()
            for block, log in zip(blocks, own, strict=True)
        ]
    )
    model = statsmodels.formula.api.mixedlm("log_life ~ blade", table, groups=table["block"])
    fitted = model.fit()
    edges = {
        code: tuple((Bracket(math.exp(log) * 0.999, math.exp(log) * 1.001),) for log in own)
        for code, own in logs.items()
    }
    (ratio,) = all_ratios(solve([BladeEdges(c, own, tuple(blocks)) for c, own in edges.items()]))
    assert math.log(ratio.at_95.estimate) == pytest.approx(fitted.params["blade[T.B]"], abs=0.004)
    assert ratio.log_sd == pytest.approx(fitted.bse["blade[T.B]"], rel=0.35)
