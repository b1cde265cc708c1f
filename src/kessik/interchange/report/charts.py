"""Charts of a report as SVG, in the look of the screens: paper, ink, and the marks of blades."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from xml.sax.saxutils import escape

from kessik.interchange.report.marks import mark_of

_WIDTH = 720.0
_LEFT, _RIGHT, _TOP, _FOOT = 62.0, 118.0, 18.0, 44.0
_INK, _INK_2, _LINE, _PAPER = "#16212b", "#4b5964", "#cfc3ac", "#fbf8f1"
_FONT = 'font-family="Archivo, sans-serif"'
_APART = 14.0


@dataclass(frozen=True)
class Curve:
    """A run as a chart shows it: readings (count, force, whether excluded) and its band; points of
    a blade's first edge are full, those of later ones hollow.
    """

    blade: str
    mark: int
    readings: Sequence[tuple[float, float, bool]]
    counts: Sequence[float] = ()
    middle_gf: Sequence[float] = ()
    low_gf: Sequence[float] = ()
    high_gf: Sequence[float] = ()
    is_first: bool = True


@dataclass(frozen=True)
class RungBar:
    """A life on the ladder; an end that is not known is None."""

    blade: str
    mark: int
    estimate: float | None
    low: float | None
    high: float | None
    words: str


@dataclass(frozen=True)
class _Scale:
    """A linear scale from values to places."""

    low: float
    high: float
    start: float
    end: float

    def __call__(self, value: float) -> float:
        share = (value - self.low) / ((self.high - self.low) or 1.0)
        return self.start + share * (self.end - self.start)

    def ticks(self, about: int) -> list[float]:
        """Round values from end to end."""
        step = _round_step((self.high - self.low) / about)
        first = math.ceil(self.low / step - 1e-9)
        return [step * n for n in range(first, math.floor(self.high / step + 1e-9) + 1)]


def _round_step(step: float) -> float:
    size = 10.0 ** math.floor(math.log10(step)) if step > 0 else 1.0
    return next(size * n for n in (1, 2, 5, 10) if size * n >= step * (1 - 1e-9))


def decay_chart(curves: Sequence[Curve], limits_gf: Sequence[float], unit: str) -> str:
    """Force against count, sharp above: a line that falls is an edge that dulls."""
    height = 380.0
    counts = [n for c in curves for n, _, _ in c.readings] or [1.0]
    forces = [f for c in curves for _, f, _ in c.readings] + list(limits_gf) or [1.0]
    x = _Scale(0.0, max(max(counts), 1.0) * 1.02, _LEFT, _WIDTH - _RIGHT)
    y = _Scale(min(forces) * 0.9, max(forces) * 1.06, _TOP, height - _FOOT)
    parts = [_frame_y(y, "gf"), _frame_x(x, height, unit)]
    for limit in limits_gf:
        at = y(limit)
        parts.append(
            f'<line x1="{_LEFT}" x2="{_WIDTH - _RIGHT}" y1="{at:.1f}" y2="{at:.1f}"'
            f' stroke="{_INK}" stroke-dasharray="3 3"/>'
            f"{_text(_WIDTH - _RIGHT - 4, at - 4, f'{limit:g} gf', anchor='end', size=11)}"
        )
    parts += [_curve(curve, x, y) for curve in curves]
    parts.append(_names_of_curves(curves, x, y, height))
    return _svg(_WIDTH, height, parts)


def _curve(curve: Curve, x: _Scale, y: _Scale) -> str:
    mark = mark_of(curve.mark)
    told = []
    if curve.counts:
        above = [f"{x(n):.1f},{y(f):.1f}" for n, f in zip(curve.counts, curve.low_gf, strict=True)]
        under = [f"{x(n):.1f},{y(f):.1f}" for n, f in zip(curve.counts, curve.high_gf, strict=True)]
        told.append(
            f'<polygon points="{" ".join([*above, *reversed(under)])}" fill="{mark.colour}"'
            ' fill-opacity="0.12"/>'
        )
        line = " ".join(
            f"{x(n):.1f},{y(f):.1f}" for n, f in zip(curve.counts, curve.middle_gf, strict=True)
        )
        told.append(
            f'<polyline points="{line}" fill="none" stroke="{mark.colour}" stroke-width="1.8"'
            f' stroke-dasharray="{mark.dash}"/>'
        )
    for count, force, struck in curve.readings:
        if struck:
            told.append(_text(x(count), y(force) + 4, "×", anchor="middle", colour=mark.colour))
        else:
            told.append(mark.at(x(count), y(force), 3.2, "" if curve.is_first else _PAPER))
    return "".join(told)


def _names_of_curves(curves: Sequence[Curve], x: _Scale, y: _Scale, height: float) -> str:
    """Each blade once, where its last curve ends, none on another."""
    ends: dict[str, tuple[Curve, tuple[float, float, bool]]] = {}
    for curve in curves:
        known = ends.get(curve.blade)
        if curve.readings and (known is None or curve.readings[-1] > known[1]):
            ends[curve.blade] = curve, curve.readings[-1]
    told, last = [], -math.inf
    for curve, (_count, force, _) in sorted(ends.values(), key=lambda end: end[1][1]):
        at = min(max(y(force), last + _APART), height - _FOOT)
        last = at
        mark = mark_of(curve.mark)
        left = _WIDTH - _RIGHT + 12
        told.append(mark.at(left, at, 4.0) + _text(left + 10, at + 4, curve.blade, bold=True))
    return "".join(told)


def ladder_chart(rungs: Sequence[RungBar], unit: str) -> str:
    """Lives as bars of their intervals, the longest on top."""
    row = 30.0
    height = _TOP + row * len(rungs) + _FOOT
    known = [v for r in rungs for v in (r.estimate, r.low, r.high) if v is not None] or [1.0]
    x = _Scale(0.0, max(known) * 1.05, 150.0, _WIDTH - 150.0)
    parts = [_frame_x(x, height, unit)]
    for number, rung in enumerate(rungs):
        parts.append(_rung(rung, x, _TOP + row * (number + 0.5)))
    return _svg(_WIDTH, height, parts)


def _rung(rung: RungBar, x: _Scale, at: float) -> str:
    mark = mark_of(rung.mark)
    low = x(rung.low if rung.low is not None else 0.0)
    high = x(rung.high) if rung.high is not None else x.end
    told = [mark.at(12, at, 5.0), _text(24, at + 4, rung.blade, bold=True)]
    if rung.low is not None or rung.high is not None:
        told.append(
            f'<rect x="{low:.1f}" y="{at - 7:.1f}" width="{max(high - low, 1.0):.1f}" height="14"'
            f' fill="{mark.colour}" fill-opacity="0.28"/>'
        )
    if rung.estimate is not None:
        told.append(
            f'<line x1="{x(rung.estimate):.1f}" x2="{x(rung.estimate):.1f}" y1="{at - 10:.1f}"'
            f' y2="{at + 10:.1f}" stroke="{mark.colour}" stroke-width="3"/>'
        )
    told.append(_text(x.end + 10, at + 4, rung.words, size=11, colour=_INK_2))
    return "".join(told)


def _frame_x(x: _Scale, height: float, unit: str) -> str:
    foot = height - _FOOT
    told = [f'<line x1="{x.start}" x2="{x.end}" y1="{foot}" y2="{foot}" stroke="{_INK}"/>']
    for tick in x.ticks(8):
        at = x(tick)
        told.append(
            f'<line x1="{at:.1f}" x2="{at:.1f}" y1="{_TOP}" y2="{foot}" stroke="{_LINE}"'
            ' stroke-width="0.6"/>' + _text(at, foot + 16, f"{tick:g}", anchor="middle")
        )
    told.append(_text(x.end, foot + 34, unit, anchor="end", colour=_INK_2))
    return "".join(told)


def _frame_y(y: _Scale, unit: str) -> str:
    told = []
    for tick in y.ticks(6):
        at = y(tick)
        told.append(
            f'<line x1="{_LEFT}" x2="{_WIDTH - _RIGHT}" y1="{at:.1f}" y2="{at:.1f}"'
            f' stroke="{_LINE}" stroke-width="0.6"/>'
            + _text(_LEFT - 8, at + 4, f"{tick:g}", anchor="end")
        )
    told.append(_text(8, y.start + 4, unit, colour=_INK_2))
    return "".join(told)


def _text(
    x: float,
    y: float,
    words: str,
    *,
    anchor: str = "start",
    size: float = 12,
    bold: bool = False,
    colour: str = _INK,
) -> str:
    weight = ' font-weight="700"' if bold else ""
    return (
        f'<text x="{x:.1f}" y="{y:.1f}" text-anchor="{anchor}" font-size="{size}" fill="{colour}"'
        f"{weight} {_FONT}>{escape(words)}</text>"
    )


def _svg(width: float, height: float, parts: Sequence[str]) -> str:
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {width:g} {height:g}"'
        f' width="{width:g}" height="{height:g}">'
        f'<rect width="{width:g}" height="{height:g}" fill="{_PAPER}"/>{"".join(parts)}</svg>'
    )
