"""A trial made of a proposed cut: two blades side by side, by a method that is in use."""

from collections.abc import Sequence
from dataclasses import replace

from kessik.core.moments import Moment
from kessik.core.shelf.blades import split_arm_id
from kessik.core.trials.trial import Plan, Trial
from kessik.services.reading.trials import get_trial
from kessik.services.shelf.blades import get_blade
from kessik.services.trials.trials import make_trial, take_from_shelf
from kessik.store.database import Database


def trial_of_cut(
    db: Database,
    trial_id: str,
    arms: Sequence[str],
    edges_per_blade: int,
    like_trial_id: str,
    question: str,
    now: Moment,
) -> Trial:
    """Make the trial with its blades on the line-up; the same id twice makes one.

    UnknownError where a blade or the trial it follows is not there, NotAllowedNowError where a
    blade is archived.
    """
    wanted: dict[str, list[str]] = {}
    for arm in arms:
        blade_id, preparation = split_arm_id(arm)
        wanted.setdefault(blade_id, [])
        if preparation:
            wanted[blade_id].append(preparation)
    with db.read() as session:
        like = get_trial(session, like_trial_id)
        codes = [get_blade(session, blade_id).code for blade_id in wanted]
    made = make_trial(
        db,
        replace(
            like,
            id=trial_id,
            name=" beside ".join(codes),
            question=question,
            created=now,
            method_id="",
            method_number=1,
            plan=Plan(),
            edges_per_blade=edges_per_blade,
            source="bench",
            blind_seed=None,
            unblinded_utc=None,
            cautions_seen_utc=None,
        ),
    )
    for blade_id, preparations in wanted.items():
        several = preparations if len(preparations) > 1 else None
        take_from_shelf(db, trial_id, blade_id, "", several)
    return made
