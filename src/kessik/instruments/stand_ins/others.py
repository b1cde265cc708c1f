"""Stand-ins for the other devices: Rockwell tester and pedal on a line, camera and analyser by
their folders.
"""

from collections.abc import Mapping
from pathlib import Path

import numpy as np
from PIL import Image

from kessik.instruments.stand_ins.transport import Line


class RockwellStandIn:
    """Shows a hardness with the scatter of a bench tester, 0.3 HRC (common practice, no source)."""

    def __init__(self, line: Line, rng: np.random.Generator, offset_hrc: float = 0.0) -> None:
        self._line, self._rng, self._offset_hrc = line, rng, offset_hrc

    def press(self, true_hrc: float) -> float:
        """Press once; returns the hardness shown, HRC."""
        shown = round(true_hrc + self._offset_hrc + float(self._rng.normal(0.0, 0.3)), 1)
        self._line.say(f"ST {shown:+05.1f} HRC")
        return shown


class PedalStandIn:
    """Sends a line when it is pressed and one when it is let go."""

    def __init__(self, line: Line) -> None:
        self._line = line

    def press(self) -> None:
        self._line.say("DOWN")
        self._line.say("UP")


def take_picture(folder: Path, name: str, shade: int = 120) -> Path:
    """A camera's picture, written as a camera does: under another name first."""
    picture = Image.new("RGB", (320, 60), (shade, shade, shade))
    picture.putpixel((200, 30), (255, 240, 200))
    partial = folder / f"{name}.part"
    picture.save(partial, "PNG")
    return partial.rename(folder / name)


def write_shot(folder: Path, blade: str, shot: str, percents: Mapping[str, float]) -> Path:
    """An analyser's result file for one shot, mass per cent by element."""
    rows = [
        f"{blade},{shot},{element},{percent:.3f},{0.02 * percent:.3f}"
        for element, percent in percents.items()
    ]
    path = folder / f"{blade}-{shot}.shots.csv"
    path.write_text(
        "\n".join(["blade,shot,element,percent,plus_minus", *rows, ""]), encoding="utf-8"
    )
    return path
