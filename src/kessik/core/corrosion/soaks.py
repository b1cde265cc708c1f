"""Soaks: what is exposed, under what, and what was done and seen on the way."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from kessik.core.corrosion.methods import (
    METHODS,
    CouponSide,
    InspectionStage,
    SoakMethod,
    TendKind,
    check_method,
)
from kessik.core.corrosion.photo.area import Doubt
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS, check_limit, most
from kessik.core.moments import Moment
from kessik.core.records import Id, LongText, Within

CouponRole = Literal["", "baseline", "reference"]
ActKind = Literal[
    TendKind, "next_phase", "measured", "dried", "resumed", "prolonged", "worn", "removed",
    "weighed", "cleaned", "blank", "note", "ended",
]  # fmt: skip
Region = Literal[
    "", "edge", "bevel", "flat", "spine", "worn", "etched_mark", "hardware", "smear"
]  # fmt: skip
STEEL_REGIONS: tuple[Region, ...] = ("", "edge", "bevel", "flat", "spine", "worn")
"""Where rust is the steel's own; elsewhere it is recorded and does not count."""
Discolouration = Literal["none", "haze", "tint", "dark", "spots"]
AMOUNTS: dict[ActKind, str] = {"prolonged": "soak_hours", "weighed": "coupon_g",
    "cleaned": "coupon_g", "blank": "blank_mg_cm2"}  # fmt: skip
"""What is nothing without its amount, and the limit that it is held to."""
OF_ONE_COUPON: frozenset[ActKind] = frozenset({"worn", "removed", "weighed", "cleaned"})
"""What is done to one coupon, and never to all."""
DISCOLOURATIONS: tuple[Discolouration, ...] = ("none", "haze", "tint", "dark", "spots")
How = Literal["photo", "brush", "grade", "spots", "typed"]
BY_EYE: frozenset[How] = frozenset({"grade", "spots"})
"""Ways to read an area that a rater may read otherwise."""


@dataclass(frozen=True)
class Coupon:
    """One thing exposed: a blade or a piece of steel, or one side of it, under a preparation.

    `arm` names what was done to it that the soak compares, `steel` what a piece is made of, by its
    designation; of a blade its own page says it; `exposed_before` what this side went
    through already, in words. A piece that `is_same_piece` is the one of its name in other soaks.
    """

    id: Id
    name: str
    blade_id: str = ""
    side: CouponSide = "both"
    arm: str = ""
    role: CouponRole = ""
    oil: str = ""
    coating: str = ""
    flat_finish: str = ""
    polished_before: str = ""
    degreased_with: str = ""
    exposed_before: str = ""
    steel: str = ""
    mass_before_g: Annotated[float, Within("coupon_g")] | None = None
    area_cm2: Annotated[float, Within("coupon_cm2")] | None = None
    density_g_cm3: Annotated[float, Within("density_g_cm3")] | None = None
    is_same_piece: bool = False


@dataclass(frozen=True)
class Soak:
    """One exposure of several coupons under one method, with the question that was written first;
    not started while `started` is None.
    """

    id: str
    name: str
    question: LongText
    factor: str
    method: SoakMethod
    coupons: Annotated[tuple[Coupon, ...], Within("soak_coupons")] = ()
    salt: str = ""
    water: str = ""
    note: LongText = ""
    let_go: tuple[str, ...] = ()
    started: Moment | None = None
    created_utc: str = ""

    def coupon(self, coupon_id: str) -> Coupon | None:
        return next((each for each in self.coupons if each.id == coupon_id), None)


@dataclass(frozen=True)
class Act:
    """Something done to a soak or to one of its coupons, at `clock_h` hours after the start.

    `prolonged` has the new whole time in `amount`, `worn` the count of cuts, splits or scratches
    (`said` tells which) and the grade of its scratches, `measured` what was measured: pH, salt in
    per cent, °C, relative humidity. A coupon that is
    `removed` leaves before the others. `weighed` with its rust on and `cleaned` have grams in
    `amount`, `blank` what the cleaning takes off bare steel, mg/cm².
    """

    id: str
    kind: ActKind
    at: Moment
    clock_h: float = 0.0
    coupon_id: str = ""
    amount: float | None = None
    ph: Annotated[float, Within("ph")] | None = None
    salt_percent: Annotated[float, Within("rust_percent")] | None = None
    temperature_c: float | None = None
    humidity_percent: Annotated[float, Within("percent")] | None = None
    scratch_grade: Annotated[int, Within("scratch_grade")] | None = None
    said: LongText = ""
    struck: str = ""


@dataclass(frozen=True)
class Look:
    """One observation of a coupon: a side in a stage, whole or a region of it, at `clock_h` hours
    after the start, `seen_by` whom; `doubts` stand against an area that was read off a picture.
    `blind` names the pass in which it was graded without names and without what was seen before.

    Areas are per cent of what counts. `rust_low` and `rust_high` bound the area, `rust_percent` is
    None where only the bounds are known. A look without an area may hold a discolouration alone.
    """

    id: str
    coupon_id: Id
    side: CouponSide
    stage: InspectionStage
    at: Moment
    clock_h: float = 0.0
    region: Region = ""
    rust_percent: Annotated[float, Within("rust_percent")] | None = None
    rust_low: Annotated[float, Within("rust_percent")] | None = None
    rust_high: Annotated[float, Within("rust_percent")] | None = None
    stain_percent: Annotated[float, Within("rust_percent")] | None = None
    pits: Annotated[int, Within("pits")] | None = None
    deepest_pit_mm: Annotated[float, Within("pit_mm")] | None = None
    discolouration: Discolouration | None = None
    gone_matte: bool = False
    pivot: str = ""
    lock: str = ""
    handle: str = ""
    how: How = "typed"
    said: str = ""
    doubts: tuple[Doubt, ...] = ()
    picture: str = ""
    note: LongText = ""
    struck: str = ""
    seen_by: str = ""
    blind: str = ""

    @property
    def counts(self) -> bool:
        """Whether it speaks of the steel."""
        return not self.struck and self.region in STEEL_REGIONS


