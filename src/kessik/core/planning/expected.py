"""What a check schedule will do for a blade that lasts about so long: readings it uses, and the interval it reaches.

Foretold from `schedule_table`, which `make bench` makes by simulation on the virtual bench.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.errors import OutOfRangeError
from kessik.core.planning.schedule_table import ADAPTIVE, FIXED
from kessik.core.protocols.methods import Method

SHORTEST_LIFE, LONGEST_LIFE = 1.0, 5000.0


@dataclass(frozen=True)
class ExpectedRun:
    """One run ahead: cuts until its stop, readings on the way, and the scatter of the estimated ln life.

    Two of three such estimates fall between `low` and `high`.
    """

    life: float
    cuts: float
    readings: float
    log_sd: float

    @property
    def low(self) -> float:
        return self.life * math.exp(-self.log_sd)

    @property
    def high(self) -> float:
        return self.life * math.exp(self.log_sd)


def expected_run(method: Method, life: float) -> ExpectedRun:
    """What to expect of one run, an expectation and no promise; OutOfRangeError for a life under 1 or over 5000 cuts.

    A fixed schedule is foretold by its checks to a life, the adaptive one by the life in cuts; between the simulated
    ones along the logarithm, beyond them as at the end.
    """
    if not SHORTEST_LIFE <= life <= LONGEST_LIFE:
        raise OutOfRangeError(
            f"a life of {life:g} cuts cannot be planned for; {SHORTEST_LIFE:g} to {LONGEST_LIFE:g} can",
            field="expected_life",
            value=life,
        )
    adaptive = method.schedule == "adaptive"
    rows, at = (ADAPTIVE, life) if adaptive else (FIXED, life / method.every)
    error, readings, over = (_between(rows, at, column) for column in (1, 2, 3))
    if not adaptive and at > rows[-1][0]:
        readings *= at / rows[-1][0]
    return ExpectedRun(life, max(life * over, 1.0), max(readings, 3.0), error)


def _between(rows: Sequence[tuple[float, float, float, float]], at: float, column: int) -> float:
    places = np.log([row[0] for row in rows])
    return float(np.exp(np.interp(math.log(at), places, np.log([row[column] for row in rows]))))
