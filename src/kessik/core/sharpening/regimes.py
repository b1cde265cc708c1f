"""Regimes: the ordered steps of a sharpening, what they end on, and how an edge departs from its
recipe.
"""

from collections.abc import Sequence
from dataclasses import dataclass, fields
from typing import Annotated

from kessik.core.errors import OutOfRangeError
from kessik.core.facts import QUANTITIES, check_value
from kessik.core.limits import LIMITS
from kessik.core.records import LongText, Within


@dataclass(frozen=True)
class Step:
    """One step: abrasive with its grain size (µm) and grit name, angle and strokes per side,
    pressure, repeats.
    """

    abrasive: str
    kind: str = ""
    size_um: float | None = None
    grit: str = ""
    side_angle_deg: float | None = None
    strokes_per_side: Annotated[int, Within("strokes_per_side")] | None = None
    pressure: str = ""
    note: LongText = ""
    repeats: Annotated[int, Within("step_repeats")] = 1

    def words(self) -> str:
        size = f", {self.size_um:g} µm" if self.size_um is not None else ""
        grit = f" ({self.grit})" if self.grit else ""
        angle = f" at {self.side_angle_deg:g}°" if self.side_angle_deg is not None else ""
        strokes = (
            f", {self.strokes_per_side} strokes a side" if self.strokes_per_side is not None else ""
        )
        again = f", {self.repeats} times" if self.repeats > 1 else ""
        return f"{self.abrasive}{size}{grit}{angle}{strokes}{again}"


_LABELS = {
    "abrasive": "abrasive", "kind": "kind", "size_um": "size in µm", "grit": "grit",
    "repeats": "times done",
    "side_angle_deg": "angle per side", "strokes_per_side": "strokes a side",
    "pressure": "pressure", "note": "note",
}  # fmt: skip  # a table is read by its rows


_LIMIT_OF = {
    "size_um": "abrasive_um",
    "strokes_per_side": "strokes_per_side",
    "repeats": "step_repeats",
}


def check_steps(steps: Sequence[Step]) -> None:
    """Refuse a nameless abrasive, an impossible angle or size, negative strokes; the field names
    the step.
    """
    for number, step in enumerate(steps):
        place = f"steps.{number}."
        if not step.abrasive.strip():
            raise OutOfRangeError(
                f"step {number + 1} does not name its abrasive", field=f"{place}abrasive"
            )
        for name, limit in _LIMIT_OF.items():
            value = getattr(step, name)
            if value is not None and not LIMITS[limit].holds(value):
                message = f"step {number + 1}: {LIMITS[limit].says(f'{value:g}')}"
                raise OutOfRangeError(message, field=f"{place}{name}", value=value)
        if step.side_angle_deg is not None:
            try:
                check_value(QUANTITIES["side_angle_deg"], step.side_angle_deg)
            except OutOfRangeError as refused:
                message = f"step {number + 1}: {refused.message}"
                raise OutOfRangeError(
                    message, field=f"{place}side_angle_deg", value=step.side_angle_deg
                ) from refused


def final_abrasive(steps: Sequence[Step]) -> tuple[float | None, str]:
    """Size in µm and kind of the last step; (None, "") where there are no steps."""
    if not steps:
        return None, ""
    return steps[-1].size_um, steps[-1].kind or steps[-1].abrasive


def total_strokes_per_side(steps: Sequence[Step]) -> int:
    """Strokes a side over all steps and their repeats; steps without a number count none."""
    return sum((step.strokes_per_side or 0) * step.repeats for step in steps)


def departures(recipe: Sequence[Step], done: Sequence[Step]) -> list[str]:
    """How the steps done differ from the recipe, in words; empty where they do not."""
    said = []
    for number, (wanted, made) in enumerate(zip(recipe, done, strict=False), 1):
        for field in fields(Step):
            before, after = getattr(wanted, field.name), getattr(made, field.name)
            if before != after:
                said.append(
                    f"step {number}: {_LABELS[field.name]} {_said(after)} instead of"
                    f" {_said(before)}"
                )
    said.extend(
        f"step {n} left out: {step.words()}"
        for n, step in enumerate(recipe[len(done) :], len(done) + 1)
    )
    said.extend(
        f"step {n} added: {step.words()}"
        for n, step in enumerate(done[len(recipe) :], len(recipe) + 1)
    )
    return said


def _said(value: object) -> str:
    if value is None or value == "":
        return "nothing"
    return f"{value:g}" if isinstance(value, float) else str(value)
