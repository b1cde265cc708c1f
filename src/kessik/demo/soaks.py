"""The soaks of the scenario: a salt pack with a tie, 5 % brine, a damp wrap that goes on with and
without oil, and a coating trial; with simulated photographs.
"""

from collections.abc import Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Any

from kessik.core.corrosion.measuring import Measuring
from kessik.core.corrosion.methods import BY_KEY, CouponSide, InspectionStage
from kessik.core.corrosion.ratings import area_of
from kessik.core.corrosion.soaks import Act, ActKind, Coupon, Look, Soak
from kessik.core.moments import Moment
from kessik.demo.cutting import demo_id
from kessik.demo.days import Days
from kessik.instruments.virtual_bench.soaked_blade import (
    OUTLINE,
    WHITE_POINT,
    SoakedSide,
    photograph,
)
from kessik.interchange.named_files import NamedFile
from kessik.services.soaks.pictures import add_pictures
from kessik.services.soaks.soaks import make_soak, put_act, put_look, start_soak
from kessik.store.database import Database

SALT_PACK_ID = demo_id("soak", "salt pack")
DAMP_WRAP_ID = demo_id("soak", "damp wrap")
COATINGS_ID = demo_id("soak", "coatings")
BRINE_ID = demo_id("soak", "brine")
_MARK_AT = ((238.0, 106.0), (346.0, 106.0), (346.0, 144.0), (238.0, 144.0))
_WEIGHINGS: tuple[tuple[ActKind, float, float], ...] = (("weighed", 15, 0.4), ("cleaned", 16, 1.0))
"""When a strip was weighed, and how much of its loss was off it by then."""
_SIDES: tuple[CouponSide, ...] = ("left", "right")
_FLATS: dict[str, Any] = {"flat_finish": "satin, 320", "degreased_with": "alcohol"}


@dataclass(frozen=True)
class _Seen:
    """What a look of the demo shows: areas that bit in and that wipe off, per cent."""

    coupon: Coupon
    side: CouponSide
    stage: InspectionStage
    hours: float
    bit: float
    bloom: float = 0.0
    stain: float = 0.0
    is_photo: bool = False


_SALT_PACK = {
    "AV-01": ((1.3, 1.0), (2.6, 2.2)),
    "AV-02": ((0.8, 1.2), (1.9, 1.4)),
    "AV-03": ((9.5, 7.4), (8.0, 9.0)),
    "AV-06": ((4.6, 6.0), (6.5, 5.0)),
    "AV-04": ((24.0, 29.0), (14.0, 10.0)),
}
"""Rust that bit in and rust that wiped off, left and right."""


def build_soaks(db: Database, days: Days) -> None:
    """Four soaks; the damp wrap began so long ago that its two-day round is due."""
    _salt_pack(db, days)
    _brine(db, days)
    _damp_wrap(db, days)
    _coatings(db, days)


def _salt_pack(db: Database, days: Days) -> None:
    coupons = tuple(_coupon("salt pack", code, role=_role(code)) for code in _SALT_PACK)
    method = replace(BY_KEY["salt_pack"], look_h=(4.0, 12.0))
    soak = Soak(
        SALT_PACK_ID, "Salt pack overnight",
        "Do the two stainless blades rust less under wet salt than what the crews could be sold?",
        "steel", method, coupons, "table salt, without iodine", "tap water",
        "Spine up, cloth wetted every time the same.",
    )  # fmt: skip
    begun = days.moment(9, 20)
    _begin(db, soak, begun, days)
    seen = []
    for coupon in coupons:
        for place, side in enumerate(_SIDES):
            bit, bloom = (each[place] for each in _SALT_PACK[coupon.name])
            shown = side == "left"
            seen.append(_Seen(coupon, side, "as_found", 4, 0.25 * bit, 0.3 * bloom))
            both = shown and coupon.name in ("AV-01", "AV-04")
            seen.append(_Seen(coupon, side, "as_found", 12, bit, bloom, is_photo=both))
            seen.append(_Seen(coupon, side, "wiped", 12, bit, is_photo=shown))
    _keep(db, soak, begun, seen, days)
    _act(db, soak, "ended", _after(begun, 12.4), days, said="inspected and wiped")


def _brine(db: Database, days: Days) -> None:
    """Read quickly, by grades: intervals."""
    coupons = tuple(_coupon("brine", code, role=_role(code)) for code in _SALT_PACK)
    soak = Soak(
        BRINE_ID, "5 % brine overnight", "Does anything change its place in plain brine?", "steel",
        replace(BY_KEY["brine_overnight"], stages=("wiped",)), coupons,
        "table salt, without iodine", "tap water",
    )  # fmt: skip
    begun = days.moment(6, 18)
    _begin(db, soak, begun, days)
    grades = {"AV-01": (8, 7), "AV-02": (8, 8), "AV-03": (4, 4), "AV-06": (5, 4), "AV-04": (2, 2)}
    at = _after(begun, 14)
    for coupon in coupons:
        for side, grade in zip(_SIDES, grades[coupon.name], strict=True):
            low, high = area_of("iso_10289", grade)
            look = Look(
                demo_id("look", soak.id, coupon.id, side), coupon.id, side, "wiped", at,
                rust_low=low, rust_high=high, how="grade", said=f"iso_10289 {grade}",
            )  # fmt: skip
            put_look(db, soak.id, look, None, days.moment(0, 23))
    _act(db, soak, "ended", _after(begun, 14.5), days, said="inspected and wiped")
    _act(db, soak, "measured", begun, days, ph=6.9, salt_percent=5.0, temperature_c=18.0)


