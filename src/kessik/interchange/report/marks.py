"""A blade's mark as the screens draw it: shape, line pattern and colour, legible in grey."""

import math
from dataclasses import dataclass

_COLOURS = (
    "#1c4f8a", "#9a5f06", "#2a6f52", "#7b3f8f", "#1f717a", "#5a5147", "#3f4fae", "#8a3d62",
)  # fmt: skip  # one list of colours
_DASHES = ("", "9 4", "2 3.5", "12 4 2 4", "6 3", "14 3 3 3 3 3", "1 5", "4 7")
_BAR = 0.42
_CROSS = (
    (-_BAR, -1), (_BAR, -1), (_BAR, -_BAR), (1, -_BAR), (1, _BAR), (_BAR, _BAR),
    (_BAR, 1), (-_BAR, 1), (-_BAR, _BAR), (-1, _BAR), (-1, -_BAR), (-_BAR, -_BAR),
)  # fmt: skip  # corners, around


def _polygon(sides: int, turn: float, size: float) -> tuple[tuple[float, float], ...]:
    angles = [math.radians(turn + 360.0 * at / sides) for at in range(sides)]
    return tuple((size * math.cos(angle), size * math.sin(angle)) for angle in angles)


_OUTLINES: tuple[tuple[tuple[float, float], ...], ...] = (
    (), _polygon(3, -90, 1.2), _polygon(4, 45, 1.18), _polygon(4, 0, 1.22), _polygon(3, 90, 1.2),
    _polygon(6, 0, 1.1), _CROSS, _polygon(5, -90, 1.15),
)  # fmt: skip  # the first is a circle


@dataclass(frozen=True)
class BladeMark:
    """Colour and dashes of a blade's line, and the outline of its points; none is a circle."""

    colour: str
    dash: str
    outline: tuple[tuple[float, float], ...]

    def at(self, x: float, y: float, size: float, fill: str = "") -> str:
        """The mark as SVG around a point."""
        look = f'fill="{fill or self.colour}" stroke="{self.colour}" stroke-width="1.2"'
        if not self.outline:
            return f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{size:.1f}" {look}/>'
        corners = " ".join(f"{x + size * a:.1f},{y + size * b:.1f}" for a, b in self.outline)
        return f'<polygon points="{corners}" {look}/>'


def mark_of(number: int) -> BladeMark:
    """The mark of a blade by its number; each run of eight keeps shape, line and colour apart."""
    shape, turn = number % len(_OUTLINES), number // len(_OUTLINES)
    return BladeMark(
        _COLOURS[(shape + turn) % len(_COLOURS)],
        _DASHES[(shape + 3 * turn) % len(_DASHES)],
        _OUTLINES[shape],
    )
