"""A tally of readings: one look a line, its count and what was found."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import most
from kessik.core.protocols.events import INSPECTED, Outcome, Reading, Said
from kessik.core.protocols.methods import CHECK_WORDS, JUDGED, Method
from kessik.core.trials.paper.cells import number_in
from kessik.core.trials.paper.columns import number_check

READINGS = "readings"
_WORDS = {
    "pass": ("p", "pass", "passes", "passed", "yes", "y", "ok", "clean", "+"),
    "fail": ("f", "fail", "fails", "failed", "no", "n", "gone", "-"),
    "doubt": ("d", "doubt", "rough", "?"),
}
OUTCOMES = {word: outcome for outcome, words in _WORDS.items() for word in words}


def tally(text: str, method: Method) -> list[tuple[float, Said]]:
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


def _looks(lines: Sequence[str], method: Method) -> Iterator[tuple[float, Said]]:
    for place, line in enumerate(lines, 1):
        parts = [part for part in re.split(r"[\t;]+|\s+|,\s+", line.strip()) if part]
        try:
            if len(parts) < 2:
                raise OutOfRangeError(f"“{line.strip()[:40]}” needs a count and a reading")
            count = number_in(parts[0], READINGS) or 0.0
            at_mm = next((part for part in parts[2:] if part.startswith("@")), None)
            which = " ".join(part for part in parts[2:] if part is not at_mm)
            yield count, _placed(_said(parts[1], which, method), at_mm)
        except OutOfRangeError as wrong:
            raise OutOfRangeError(f"line {place}: {wrong.message}", field=READINGS) from wrong


def _placed(said: Reading | Outcome, at_mm: str | None) -> Said:
    """A look with the place it was taken at, where the line names one."""
    if at_mm is None:
        return said
    return replace(said, position_mm=number_in(at_mm.removeprefix("@"), READINGS))


def _said(found: str, which: str, method: Method) -> Reading | Outcome:
    word = found.casefold()
    judged = [check.kind for check in method.checks if check.kind in JUDGED]
    if "inspect" in judged and word in INSPECTED and word != "clean":
        return Outcome(check="inspect", outcome=word)
    if word in OUTCOMES:
        return _judged(word, which.casefold(), method, judged)
    number, check = number_in(found, READINGS), number_check(method)
    if number is None or not check:
        raise OutOfRangeError(f"“{found}” is not pass, fail or doubt")
    unit = {"force": "gf", "depth": "mm"}.get(check)
    return Reading(value=number, check=check, unit=unit)


def _judged(word: str, which: str, method: Method, judged: Sequence[str]) -> Outcome:
    outcome = OUTCOMES[word]
    if which in judged:
        check = which
    elif which:
        stages = {s.name: s.check for s in method.stages if s.limit_gf is None}
        named = [kind for kind in judged if which in CHECK_WORDS[kind] or which in kind]
        check = stages.get(which) or (named[0] if len(named) == 1 else "")
    else:
        check = judged[0] if len(judged) == 1 else ""
    if not check:
        known = " or ".join(judged) or "none: its checks are numbers"
        raise OutOfRangeError(f"say which check it was: {known}")
    if check == "inspect":
        outcome = {"pass": "clean", "fail": "glint"}.get(outcome, outcome)
    return Outcome(check=check, outcome=outcome)
