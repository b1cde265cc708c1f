"""Stand-in for an edge-force tester: while the line is pulled it shows rising values, then one
stable reading.
"""

import time
from dataclasses import dataclass, field

import numpy as np

from kessik.instruments.stand_ins.transport import Line
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester

_RAMP = (0.35, 0.7, 0.93)


@dataclass
class EdgeForceStandIn:
    """Speaks lines like `ST +0212.0 gf` (stable) and `US +0148.0 gf` (still moving).

    `drift_percent` moves every reading; `garbage_share` of pulls send a broken line first, and
    `lost_share` hang up in the middle and show nothing. All draws come from `rng`.
    """

    line: Line
    rng: np.random.Generator
    tester: SimulatedTester = field(default_factory=SimulatedTester)
    drift_percent: float = 0.0
    garbage_share: float = 0.0
    lost_share: float = 0.0
    pause_s: float = 0.02

    def pull(self, true_gf: float) -> float | None:
        """Pull the test line over an edge of a true force in gf; returns the reading shown, None
        where it was lost.
        """
        reading = self.tester.read_gf(true_gf * (1 + self.drift_percent / 100), self.rng)
        return self.show(reading)

    def show(self, reading_gf: float) -> float | None:
        """Show a reading as a pull does, from the first movement to the stable value."""
        if self.rng.random() < self.garbage_share:
            self.line.say("S\x00+0#1?.g")
        for share in _RAMP:
            self.line.say(f"US {share * reading_gf:+07.1f} gf")
            time.sleep(self.pause_s)
        if self.rng.random() < self.lost_share:
            self.line.hang_up()
            return None
        self.line.say(f"ST {reading_gf:+07.1f} gf")
        return reading_gf