def own_methods(kept: Sequence[Soak]) -> list[SoakMethod]:
    """Methods that soaks were changed to, each once, in the order of the soaks; one that kept the
    name it was copied from is called after its soak.
    """
    shipped = {method.name.casefold(): method for method in METHODS}
    found: dict[SoakMethod, SoakMethod] = {}
    for soak in kept:
        method = replace(soak.method, key="")
        origin = shipped.get(method.name.casefold())
        if origin is not None and method == replace(origin, key=""):
            continue
        name = method.name if origin is None else f"{method.name}, as in {soak.name}"
        found.setdefault(method, replace(method, key=f"soak:{soak.id}", name=name))
    return list(found.values())


def check_soak(soak: Soak) -> None:
    """Refuse a soak without name or question, with a coupon twice, or two baselines of one name."""
    if not soak.name.strip():
        raise OutOfRangeError("name the soak", field="name")
    if not soak.question.strip():
        raise OutOfRangeError("write the question first: one, in a sentence", field="question")
    check_method(soak.method)
    if len(soak.coupons) > most("soak_coupons"):
        raise OutOfRangeError(LIMITS["soak_coupons"].says(str(len(soak.coupons))), field="coupons")
    seen: set[tuple[str, str]] = set()
    for coupon in soak.coupons:
        if not coupon.name.strip():
            raise OutOfRangeError("a coupon needs a name or a blade", field="coupons")
        key = (coupon.name.strip().casefold(), coupon.side)
        if key in seen or (key[0], "both") in seen or (coupon.side == "both" and _names(seen, key)):
            raise OutOfRangeError(
                f"{coupon.name} is listed twice with that side; each side is exposed once",
                field="coupons",
                value=coupon.name,
            )
        seen.add(key)


def _names(seen: set[tuple[str, str]], key: tuple[str, str]) -> bool:
    return any(name == key[0] for name, _ in seen)


SAME_LOOK_H = 0.5
"""One rater sees one place once in half an hour: a second time is a slip; another picture of it, or
grading it again without its name, is another inspection."""


def checked_look(look: Look, others: list[Look], within_h: float = SAME_LOOK_H) -> Look:
    """The look; OutOfRangeError where it cannot be, or stands there already: one stage of one side
    is checked once `within_h`.
    """
    if look.clock_h < 0:
        raise OutOfRangeError(
            "this inspection is from before the soak began; correct its time or the start",
            field="at",
        )
    for name in ("rust_percent", "rust_low", "rust_high", "stain_percent"):
        value = getattr(look, name)
        if value is not None:
            check_limit("rust_percent", value, name)
    if look.pits is not None:
        check_limit("pits", look.pits, "pits")
    if look.deepest_pit_mm is not None:
        check_limit("pit_mm", look.deepest_pit_mm, "deepest_pit_mm")
    low, best, high = look.rust_low, look.rust_percent, look.rust_high
    if low is not None and high is not None and low > high:
        raise OutOfRangeError(f"the minimum, {low:g} %, is above the maximum, {high:g} %",
                              field="rust_low")  # fmt: skip
    below = low is not None and best is not None and best < low
    above = high is not None and best is not None and best > high
    if below or above:
        raise OutOfRangeError(
            f"{best} % lies outside its own interval", field="rust_percent", value=best
        )
    for other in others:
        if other.id != look.id and not other.struck and _same_place(look, other, within_h):
            raise OutOfRangeError(
                f"there is an inspection of this side, {look.stage.replace('_', ' ')}, at that time"
                " already: exclude it first, or choose another stage",
                field="stage",
            )
    return look


def _same_place(one: Look, other: Look, within_h: float) -> bool:
    same = (one.coupon_id, one.side, one.stage, one.region) == (
        other.coupon_id, other.side, other.stage, other.region,
    )  # fmt: skip
    is_other_picture = bool(one.picture and other.picture) and one.picture != other.picture
    is_other_rater = one.seen_by.strip().casefold() != other.seen_by.strip().casefold()
    is_another = is_other_rater or is_other_picture or one.blind != other.blind
    return same and not is_another and abs(one.clock_h - other.clock_h) < within_h


def check_act(act: Act) -> None:
    """Refuse an act before the start, or without what its kind needs."""
    if act.clock_h < 0:
        raise OutOfRangeError("this is from before the soak began", field="at")
    if act.ph is not None:
        check_limit("ph", act.ph, "ph")
    if act.temperature_c is not None:
        check_limit("brine_c", act.temperature_c, "temperature_c")
    if act.humidity_percent is not None:
        check_limit("percent", act.humidity_percent, "humidity_percent")
    if act.scratch_grade is not None:
        check_limit("scratch_grade", act.scratch_grade, "scratch_grade")
    if act.kind in AMOUNTS:
        if act.amount is None:
            raise OutOfRangeError("a number is needed here", field="amount")
        check_limit(AMOUNTS[act.kind], act.amount, "amount")
    if act.kind in OF_ONE_COUPON and not act.coupon_id:
        raise OutOfRangeError("choose the coupon", field="coupon_id")
    if act.kind in ("ended", "dried") and not act.said.strip():
        raise OutOfRangeError("say why, in a few words", field="said")