def _damp_wrap(db: Database, days: Days) -> None:
    coupons = []
    for place, code in enumerate(("AV-01", "AV-02", "AV-03", "AV-04")):
        oils = ("camellia oil", "") if place % 3 == 0 else ("", "camellia oil")
        for side, oil in zip(_SIDES, oils, strict=True):
            role = _role(code) if not oil else ""
            arm = "oiled" if oil else "dry"
            coupons.append(_coupon("damp wrap", code, side=side, oil=oil, arm=arm, role=role))
    method = replace(
        BY_KEY["damp_wrap"], hours=168, look_h=(12.0, 24.0, 48.0, 96.0, 168.0),
        stages=("as_found",),
    )  # fmt: skip
    soak = Soak(
        DAMP_WRAP_ID, "Damp wrap, oiled and dry",
        "Does a wipe of oil keep a blade that is put away wet from rusting for a week?", "oil",
        method, tuple(coupons), "sea salt", "from the inlet, filtered",
    )  # fmt: skip
    now = days.today
    begun = Moment(
        (now - timedelta(hours=46.6)).astimezone().isoformat(timespec="seconds"),
        days.moment(0, 0).offset_minutes,
    )
    _begin(db, soak, begun, days)
    truly = {"AV-01": (0.0, 0.5), "AV-02": (0.0, 0.4), "AV-03": (0.6, 5.5), "AV-04": (1.6, 11.0)}
    seen = []
    for coupon in coupons:
        full = truly[coupon.name][0 if coupon.oil else 1]
        for hours, share in ((12, 0.18), (24, 0.5)):
            shown = coupon.name in ("AV-01", "AV-04") and not (
                coupon.oil and coupon.name == "AV-01"
            )
            seen.append(_Seen(coupon, coupon.side, "as_found", hours, share * full, is_photo=shown))
    _keep(db, soak, begun, seen, days)
    _act(db, soak, "dampened", _after(begun, 25.5), days)


def _coatings(db: Database, days: Days) -> None:
    """Wear first, then brine; strips of one carbon steel."""
    arms = ("uncoated", "black oxide", "hard film")
    coupons = tuple(
        Coupon(
            demo_id("coupon", "coatings", arm, oil), f"strip {arm}", "", "both",
            f"{arm}, oiled" if oil else f"{arm}, dry", "baseline" if arm == "uncoated" and not oil
            else "", "camellia oil" if oil else "", "" if arm == "uncoated" else arm, **_FLATS,
        )
        for arm in arms
    for oil in (False, True)
    )  # fmt: skip
    coupons = tuple(
        replace(
            c, name=f"{c.name}{' oiled' if c.oil else ''}", steel="1.2842",
            mass_before_g=round(58.4 + 0.213 * n, 4), area_cm2=62.0, density_g_cm3=7.85,
        )
        for n, c in enumerate(coupons)
    )  # fmt: skip
    soak = Soak(
        COATINGS_ID, "Coatings: worn, then soaked",
        "Which coating still keeps the rust off once cutting has scratched it?", "coating",
        replace(BY_KEY["brine_overnight"], stages=("wiped",)), coupons,
        "table salt, without iodine", "tap water",
    )  # fmt: skip
    begun = days.moment(4, 18)
    _begin(db, soak, begun, days)
    scratches = {
        "uncoated": {"cuts in board": 3, "splits of wood": 4},
        "black oxide": {"cuts in board": 3, "splits of wood": 5},
        "hard film": {"cuts in board": 1, "splits of wood": 2},
    }
    rust = {"uncoated": (12.0, 3.2), "black oxide": (5.4, 0.9), "hard film": (0.6, 0.05)}
    worn = {"uncoated": 13.0, "black oxide": 21.0, "hard film": 6.5}
    at = _after(begun, 14)
    for coupon in coupons:
        arm = coupon.coating or "uncoated"
        for by, amount in (("cuts in board", 200), ("splits of wood", 40)):
            _act(db, soak, "worn", begun, days, coupon_id=coupon.id, amount=amount, said=by,
                 scratch_grade=scratches[arm][by])  # fmt: skip
        area = rust[arm][1 if coupon.oil else 0]
        for side, share in zip(_SIDES, (0.9, 1.1), strict=True):
            _typed(db, soak, coupon, side, at, area * share, days)
        _typed(db, soak, coupon, "both", at, worn[arm] * (0.4 if coupon.oil else 1), days, "worn")
    _act(db, soak, "ended", _after(begun, 14.5), days, said="inspected and wiped")
    _weigh(db, soak, begun, {c.id: rust[c.coating or "uncoated"][bool(c.oil)] for c in coupons},
           days)  # fmt: skip


