"""What one run showed: its lives by stage, and the plain figures beside them."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from kessik.core.comparison.findings import Oddity, WhyLeftOut
from kessik.core.protocols.series import RunSeries
from kessik.core.sharpness.life import RunLife


@dataclass(frozen=True)
class RunResult:
    """One run: its lives by stage and the plain figures beside them."""

    run: RunSeries
    lives: Mapping[str, RunLife]
    start_gf: float | None
    end_gf: float | None
    change_percent: float | None
    warnings: tuple[Oddity, ...] = ()
    start_readings: int = 0
    left_out: WhyLeftOut | None = None
    figures: Mapping[str, float] = field(default_factory=dict)
