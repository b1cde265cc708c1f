"""The few numbers of spread that several estimates share."""

import math

Z_95 = 1.959964
"""Standard deviations to either side of the middle that hold 95 % of a normal distribution."""
READING_SCATTER = 0.07
"""Standard deviation of ln force of one reading of an edge: common practice, no source."""


def flat_sd(width: float) -> float:
    """The standard deviation of a value that may lie anywhere in a bracket of a width: its width
    over root 12.
    """
    return width / math.sqrt(12.0)