def _weigh(
    db: Database, soak: Soak, begun: Moment, rusted: Mapping[str, float], days: Days
) -> None:
    """Cleaned and weighed, all but the last strip; about 1.3 mg to a per cent of rust."""
    _act(db, soak, "blank", _after(begun, 16), days, amount=0.018)
    for coupon in soak.coupons[:-1]:
        lost_g = 1e-3 * (1.3 * rusted[coupon.id] + 0.02 * (coupon.area_cm2 or 0))
        before = coupon.mass_before_g or 0
        for kind, hours, share in _WEIGHINGS:
            mass = round(before - share * lost_g, 4)
            _act(db, soak, kind, _after(begun, hours), days, coupon_id=coupon.id, amount=mass)


def _typed(
    db: Database, soak: Soak, coupon: Coupon, side: CouponSide, at: Moment, area: float, days: Days,
    region: str = "",
) -> None:  # fmt: skip
    look = Look(
        demo_id("look", soak.id, coupon.id, side, region), coupon.id, side, "wiped", at,
        region=region,  # type: ignore[arg-type]
        rust_percent=round(area, 2), rust_low=round(0.9 * area, 2), rust_high=round(1.12 * area, 2),
    )  # fmt: skip
    put_look(db, soak.id, look, None, days.moment(0, 23))


def _coupon(
    soak: str, code: str, *, side: CouponSide = "both", oil: str = "", arm: str = "", role: str = ""
) -> Coupon:
    return Coupon(
        demo_id("coupon", soak, code, side), code, demo_id(code), side, arm,
        role, oil, **_FLATS,  # type: ignore[arg-type]
    )  # fmt: skip


def _role(code: str) -> str:
    return "baseline" if code == "AV-04" else ""


def _begin(db: Database, soak: Soak, begun: Moment, days: Days) -> None:
    make_soak(db, soak, begun)
    start_soak(db, soak.id, begun, days.moment(0, 23))


def _act(
    db: Database, soak: Soak, kind: ActKind, at: Moment, days: Days, **said: Any,  # noqa: ANN401 - fields of an act
) -> None:  # fmt: skip
    key = demo_id("act", soak.id, kind, said.get("coupon_id", ""), said.get("said", ""))
    put_act(db, soak.id, Act(key, kind, at, **said), days.moment(0, 23))


def _keep(db: Database, soak: Soak, begun: Moment, seen: Sequence[_Seen], days: Days) -> None:
    """Keep looks; photographs are drawn beside each other, and measured as any picture is."""
    shown = [each for each in seen if each.is_photo]
    with ThreadPoolExecutor(2) as pool:
        drawn = list(pool.map(lambda each: photograph(_side(soak, each, begun)), shown))
    hashes = {}
    for each, data in zip(shown, drawn, strict=True):
        (kept,) = add_pictures(
            db, soak.id, [NamedFile("look.jpg", data)], _after(begun, each.hours)
        )
        hashes[each] = kept.picture.hash
    for each in seen:
        moved = _moved(each)
        outline = tuple((x + moved[0], y + moved[1]) for x, y in OUTLINE)
        mark = tuple((x + moved[0], y + moved[1]) for x, y in _MARK_AT)
        measuring = Measuring(outline, WHITE_POINT, (mark,)) if each.is_photo else None
        total = each.bit + each.bloom
        typed = {} if measuring else {
            "rust_percent": round(total, 2), "rust_low": round(0.85 * total, 2),
            "rust_high": round(1.2 * total + 0.01, 2),
        }  # fmt: skip
        look = Look(
            demo_id("look", soak.id, each.coupon.id, each.side, each.stage, each.hours),
            each.coupon.id, each.side, each.stage, _after(begun, each.hours + 0.1),
            picture=hashes.get(each, ""), **typed,  # type: ignore[arg-type]
        )  # fmt: skip
        put_look(db, soak.id, look, measuring, days.moment(0, 23))


def _side(soak: Soak, each: _Seen, begun: Moment) -> SoakedSide:
    seed = 1000 + int(each.coupon.name[-2:]) * 10 + _SIDES.index(each.side) + len(soak.name)
    taken = datetime.fromisoformat(begun.utc) + timedelta(hours=each.hours)
    return SoakedSide(
        seed, each.bit, each.bloom, each.stain, each.coupon.name, _moved(each),
        taken.strftime("%Y:%m:%d %H:%M:%S"),
    )  # fmt: skip


def _moved(each: _Seen) -> tuple[int, int]:
    """Where the blade was laid down again."""
    return (int(each.hours * 7) % 9 - 4, int(each.hours * 5) % 7 - 3)


def _after(begun: Moment, hours: float) -> Moment:
    at = datetime.fromisoformat(begun.utc) + timedelta(hours=hours)
    return Moment(at.isoformat(timespec="seconds"), begun.offset_minutes)
