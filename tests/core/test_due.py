"""What waits is said as one tester would say it to another."""

import pytest

from kessik.core.due import (
    HardnessNotMeasured,
    LoanToReturn,
    PlannedWork,
    ShotsToUse,
    SoakDeed,
    WorkAhead,
)
from kessik.core.words.due import due_words

SHOTS = tuple((f"AV-0{n}", n) for n in range(1, 7))
WORK = PlannedWork("2026-05-04", "verify", ("A", "B"), "Raft", 2)


@pytest.mark.parametrize(
    ("what", "said"),
    [
        (LoanToReturn("AV-03", "Corran Forge", -1), "Return AV-03 to Corran Forge, 1 day overdue"),
        (LoanToReturn("AV-03", "", 0), "Return AV-03, today"),
        (HardnessNotMeasured("AV-03", None), "Hardness of AV-03 is not known"),
        (
            HardnessNotMeasured("AV-03", "claimed"),
            "Hardness of AV-03 is only claimed by the maker",
        ),
        (ShotsToUse((("AV-01", 1),)), "1 unused shot of AV-01"),
        (ShotsToUse(SHOTS), "21 unused shots of AV-01, AV-02, AV-03, AV-04 and 2 more"),
        (WorkAhead(WORK, 1), "Cut again A, B: Raft, block 2, tomorrow"),
        (SoakDeed("Salt pack", "look", -0.5), "Salt pack: inspect, due since 30 min"),
    ],
)
def test_what_waits(what, said):
    assert due_words(what) == said
