"""Edge angles."""

from kessik.core.errors import OutOfRangeError


def included_angle_deg(side_angle_deg: float, other_side_angle_deg: float | None = None) -> float:
    """Included angle in degrees: both sides together; twice the side angle of a symmetric edge.

    Raises OutOfRangeError unless each side is above 0 and below 90 degrees.
    """
    sides = (side_angle_deg, side_angle_deg if other_side_angle_deg is None else other_side_angle_deg)
    for side in sides:
        if not 0.0 < side < 90.0:
            raise OutOfRangeError(
                f"angle per side is {side:g}°; it must lie between 0° and 90°", field="side_angle_deg", value=side
            )
    return sum(sides)
