"""The verdict on a claim: consistent, undecidable or excluded; never that a steel *is* it."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.composition.candidates import Candidate, candidates
from kessik.core.composition.coatings import Suspicion, coating_suspicion
from kessik.core.composition.elements import visibility
from kessik.core.composition.fit import fits
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade
from kessik.core.composition.means import Outlier, outliers
from kessik.core.composition.separation import NEVER_APART, SELDOM_APART
from kessik.core.composition.settling import AS_WELL, Settling, settlings
from kessik.core.composition.shot_summary import ShotSummary, held
from kessik.core.composition.shots import Shot
from kessik.core.composition.steels import Steel, steels

ClaimVerdict = Literal["consistent", "undecidable", "excluded", "no_claim", "not_shot"]
NEAREST = 8
_ALWAYS_SAID = ("C", "N", "B", "O")


@dataclass(frozen=True)
class Assay:
    """What the shots of one blade say of its steel, and of the claim made for it.

    `rivals` are the other steels still in that fit as well as the claimed one, or that the analyser
    never separates from it; `not_separable` those among them that it seldom or never can.
    """

    verdict: ClaimVerdict
    claim: Grade | None
    blade: ShotSummary
    outliers: tuple[Outlier, ...]
    candidates: tuple[Candidate, ...]
    rivals: tuple[Steel, ...]
    not_separable: tuple[Grade, ...]
    not_seen: tuple[str, ...]
    grades_tried: int
    suspicion: Suspicion | None = None
    settlings: tuple[Settling, ...] = ()

    @property
    def own(self) -> Candidate | None:
        """The claim as a candidate."""
        return next((c for c in self.candidates if self.claim and c.grade == self.claim), None)

    @property
    def own_names(self) -> tuple[Candidate, ...]:
        """The claim and what other standards call the same steel."""
        return tuple(c for c in self.candidates if c.is_same_steel)

    @property
    def still_in(self) -> tuple[Candidate, ...]:
        return tuple(candidate for candidate in self.candidates if candidate.is_in)

    @property
    def steels_in(self) -> list[Steel]:
        """The steels that are still in, each once however many standards name it."""
        return steels(self.still_in, self.claim)


def judge(
    shots: Sequence[Shot], claim: Grade | None, shelf: GradeShelf, nearest: int | None = NEAREST
) -> Assay:
    """Judge the claim for one blade; without a claim the shelf is searched all the same."""
    return judge_all([(shots, claim)], shelf, nearest)[0]


def judge_all(
    blades: Sequence[tuple[Sequence[Shot], Grade | None]],
    shelf: GradeShelf,
    nearest: int | None = NEAREST,
) -> list[Assay]:
    """Judge many blades at once against one shelf; of the grades that are out, only the `nearest`
    are told, all of them for None.
    """
    read = [held(shots, shelf.table.elements, shelf.calibration) for shots, _ in blades]
    found = fits(shelf.table, [r.against_grades for r in read], [r.normalised for r in read])
    return [
        _assay(
            blade,
            claim,
            candidates(blade, found, row, claim, shelf, nearest) if blade.counted else [],
            shelf,
        )
        for row, (blade, (_, claim)) in enumerate(zip(read, blades, strict=True))
    ]


def _assay(
    blade: ShotSummary, claim: Grade | None, found: Sequence[Candidate], shelf: GradeShelf
) -> Assay:
    rivals = _rivals(found, claim)
    suspicion = coating_suspicion(blade.means, found)
    is_bare = all(shot.surface == "bare" for shot in blade.counted)
    verdict = _verdict(found, claim, rivals, suspicion is not None and not is_bare)
    never = (c.grade for rival in rivals for c in rival.members if c.overlap >= SELDOM_APART)
    asks = claim is not None and verdict == "undecidable" and suspicion is None
    return Assay(
        verdict,
        claim,
        blade,
        outliers(blade.counted),
        tuple(found),
        tuple(rivals),
        tuple(never),
        _not_seen(claim, blade),
        len(shelf.table.grades),
        suspicion,
        settlings(blade, claim, rivals, shelf) if claim and asks else (),
    )


def _rivals(found: Sequence[Candidate], claim: Grade | None) -> list[Steel]:
    """The other steels that fit as well as the claimed one, or never look different from it."""
    if claim is None:
        return []
    best = max((c.weight for c in found if c.is_same_steel), default=0.0)
    fitting = [
        c
        for c in found
        if not c.is_same_steel
        and ((c.is_in and best > 0 and c.weight >= AS_WELL * best) or c.overlap >= NEVER_APART)
    ]
    return steels(fitting, claim)


def _verdict(
    found: Sequence[Candidate],
    claim: Grade | None,
    rivals: Sequence[Steel],
    may_be_coated: bool,
) -> ClaimVerdict:
    if not found:
        return "not_shot"
    if claim is None:
        return "no_claim"
    meets = [c for c in found if c.is_same_steel and c.is_in]
    if may_be_coated:
        return "undecidable"
    if not meets:
        return "excluded"
    return "undecidable" if rivals or all(c.close for c in meets) else "consistent"


def _not_seen(claim: Grade | None, blade: ShotSummary) -> tuple[str, ...]:
    """What the analyser cannot see, the claim's own elements first."""
    own = [r.element for r in claim.ranges] if claim else []
    unseen = [symbol for symbol in (*own, *_ALWAYS_SAID) if visibility(symbol) == "not_seen"]
    return tuple(s for s in dict.fromkeys(unseen) if s not in blade.read_otherwise)
