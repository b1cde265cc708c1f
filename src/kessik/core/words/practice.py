"""The guided practice in words: what a step is about, and what its button does."""

from dataclasses import dataclass

from kessik.core.comparison.findings import Mismatch
from kessik.core.comparison.variables import BY_NAME
from kessik.core.trials.practice import CUTS_BY_HAND, EDGES_TO_PLAN, PracticeStep
from kessik.core.words.matching import what_differs
from kessik.core.words.sentences import listed


@dataclass(frozen=True)
class PracticeWords:
    """A step's heading, what it teaches, and the words of its button; no button where the tester
    does it by hand.
    """

    title: str
    says: str
    button: str = ""


def practice_words(step: PracticeStep) -> PracticeWords:
    """What a step asks, and why."""
    match step.kind:
        case "match":
            assert step.mismatch is not None
            return _match(step.mismatch)
        case "plan":
            return PracticeWords(
                "Plan the edges",
                "Two edges a blade find only large differences: the first line says how large. "
                f"Plan {EDGES_TO_PLAN}, and compare.",
                f"Plan {EDGES_TO_PLAN} edges a blade",
            )
        case "start":
            return PracticeWords(
                "Start the first run",
                f"{step.runs_left} runs are planned, and the order of the blades is drawn by lot. "
                "The virtual bench has sharpened the edges.",
                "Start the first run",
            )
        case "count":
            left = CUTS_BY_HAND - step.count
            return PracticeWords(
                "Count a dozen cuts",
                f"Press Space for every cut, {left:g} to go. When a reading is asked, press R: the"
                " virtual tester reads the edge.",
            )
        case "rest":
            return PracticeWords(
                "Cut the rest",
                f"{step.runs_left} runs are to be cut to the end. The virtual bench cuts and reads"
                " as you did.",
                "Cut the rest and read the verdict",
            )
        case "verdict":
            return PracticeWords("Read the verdict", "")


def truth_words(lives: dict[str, float], unit: str) -> str:
    """What the virtual blades were made to last, beside which a tester holds the answer."""
    longest, *others = sorted(lives.items(), key=lambda each: -each[1])
    shown = listed([f"{code} {life:.0f}" for code, life in others])
    percent = 100 * (longest[1] / others[0][1] - 1)
    return (
        f"On a usual edge the virtual bench made {longest[0]} to last {longest[1]:.0f} {unit}, and "
        f"{shown}: {percent:.0f} % longer. Is that inside the interval of the answer?"
    )


def _match(found: Mismatch) -> PracticeWords:
    variable = BY_NAME[found.variable]
    against = f" as {found.against}" if found.against else ""
    return PracticeWords(
        "Match the blades",
        f"{found.blade}: {what_differs(found)}. The result would be about the {variable.label}, not"
        " about the steel.",
        f"Sharpen {found.blade} again, with the same {variable.label}{against}",
    )
