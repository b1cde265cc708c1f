"""What the shots of blades say, from one snapshot of what is stored."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from kessik.core.comparison.findings import Claimed
from kessik.core.composition.batches import Batch
from kessik.core.composition.claims import Assay, judge_all
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade, find_grade
from kessik.core.composition.reference_alloy import ReferenceShot
from kessik.core.composition.shots import Shot
from kessik.core.shelf.blades import Blade
from kessik.core.trials.claims import claimed_of
from kessik.services.assays.batches import get_batch
from kessik.services.reading.grades import grade_shelf
from kessik.services.shelf.blades import get_blade
from kessik.store.database import Database, Session
from kessik.store.queries import assays, shelf


@dataclass(frozen=True)
class AssayedBlade:
    """A blade with its shots, and what they say; `unknown_claim` where no grade with a composition
    bears the name it is sold under. `alloys` are what the analyser read of reference alloys before
    the batches that its shots are of.
    """

    blade: Blade
    shots: tuple[Shot, ...]
    assay: Assay
    unknown_claim: str = ""
    alloys: tuple[ReferenceShot, ...] = ()


@dataclass(frozen=True)
class AssayPlace:
    """All of the place: batches, blades in them or with shots, and grades."""

    batches: tuple[Batch, ...]
    blades: tuple[AssayedBlade, ...]
    shelf: GradeShelf


def assay_place(db: Database) -> AssayPlace:
    """Every batch, and every blade that is in one or has shots."""
    with db.read() as session:
        batches = assays.all_batches(session)
        shots = assays.shots_by_blade(session)
        wanted = {blade_id for batch in batches for blade_id in batch.blade_ids} | set(shots)
        blades = [blade for blade in shelf.all_blades(session) if blade.id in wanted]
        ready = grade_shelf(session)
    return AssayPlace(tuple(batches), tuple(judged(blades, shots, ready)), ready)


def assayed_blade(
    db: Database, blade_id: str, *, corrected: bool = True
) -> tuple[AssayedBlade, GradeShelf]:
    """One blade with what its shots say, and the grades they were held against; readings of a
    normalised file stand as they are where they are not to be `corrected`.
    """
    with db.read() as session:
        blade = get_blade(session, blade_id)
        shots = assays.shots_by_blade(session, [blade_id])
        batches = assays.all_batches(session)
        ready = grade_shelf(session)
    if not corrected:
        as_they_are = [replace(s, normalised="no") for s in shots.get(blade_id, ())]
        shots = {blade_id: as_they_are}
    (found,) = judged([blade], shots, ready)
    return replace(found, alloys=_alloys(found, batches)), ready


def _alloys(found: AssayedBlade, batches: Sequence[Batch]) -> tuple[ReferenceShot, ...]:
    own = {shot.batch_id for shot in found.shots if not shot.struck}
    return tuple(b.reference for b in batches if b.id in own and b.reference is not None)


def assayed_batch(db: Database, batch_id: str) -> tuple[Batch, list[AssayedBlade]]:
    """A batch with its blades in their order."""
    batch, blades, _ = batch_to_hand_over(db, batch_id)
    return batch, blades


def batch_to_hand_over(db: Database, batch_id: str) -> tuple[Batch, list[AssayedBlade], GradeShelf]:
    """A batch with its blades in their order, and the grades they were held against."""
    with db.read() as session:
        batch = get_batch(session, batch_id)
        shots = assays.shots_by_blade(session, batch.blade_ids)
        blades = [get_blade(session, blade_id) for blade_id in batch.blade_ids]
        ready = grade_shelf(session)
    return batch, judged(blades, shots, ready), ready


def assays_of(session: Session, blade_ids: Sequence[str]) -> dict[str, AssayedBlade]:
    """What the shots of these blades say, by the id of the blade."""
    shots = assays.shots_by_blade(session, blade_ids)
    blades = [get_blade(session, blade_id) for blade_id in blade_ids]
    return {each.blade.id: each for each in judged(blades, shots, grade_shelf(session))}


def claims_of(session: Session, blade_ids: Sequence[str]) -> dict[str, Claimed]:
    """What matching needs to know of the claims for these blades; only those that were shot, or are
    away to be, are among them.
    """
    ids = list(dict.fromkeys(blade_ids))
    away = {i for batch in assays.all_batches(session) if batch.is_away for i in batch.blade_ids}
    shot = assays.shots_by_blade(session, ids)
    wanted = [i for i in ids if i in away or i in shot]
    if not wanted:
        return {}
    found = assays_of(session, wanted)
    claims = {i: claimed_of(each.assay, is_away=i in away) for i, each in found.items()}
    return {i: claim for i, claim in claims.items() if claim is not None}


def judged(
    blades: Iterable[Blade], shots: dict[str, list[Shot]], ready: GradeShelf
) -> list[AssayedBlade]:
    """Judge every blade by its shots against the claim that is made for it."""
    every = list(blades)
    claims = [_claim(blade, ready) for blade in every]
    asked = [(shots.get(b.id, []), claim) for b, claim in zip(every, claims, strict=True)]
    return [
        AssayedBlade(
            blade,
            tuple(own),
            found,
            blade.claimed_grade or "" if claim is None and blade.claimed_grade else "",
        )
        for blade, claim, (own, _), found in zip(
            every, claims, asked, judge_all(asked, ready), strict=True
        )
    ]


def _claim(blade: Blade, ready: GradeShelf) -> Grade | None:
    found = find_grade(blade.claimed_grade or "", ready.grades)
    return found if found and found.ranges else None
