"""An outline carried over from one picture of a blade to the next lies where the blade is."""

import numpy as np
import pytest
from scipy import ndimage

from kessik.core.corrosion.photo.registration import lay_over
from kessik.instruments.virtual_bench.soaked_blade import OUTLINE, SoakedSide, photograph
from kessik.interchange.masks import mask_of_outlines
from kessik.interchange.photos import decode_photo

EARLIER = decode_photo(photograph(SoakedSide(5, 1.0, mark="AV-01"))).rgb
LATER = decode_photo(photograph(SoakedSide(5, 4.0, 3.0, mark="AV-01"))).rgb


def turned(rgb, angle_deg, scale, shift):
    """A picture turned and scaled about its middle and shifted, and where its corners went."""
    angle = np.radians(angle_deg)
    turn = scale * np.array([[np.cos(angle), -np.sin(angle)], [np.sin(angle), np.cos(angle)]])
    middle = np.array(rgb.shape[1::-1]) / 2
    move = middle + np.array(shift) - turn @ middle
    back = np.linalg.inv(turn)
    offset = (-back @ move)[::-1]
    planes = [
        ndimage.affine_transform(
            rgb[..., c].astype(float), back[::-1, ::-1], offset, order=1, mode="nearest"
        )
        for c in range(3)
    ]
    return np.stack(planes, -1).astype(np.uint8), np.array(OUTLINE) @ turn.T + move


@pytest.mark.parametrize(
    ("angle", "scale", "shift"), [(0, 1, (0, 0)), (0, 1, (14, -9)), (3, 1.04, (-10, 6))]
)
def test_corners_come_to_lie_within_two_pixels(angle, scale, shift):
    picture, corners = turned(LATER, angle, scale, shift)
    mask = mask_of_outlines([OUTLINE], EARLIER.shape[1::-1])
    laid = lay_over(EARLIER, mask, picture)
    apart = np.hypot(*(np.array(laid.carried(OUTLINE)) - corners).T)
    assert apart.mean() < 2.0


def test_a_picture_of_something_else_is_not_laid_over():
    noise = np.random.default_rng(1).integers(0, 255, EARLIER.shape, np.uint8)
    mask = mask_of_outlines([OUTLINE], EARLIER.shape[1::-1])
    assert lay_over(EARLIER, mask, noise) is None
