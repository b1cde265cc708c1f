"""A blade cut out of its picture, in linear light, small enough to work on."""

from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.corrosion.photo.colour import LIGHT_OF_CODE, Array
from kessik.core.errors import OutOfRangeError

Bools = NDArray[np.bool_]
WORK_PX = 1600
"""About how many pixels along the blade are worked on: more tell nothing more of its area."""
LEAST_MASK_PX = 400
_AROUND_PX = 14
"""What is looked at around the blade, in worked pixels."""
_RIM_PX = 2
"""The outer pixels of a blade are part background; they take the colour of the nearest inside."""


@dataclass(frozen=True)
class View:
    """The blade alone: `light` of shape (h, w, 3), white at 1; `mask` where it is steel to be
    judged; `raw` the light as it is, outside of the blade, too; `step` picture pixels a pixel,
    `corner` (x, y) of the cut in the picture; `burnt_share` of the blade blinded the camera.
    """

    light: Array
    raw: Array
    mask: Bools
    step: int
    corner: tuple[int, int]
    burnt_share: float

    @property
    def shape(self) -> tuple[int, int]:
        return self.mask.shape[0], self.mask.shape[1]


def cut_out(
    rgb: NDArray[np.uint8],
    mask: Bools,
    white: tuple[float, float, float],
    work_px: int = WORK_PX,
) -> View:
    """The blade under `mask` in a picture of shape (h, w, 3), sRGB; `white` is the linear light of
    the card, `work_px` about how many pixels along the blade are worked on. OutOfRangeError where
    the mask is empty, too small or not of the picture's size.
    """
    if mask.shape != rgb.shape[:2]:
        raise OutOfRangeError(
            f"the mask has {mask.shape[1]} × {mask.shape[0]} pixels, the picture"
            f" {rgb.shape[1]} × {rgb.shape[0]}; draw it on this picture",
            field="mask",
        )
    rows, columns = np.flatnonzero(mask.any(axis=1)), np.flatnonzero(mask.any(axis=0))
    if rows.size == 0 or int(mask.sum()) < LEAST_MASK_PX:
        raise OutOfRangeError(
            "hardly any of the blade lies in the mask; draw it around the blade, at least"
            f" {LEAST_MASK_PX} pixels of it",
            field="mask",
        )
    along = max(int(rows[-1] - rows[0]), int(columns[-1] - columns[0])) + 1
    step = max(1, round(along / work_px))
    top, left = (max(0, int(first[0]) - _AROUND_PX * step) for first in (rows, columns))
    height = min(int(rows[-1]) + 1 + _AROUND_PX * step, mask.shape[0]) - top
    width = min(int(columns[-1]) + 1 + _AROUND_PX * step, mask.shape[1]) - left
    cut = (slice(top, top + height), slice(left, left + width))
    inside = reduced(mask[cut].astype(np.float32), step) > 0.5
    if not inside.any():
        raise OutOfRangeError("the mask is too thin to measure in", field="mask")
    part = rgb[cut]
    channels = [reduced(LIGHT_OF_CODE[part[..., c]], step) / white[c] for c in range(3)]
    burnt = float((part[mask[cut]] >= 254).all(axis=-1).mean())
    raw = np.stack(channels, axis=-1).astype(np.float32)
    return View(_without_rim(raw, inside), raw, inside, step, (left, top), burnt)


def reduced_like(view: View, mask: Bools) -> Bools:
    """Another mask of the whole picture, as the view sees it."""
    left, top = view.corner
    height, width = view.shape
    cut = mask[top : top + height * view.step, left : left + width * view.step]
    return reduced(cut.astype(np.float32), view.step)[:height, :width] > 0.5


def reduced(plane: Array, step: int) -> Array:
    """Means of blocks of step × step pixels; what hangs over is repeated from the border."""
    if step == 1:
        return np.ascontiguousarray(plane, np.float32)
    height, width = plane.shape
    over = ((0, -height % step), (0, -width % step))
    padded = np.pad(plane, over, mode="edge")
    blocks = padded.reshape(padded.shape[0] // step, step, padded.shape[1] // step, step)
    return np.asarray(blocks.mean(axis=(1, 3), dtype=np.float32))


def _without_rim(light: Array, inside: Bools) -> Array:
    """Outside and the outer pixels take the nearest colour from well inside."""
    core = scipy.ndimage.binary_erosion(inside, iterations=_RIM_PX, border_value=0)
    if not core.any():
        core = inside
    nearest = scipy.ndimage.distance_transform_edt(
        ~core, return_distances=False, return_indices=True
    )
    return np.asarray(light[nearest[0], nearest[1]])
