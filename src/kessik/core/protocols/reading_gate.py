"""When a line of an instrument is a reading: stable, in range, and new."""

from dataclasses import dataclass
from typing import Literal

Answer = Literal["taken", "moving", "held", "at_rest", "out_of_range", "garbled"]

REST_SHARE = 0.2
"""Below this share of the last reading the line is let go again."""
SILENCE_S = 0.5
"""An instrument that said nothing for so long shows a reading of its own with its next
stable line."""


@dataclass(frozen=True)
class ReadingGate:
    """What the gate remembers: the reading that is still shown, and when the last line came (s)."""

    held: float | None = None
    last_s: float = float("-inf")


def pass_line(
    gate: ReadingGate,
    standing: str,
    value: float | None,
    at_s: float,
    range_low: float,
    range_high: float,
) -> tuple[ReadingGate, Answer]:
    """Judge one line of an instrument that says `stable`, `moving` or `garbled`; value and range in
    its unit.

    One pull gives one reading, however often its stable value is repeated: a new one follows
    movement, rest or half a second of silence.
    """
    held = None if at_s - gate.last_s >= SILENCE_S else gate.held
    if standing == "garbled" or value is None:
        return ReadingGate(held, at_s), "garbled"
    if standing == "moving":
        return ReadingGate(None, at_s), "moving"
    if held is not None and value < REST_SHARE * held:
        return ReadingGate(None, at_s), "at_rest"
    if held is not None:
        return ReadingGate(held, at_s), "held"
    if value == 0:
        return ReadingGate(None, at_s), "at_rest"
    if not range_low <= value <= range_high:
        return ReadingGate(value, at_s), "out_of_range"
    return ReadingGate(value, at_s), "taken"
