"""A tally of readings: one look a line, its count and what was found."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import most
from kessik.core.protocols.checks import CheckKind
from kessik.core.protocols.events import Outcome, Payload, Reading
from kessik.core.protocols.methods import Method
from kessik.core.trials.paper.cells import number_in

READINGS = "readings"
_WORDS = {
    "pass": ("p", "pass", "passes", "passed", "yes", "y", "ok", "clean", "+"),
    "fail": ("f", "fail", "fails", "failed", "no", "n", "gone", "-"),
    "doubt": ("d", "doubt", "rough", "?"),
}
OUTCOMES = {word: outcome for outcome, words in _WORDS.items() for word in words}


def tally(text: str, method: Method) -> list[tuple[float, Payload]]:
    """The looks of a tally in their order: count, then a number or pass, fail, doubt, then the
    check or stage where the method has several; `@12` names the place, mm from the heel.

    OutOfRangeError names the line that cannot be.
    """
    lines = [line for line in text.splitlines() if line.strip()]
    if len(lines) > most("file_rows"):
        raise OutOfRangeError("this is too long for one run", field=READINGS)
    found = list(_looks(lines, method))
    for place, ((before, _), (after, _)) in enumerate(pairwise(found), 2):
        if after < before:
            raise OutOfRangeError(
                f"line {place}: the count {after:g} stands after {before:g}; counts do not fall",
                field=READINGS,
            )
    return found


def _looks(lines: Sequence[str], method: Method) -> Iterator[tuple[float, Payload]]:
    for place, line in enumerate(lines, 1):
        parts = [part for part in re.split(r"[\t;]+|\s+|,\s+", line.strip()) if part]
        try:
            if len(parts) < 2:
                raise OutOfRangeError(f"“{line.strip()[:40]}” needs a count and a reading")
            count = number_in(parts[0], READINGS) or 0.0
            at_mm = next((part for part in parts[2:] if part.startswith("@")), None)
            words = [part for part in parts[1:] if part is not at_mm]
            yield count, _placed(_look(words, method), at_mm)
        except OutOfRangeError as wrong:
            raise OutOfRangeError(f"line {place}: {wrong.message}", field=READINGS) from wrong


def _placed(said: Reading | Outcome, at_mm: str | None) -> Payload:
    """A look with the place it was taken at, where the line names one."""
    if at_mm is None:
        return said
    return replace(said, position_mm=number_in(at_mm.removeprefix("@"), READINGS))


def outcome_in(text: str, row: CheckKind) -> str | None:
    """What a word says of a check, as its log has it: a grade by its name or its place, else pass,
    fail or doubt; None where it says nothing.
    """
    word = " ".join(text.split()).casefold()
    for place, each in enumerate(row.outcomes, 1):
        if word == each.key.casefold() or (row.result == "scale" and word == str(place)):
            return each.key
    if row.result == "scale":
        return None
    outcome = OUTCOMES.get(word)
    if row.result == "damage" and outcome is not None:
        return {"pass": "clean", "fail": "glint"}.get(outcome, outcome)
    return outcome


def or_list(words: Sequence[str]) -> str:
    """Words to choose among: `pass, fail or doubt`."""
    return f"{', '.join(words[:-1])} or {words[-1]}"


def _look(parts: Sequence[str], method: Method) -> Reading | Outcome:
    """What the words after a count say: what was found, then of which check or stage."""
    for end in range(len(parts), 0, -1):  # a grade may have several words
        found, which = " ".join(parts[:end]), " ".join(parts[end:]).casefold()
        known = [row for row in method.rows if row.is_judged and outcome_in(found, row)]
        if known:
            row = _meant(known, which, method)
            return Outcome(check=row.key, outcome=outcome_in(found, row) or "")
    numbers = [row for row in method.rows if not row.is_judged]
    found, which = parts[0], " ".join(parts[1:]).casefold()
    number = number_in(found, READINGS)
    if number is None or not numbers:
        raise OutOfRangeError(f"“{found}” is not pass, fail or doubt")
    row = next((row for row in numbers if which and which in row.name.casefold()), numbers[0])
    return Reading(value=number, check=row.key, unit=row.unit or None)


def _meant(known: Sequence[CheckKind], which: str, method: Method) -> CheckKind:
    """The check that a line speaks of, among those that its word fits."""
    judged = [row for row in method.rows if row.is_judged]
    if which:
        stages = {s.name: s.check for s in method.stages if s.limit_gf is None}
        exact = [row for row in judged if which in (row.key.casefold(), row.name.casefold())]
        named = [row for row in judged if which in row.name.casefold() or which in row.key]
        fits = exact or [r for r in judged if r.key == stages.get(which)] or named
    else:
        fits = list(known)
    if len(fits) != 1:
        raise OutOfRangeError(f"say which check it was: {' or '.join(r.key for r in judged)}")
    return fits[0]
