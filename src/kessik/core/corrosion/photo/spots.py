"""Spots of rust counted in a picture, and their size where a length in it is known."""

from dataclasses import dataclass

import numpy as np
import scipy

from kessik.core.corrosion.photo.area import Maps


@dataclass(frozen=True)
class Spots:
    """How many there are; with a scale, how many on a cm² of what counts, and across how many mm
    the middle one and the largest are, as circles of their area.
    """

    count: int
    per_cm2: float | None = None
    middle_mm: float | None = None
    largest_mm: float | None = None


NO_SPOTS = Spots(0)


def spots_in(maps: Maps, threshold: float, mm_per_px: float | None) -> Spots:
    """Count the spots where a picture was measured; `mm_per_px` is of the picture's own pixels.

    Spots of 100 and 400 pixels at 0.1 mm a pixel are 1.1 and 2.3 mm across.
    """
    rust = (maps.strength > threshold) & maps.counted
    labels, count = scipy.ndimage.label(rust, np.ones((3, 3), bool))
    if count == 0 or mm_per_px is None:
        return Spots(int(count))
    worked_mm = mm_per_px * maps.view.step
    areas_mm2 = np.bincount(labels.ravel(), minlength=count + 1)[1:] * worked_mm**2
    across_mm = np.sqrt(4 * areas_mm2 / np.pi)
    side_cm2 = float(maps.counted.sum()) * worked_mm**2 / 100
    return Spots(int(count), count / side_cm2, float(np.median(across_mm)), float(across_mm.max()))
