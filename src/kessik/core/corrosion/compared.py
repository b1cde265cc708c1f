"""What of a soak can be compared: one round and one stage that the coupons share, side by side."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.course import Point
from kessik.core.corrosion.methods import CouponSide, InspectionStage
from kessik.core.corrosion.rounds import Round, are_alike
from kessik.core.corrosion.soaks import Coupon

_STAYS_MOST: tuple[InspectionStage, ...] = ("wiped", "scoured", "rinsed", "as_found")
"""What stays is corrosion: the stages that are judged, the first that all share."""
Unlike = Literal["not_in_round", "not_in_stage", "not_looked_at"]


@dataclass(frozen=True)
class LikeLooks:
    """The areas that are compared, by coupon: all of one round and stage, of the same sides where a
    coupon has two. `unlike` says of each other coupon why it is left out, with the last hour it was
    seen at; `later_h` is the last hour of what was seen since, which is not compared.
    """

    stage: InspectionStage | None
    round_h: float = 0.0
    points: Mapping[str, tuple[Point, ...]] | None = None
    unlike: tuple[tuple[str, Unlike, float], ...] = ()
    sides_dropped: tuple[tuple[str, CouponSide], ...] = ()
    later_h: float | None = None

    @property
    def by_coupon(self) -> Mapping[str, tuple[Point, ...]]:
        return self.points or {}


def like_looks(
    coupons: Sequence[Coupon], points: Mapping[str, Sequence[Point]], rounds: Sequence[Round]
) -> LikeLooks:
    """The last round that every coupon with an area shares, in the stage that tells most of what
    stays; where none has all of them, the round with the most, the last of those.
    """
    seen = {coupon_id: found for coupon_id, found in points.items() if found}
    shared = [
        (_in(seen, each, stage), rank, each, stage)
        for rank, stage in enumerate(_STAYS_MOST)
        for each in rounds
    ]
    tried = [one for one in shared if one[0]]
    if not tried:
        return LikeLooks(None)
    found, _, began, stage = max(tried, key=lambda one: (len(one[0]), -one[1], one[2].from_h))
    kept, dropped = _same_sides(coupons, found)
    unlike = [_why(c.id, seen.get(c.id, ()), began) for c in coupons if c.id not in kept]
    since = [p.hours for own in seen.values() for p in own if p.round_h > began.from_h]
    return LikeLooks(
        stage, began.from_h, kept, tuple(unlike), dropped, max(since, default=None)
    )  # fmt: skip


def _in(
    seen: Mapping[str, Sequence[Point]], began: Round, stage: InspectionStage
) -> dict[str, tuple[Point, ...]]:
    """The points of a round and stage, by coupon; those taken out count where their hours are
    alike.
    """
    own = {
        coupon_id: tuple(
            p
            for p in found
            if p.stage == stage and p.round_h == began.from_h and are_alike(p.hours, began.from_h)
        )
        for coupon_id, found in seen.items()
    }
    return {coupon_id: found for coupon_id, found in own.items() if found}


def _same_sides(
    coupons: Sequence[Coupon], found: Mapping[str, tuple[Point, ...]]
) -> tuple[dict[str, tuple[Point, ...]], tuple[tuple[str, CouponSide], ...]]:
    """Of coupons with two sides those sides that all of them show, where there is one."""
    whole = [c.id for c in coupons if c.side == "both" and c.id in found]
    shown = [{p.side for p in found[coupon_id]} for coupon_id in whole]
    common = set.intersection(*shown) if shown else set()
    if not common:
        return dict(found), ()
    kept = {
        coupon_id: tuple(p for p in own if coupon_id not in whole or p.side in common)
        for coupon_id, own in found.items()
    }
    dropped = tuple(
        dict.fromkeys((i, p.side) for i in whole for p in found[i] if p.side not in common)
    )
    return kept, dropped


def _why(
    coupon_id: str, own: Sequence[Point], began: Round
) -> tuple[str, Unlike, float]:  # fmt: skip
    if not own:
        return coupon_id, "not_looked_at", 0.0
    is_in_round = any(p.round_h == began.from_h for p in own)
    return coupon_id, "not_in_stage" if is_in_round else "not_in_round", own[-1].hours
