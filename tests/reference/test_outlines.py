"""The blade's outline in generated pictures of whole knives whose outline is known exactly. The
generator shares nothing with the proposal.
"""

import contextlib
from dataclasses import replace

import numpy as np
import pytest
from benchmarks.outline_pictures import Knife, take

from kessik.core.corrosion.photo.outline import likeness, outline_between, propose_outline
from kessik.core.errors import OutOfRangeError
from kessik.interchange.masks import mask_of_outlines

RUSTED = Knife(31, "drop", "brown wood", "wooden table", 8, warmth=0.6)


def found(taken, outline):
    return likeness(mask_of_outlines([outline], taken.rgb.shape[1::-1]), taken.mask)


@pytest.mark.parametrize(
    "knife",
    [
        RUSTED,
        Knife(32, "clip", "black", "paper", -6, rusted=0.08),
        Knife(33, "kitchen", "tan", "grey cloth", 184, has_guard=True),
        replace(RUSTED, has_handle=False, blade_px=900),
    ],
)
def test_the_blade_is_outlined_without_its_handle(knife):
    taken = take(knife)
    proposed = propose_outline(taken.rgb)
    assert proposed.unsure == ()
    assert found(taken, proposed.outline) > 0.95


@pytest.mark.parametrize(
    "knife",
    [Knife(34, "spear", "steel", "dark mat", 176), Knife(35, "drop", "bone", "stone", width=0.22)],
)
def test_where_it_is_unsure_it_asks_and_two_presses_settle_it(knife):
    taken = take(knife)
    assert propose_outline(taken.rgb).unsure
    assert found(taken, outline_between(taken.rgb, taken.plunge, taken.tip)) > 0.9


@pytest.mark.parametrize(("high", "wide", "half"), [(24, 32, 4), (100, 1200, 2), (60, 3000, 12)])
def test_a_picture_that_is_too_thin_for_an_outline_gets_none(high, wide, half):
    thin = np.full((high, wide, 3), 60, np.uint8)
    thin[high // 2 - half : high // 2 + half, wide // 8 : -wide // 8] = 200
    proposed = propose_outline(thin)
    assert proposed is None or len(proposed.outline) >= 3
    for tip in ((wide - 5, high / 2), (wide / 2, high - 2)):
        with contextlib.suppress(OutOfRangeError):
            assert len(outline_between(thin, (wide / 8, high / 2), tip)) >= 3


def test_a_bare_ground_has_no_blade_and_two_presses_on_one_place_are_refused():
    ground = np.full((300, 400, 3), 120, np.uint8)
    assert propose_outline(ground) is None
    with pytest.raises(OutOfRangeError, match="plunge line and on the tip"):
        outline_between(ground, (200, 150), (203, 150))


def test_two_alike_pieces_in_one_picture_are_asked_for():
    one = take(replace(RUSTED, has_handle=False, blade_px=700)).rgb
    proposed = propose_outline(np.concatenate([one, one]))
    assert proposed is not None
    assert "two_alike" in proposed.unsure
