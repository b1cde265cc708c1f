"""Mass lost to corrosion: weighed before, after and cleaned, less what the cleaning itself takes.

References
----------
[1] ISO 8407, removal of corrosion products from test specimens; from memory.
[2] ISO 9227, neutral salt spray: steel reference specimens lose 70 ± 20 g/m² in 48 h; from memory.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.exposures import exposure_h, removed_clock_h
from kessik.core.corrosion.soaks import Act, Coupon, Soak
from kessik.core.errors import OutOfRangeError

MassGap = Literal["no_mass_before", "not_cleaned", "no_area", "no_density", "no_blank"]
"""What is missing for a whole result; words for it are in `core.words`."""
_BALANCE_G = 0.001
"""How much heavier a cleaned coupon may read than before: a bench balance's own scatter."""
_MM_A = 87.6
"""mg/cm² an hour over g/cm³, as mm a year: 8,760 h, 10 mm a cm, 1,000 mg a g."""
_CABINET_H = 48.0
_CABINET_G_M2 = (50.0, 90.0)  # [2]
_LIKE_HOURS = 2.0


@dataclass(frozen=True)
class MassLoss:
    """What one coupon lost: `gain_mg` with its rust on, `loss_mg` cleaned and less the blank, after
    `hours` of exposure; what cannot be said is None, and `gaps` tell why.
    """

    coupon_id: str
    hours: float
    gain_mg: float | None
    loss_mg: float | None
    loss_g_m2: float | None
    rate_mm_a: float | None
    cleanings: int
    gaps: tuple[MassGap, ...] = ()


@dataclass(frozen=True)
class CabinetCheck:
    """What a reference specimen lost in a salt spray cabinet, beside what it should [2]."""

    coupon_id: str
    loss_g_m2: float
    low_g_m2: float
    high_g_m2: float

    @property
    def is_within(self) -> bool:
        return self.low_g_m2 <= self.loss_g_m2 <= self.high_g_m2


def mass_losses(soak: Soak, acts: Sequence[Act]) -> list[MassLoss]:
    """What each coupon lost that was weighed after the start, in the order of the coupons [1]."""
    kept = sorted((act for act in acts if not act.struck), key=lambda act: act.clock_h)
    blanks = [act.amount for act in kept if act.kind == "blank" and act.amount is not None]
    blank = blanks[-1] if blanks else None
    found = []
    for coupon in soak.coupons:
        own = [a for a in kept if a.coupon_id == coupon.id and a.kind in ("weighed", "cleaned")]
        if own:
            found.append(_loss(coupon, own, kept, blank))
    return found


def _loss(
    coupon: Coupon, own: Sequence[Act], acts: Sequence[Act], blank_mg_cm2: float | None
) -> MassLoss:
    hours = exposure_h(_out_h(coupon, own, acts), acts)
    before = coupon.mass_before_g
    weighed = _last_mg(own, "weighed", before)
    cleaned = _last_mg(own, "cleaned", before)
    blank = _blank_mg(coupon, blank_mg_cm2)
    loss = None if cleaned is None else -cleaned - (blank or 0.0)
    area, density = coupon.area_cm2, coupon.density_g_cm3
    per_cm2 = None if loss is None or area is None else loss / area
    rate = None
    if per_cm2 is not None and density is not None and hours > 0:
        rate = _MM_A * per_cm2 / (density * hours)
    gaps: list[tuple[MassGap, bool]] = [
        ("no_mass_before", before is None),
        ("not_cleaned", before is not None and cleaned is None),
        ("no_area", area is None),
        ("no_density", density is None),
        ("no_blank", cleaned is not None and blank is None),
    ]
    return MassLoss(
        coupon.id,
        hours,
        weighed,
        loss,
        None if per_cm2 is None else 10 * per_cm2,
        rate,
        sum(act.kind == "cleaned" for act in own),
        tuple(gap for gap, is_so in gaps if is_so),
    )


def _out_h(coupon: Coupon, own: Sequence[Act], acts: Sequence[Act]) -> float:
    """When a coupon's exposure ended, by the clock: taken out, else first cleaned, else weighed."""
    cleaned = [act.clock_h for act in own if act.kind == "cleaned"]
    weighed_h = cleaned[0] if cleaned else own[-1].clock_h
    out_h = removed_clock_h(acts, coupon.id)
    return weighed_h if out_h is None else min(weighed_h, out_h)


def _last_mg(own: Sequence[Act], kind: str, before_g: float | None) -> float | None:
    """Mass gained by the last weighing of a kind, mg."""
    masses = [act.amount for act in own if act.kind == kind and act.amount is not None]
    return None if not masses or before_g is None else 1000 * (masses[-1] - before_g)


def _blank_mg(coupon: Coupon, blank_mg_cm2: float | None) -> float | None:
    if blank_mg_cm2 is None or coupon.area_cm2 is None:
        return None
    return blank_mg_cm2 * coupon.area_cm2


def cabinet_checks(soak: Soak, losses: Sequence[MassLoss]) -> list[CabinetCheck]:
    """Reference specimens of a neutral salt spray that were exposed for 48 h, beside [2]."""
    if soak.method.key != "salt_spray":
        return []
    references = {coupon.id for coupon in soak.coupons if coupon.role == "reference"}
    return [
        CabinetCheck(loss.coupon_id, loss.loss_g_m2, *_CABINET_G_M2)
        for loss in losses
        if loss.coupon_id in references
        and loss.loss_g_m2 is not None
        and abs(loss.hours - _CABINET_H) <= _LIKE_HOURS
    ]


def check_weighing(act: Act, coupon: Coupon | None) -> None:
    """Refuse a cleaned coupon that weighs more than before it was exposed."""
    before = coupon.mass_before_g if coupon else None
    if act.kind != "cleaned" or act.amount is None or before is None:
        return
    if act.amount > before + _BALANCE_G:
        raise OutOfRangeError(
            f"cleaned it weighs {act.amount:g} g, more than the {before:g} g before the soak:"
            " clean it again, or correct one of the two",
            field="amount",
        )
