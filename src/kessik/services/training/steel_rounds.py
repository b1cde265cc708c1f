"""Rounds that name a steel: a blade as an analyser reads it, sold as what it is or is not."""

from functools import cache

import numpy as np

from kessik.core.comparison.findings import ClaimStanding
from kessik.core.composition.claims import Assay, judge_all
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade
from kessik.core.composition.library import library
from kessik.core.composition.shots import Shot
from kessik.core.training.rounds import SteelRound
from kessik.core.trials.claims import claimed_of
from kessik.instruments.stand_ins.analyser import AnalyserStandIn
from kessik.instruments.virtual_bench.melts import melt_of

_SHOWN = ("C", "Cr", "Mo", "V", "W", "Ni", "Co", "Mn", "Cu")
_WANTED: tuple[ClaimStanding, ...] = ("consistent", "undecidable", "excluded")
_DRAWS = 40


def steel_round(rng: np.random.Generator) -> SteelRound:
    """A blade whose readings say of its claim what was drawn: it fits alone, with a twin, or not
    at all. After forty draws the last stands with what its readings say.
    """
    wanted = _WANTED[int(rng.integers(len(_WANTED)))]
    for _ in range(_DRAWS):
        made = _drawn(rng, wanted)
        if made.standing == wanted:
            break
    return made


@cache
def _shelf() -> GradeShelf:
    return GradeShelf.of(library(()))


def _drawn(rng: np.random.Generator, wanted: ClaimStanding) -> SteelRound:
    shelf = _shelf()
    grades = [g for g in shelf.table.grades if g.range_of("C") and g.range_of("Cr")]
    claim = grades[int(rng.integers(len(grades)))]
    truly = claim
    if wanted == "excluded":
        truly = grades[int(rng.integers(len(grades)))]
    shot = AnalyserStandIn(rng).shoot(melt_of(truly, rng), Shot("shot", "blade", "1", ()))
    (assay,) = judge_all([([shot], claim)], shelf)
    return _told(claim, truly, shot, assay)


def _told(claim: Grade, truly: Grade, shot: Shot, assay: Assay) -> SteelRound:
    found = claimed_of(assay, is_away=False)
    shown = {r.element: r for r in shot.readings if r.detected and r.element in _SHOWN}
    ranges = [(symbol, claim.range_of(symbol)) for symbol in _SHOWN]
    return SteelRound(
        claim.name,
        tuple(
            (symbol, shown[symbol].percent, shown[symbol].plus_minus_percent or 0.0)
            for symbol in _SHOWN
            if symbol in shown
        ),
        tuple(
            (symbol, own.low_percent, own.high_percent) for symbol, own in ranges if own is not None
        ),
        found.standing if found else "undecidable",
        truly.name,
        found.fitting[:4] if found else (),
    )
