"""Steel that goes when a bevel is ground to another angle.

Behind the edge a blade is taken as a slab as thick as it is there. At a lower angle the apex stays
and the bevel grows up the blade; at a higher one the shoulder stays and the apex goes back. Both
take half the thickness times the difference of the bevel's heights, for each mm of edge. A worked
example: 0.4 mm from 52 to 40 degrees in all: heights of 0.410 and 0.549 mm, 0.028 mm2; over 96 mm
of edge 2.7 mm3. By geometry; no source needed.
"""

import math
from dataclasses import dataclass


@dataclass(frozen=True)
class Reangling:
    """What re-angling takes: steel for each mm of edge, mm2, how far the apex goes back, mm, and
    how many usual sharpenings that makes, None where it is not known what one takes.
    """

    steel_mm2: float
    apex_back_mm: float
    sharpenings: float | None


def reangling(
    thickness_mm: float, from_side_deg: float, to_side_deg: float, usual_steel_mm: float | None
) -> Reangling:
    """Steel from one angle a side to another; `usual_steel_mm` is what a sharpening takes off the
    height.
    """
    before, after = _height(thickness_mm, from_side_deg), _height(thickness_mm, to_side_deg)
    steel = 0.5 * thickness_mm * abs(after - before)
    usual = thickness_mm * usual_steel_mm if usual_steel_mm else None
    return Reangling(steel, max(before - after, 0.0), steel / usual if usual else None)


def _height(thickness_mm: float, side_deg: float) -> float:
    return thickness_mm / (2.0 * math.tan(math.radians(side_deg)))
