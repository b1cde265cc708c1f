"""Grading again without names: the sides of a round in an order that tells nothing."""

import hashlib
from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.corrosion.rounds import Round
from kessik.core.corrosion.soaks import Look
from kessik.core.errors import NotAllowedNowError, OutOfRangeError


@dataclass(frozen=True)
class BlindPlace:
    """One side to grade again: its number in the pass, the look it was seen in before, and whether
    it was graded in this pass.
    """

    number: int
    look: Look
    is_done: bool


def round_to_grade(
    pass_id: str, rounds: Sequence[Round], looks: Sequence[Look]
) -> Round | None:  # fmt: skip
    """The round that a pass is about: the one it began with, else the last; None without any."""
    own = {look.id for look in looks if look.blind == pass_id}
    begun = (each for each in rounds if own & each.look_ids)
    return next(begun, rounds[-1] if rounds else None)


def blind_pass(
    pass_id: str, found: Round | None, looks: Sequence[Look], hour: float
) -> tuple[BlindPlace, ...]:
    """The sides of a round, whole and with an area, each once, shuffled by the id of the pass; at
    an hour of exposure past the round only those with a picture, as a side has changed since.

    NotAllowedNowError where fewer than two were seen: one side is known again.
    """
    first: dict[tuple[str, str, str], Look] = {}
    done: set[tuple[str, str, str]] = set()
    for look in sorted(looks, key=lambda each: (each.clock_h, each.id)):
        place = (look.coupon_id, look.side, look.stage)
        if found is None or look.struck or look.region or look.id not in found.look_ids:
            continue
        if look.blind == pass_id:
            done.add(place)
        elif _can_be_graded(look, found, hour):
            kept = first.get(place)
            first[place] = look if kept is None or (look.picture and not kept.picture) else kept
    if len(first) < 2:
        raise NotAllowedNowError(
            "grading again needs two sides whose rust was read in this round, or their pictures",
            field="round",
        )
    shuffled = sorted(first, key=lambda place: _drawn(pass_id, place))
    return tuple(
        BlindPlace(number, first[place], place in done) for number, place in enumerate(shuffled, 1)
    )


def _can_be_graded(look: Look, found: Round, hour: float) -> bool:
    is_there = bool(look.picture) or found.holds_hour(hour)
    return is_there and not look.blind and look.rust_high is not None


def _drawn(pass_id: str, place: tuple[str, str, str]) -> str:
    """Where a side comes in a pass: the same after a reload, and telling nothing."""
    return hashlib.sha256("|".join((pass_id, *place)).encode()).hexdigest()


def place_of(places: Sequence[BlindPlace], number: int) -> BlindPlace:
    """The side with a number; OutOfRangeError where the pass has none."""
    if not 1 <= number <= len(places):
        raise OutOfRangeError(
            f"there is no number {number} in this pass: give 1 to {len(places)}",
            field="number",
            value=number,
        )
    return places[number - 1]
