"""An analyser's shot of a reference alloy, in words."""

from collections.abc import Sequence

from kessik.core.composition.reference_alloy import AlloyFinding, ReferenceShot
from kessik.core.words.matching import and_words


def alloy_words(shot: ReferenceShot, found: Sequence[AlloyFinding]) -> str:
    """Whether the analyser reads the alloy as its certificate has it."""
    off = [each for each in found if each.state == "off"]
    doubtful = [each for each in found if each.state == "doubtful"]
    read = [each for each in found if each.read_percent is not None]
    if not read:
        return f"Nothing of {shot.alloy} that its certificate tells was read."
    if off:
        return (
            f"On {shot.alloy} the analyser reads {_reads(off)}: more than its errors explain. Find"
            " out why before trusting this batch."
        )
    if doubtful:
        return f"On {shot.alloy} the analyser reads {_reads(doubtful)}: shoot the alloy again."
    elements = and_words([each.element for each in read])
    return f"On {shot.alloy} the analyser reads {elements} as certified."


def _reads(found: Sequence[AlloyFinding]) -> str:
    return and_words(
        [
            f"{each.element} {each.read_percent or 0.0:.3g} % for {each.certified_percent:g} %"
            for each in found
        ]
    )
