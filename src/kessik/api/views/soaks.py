"""Soaks over the wire: what is kept of them, and each in a line."""

from collections.abc import Sequence

from kessik.api.schemas.soaks import SoakMethodBody
from kessik.api.schemas.soaks_out import (
    ActOut,
    BladeSoakOut,
    CouponOut,
    DueStepOut,
    InspectionRoundOut,
    LookOut,
    PlacedOut,
    PlaceRowOut,
    PlaceTableOut,
    PlaceToSeeOut,
    SoakLineOut,
    SoakOut,
)
from kessik.api.views.soak_answers import soak_answer_out, standings_out
from kessik.api.views.soak_pictures import soak_picture_out
from kessik.core.corrosion.answer import PhaseAnswer
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.duties import DueStep
from kessik.core.corrosion.exposures import exposure_h, exposure_of
from kessik.core.corrosion.methods import SoakMethod
from kessik.core.corrosion.phases import scale_for
from kessik.core.corrosion.ratings import ratings
from kessik.core.corrosion.rounds import Round
from kessik.core.corrosion.soaks import Act, Look
from kessik.core.vocabulary import SIDES
from kessik.core.words.rust import (
    area_words,
    doubts_words,
    first_words,
    rating_words,
    superficial_words,
)
from kessik.core.words.soaks import (
    act_words,
    conditions_words,
    deed_words,
    kept_words,
    place_words,
    soak_headline,
)
from kessik.services.soaks.sheets import SoakSheet
from kessik.services.soaks.side_by_side import Placed, PlaceTable


def act_out(act: Act, acts: Sequence[Act]) -> ActOut:
    """Something done, at its true hour."""
    return ActOut.showing(
        act,
        at_utc=act.at.utc,
        offset_minutes=act.at.offset_minutes,
        exposure_h=exposure_h(act.clock_h, acts),
        says=act_words(act),
    )


def look_out(look: Look, acts: Sequence[Act], rounds: Sequence[Round] = ()) -> LookOut:
    """An inspection with its grades, and the hour that its round began."""
    exposed_h = exposure_of(look, acts)
    says, grades = "", []
    if look.rust_low is not None and look.rust_high is not None:
        says = area_words(Bounds(look.rust_low, look.rust_high, look.rust_percent))
        found = ratings(look.rust_percent, look.rust_low, look.rust_high)
        grades = [rating_words(each) for each in found]
    return LookOut.showing(
        look,
        at_utc=look.at.utc,
        offset_minutes=look.at.offset_minutes,
        exposure_h=exposed_h,
        together_h=max((r.from_h for r in rounds if r.from_h <= exposed_h), default=exposed_h),
        area_says=says,
        ratings=grades,
        doubts=doubts_words(look.doubts),
    )


def round_out(found: Round, phases: Sequence[PhaseAnswer]) -> InspectionRoundOut:
    """A round of inspection: when it was due, when it was made, and what of it was missed."""
    own = (each.span.phase.medium for each in phases if found in each.answer.rounds)
    return InspectionRoundOut.showing(
        found, places=len(found.places), missing=len(found.missing), medium=next(own, "")
    )


def duty_out(duty: DueStep) -> DueStepOut:
    """A look or an intervention that is due."""
    return DueStepOut.showing(
        duty, says=deed_words(duty.what, duty.missing, duty.places, duty.medium)
    )


def soak_line_out(sheet: SoakSheet) -> SoakLineOut:
    """A soak in the list."""
    soak = sheet.soak
    return SoakLineOut.showing(
        soak,
        method=soak.method.name,
        started_utc=soak.started.utc if soak.started else "",
        offset_minutes=soak.started.offset_minutes if soak.started else 0,
        is_open=sheet.is_open,
        hours=sheet.answer.hours,
        whole_h=sheet.answer.whole_h,
        headline=soak_headline(soak, sheet.answer, sheet.names),
        coupons=_coupons(sheet),
        waiting=[duty_out(duty) for duty in sheet.next],
        clock_h=sheet.clock_h,
        duties=[duty_out(duty) for duty in sheet.duties],
    )


def soak_out(sheet: SoakSheet) -> SoakOut:
    """A soak, whole."""
    soak = sheet.soak
    line = soak_line_out(sheet)
    rounds = sheet.answer.rounds
    return SoakOut.showing(
        soak,
        **dict(line),
        how=method_out(soak.method),
        acts=[act_out(act, sheet.acts) for act in sheet.acts],
        looks=[look_out(look, sheet.acts, rounds) for look in sheet.looks],
        rounds=[round_out(each, sheet.answer.phases) for each in rounds],
        to_see=[PlaceToSeeOut.showing(place) for place in sheet.to_see],
        pictures=[soak_picture_out(shown, soak) for shown in sheet.waiting],
        answer=soak_answer_out(sheet),
        scales={side: scale_for(soak, sheet.acts, side, sheet.answer.hours) for side in SIDES},
    )


def blade_soak_out(sheet: SoakSheet, coupon_id: str) -> BladeSoakOut:
    """What a soak says of one of its coupons."""
    answer, soak = sheet.answer, sheet.soak
    coupon = soak.coupon(coupon_id)
    course = next(c for c in answer.courses if c.coupon_id == coupon_id)
    standing = next((s for s in standings_out(answer) if s.coupon_id == coupon_id), None)
    shared = [p for p in answer.ranking.places if coupon_id in p]
    says = ""
    if standing is not None:
        of = len(answer.ranking.standings)
        place = place_words(standing.place, is_shared=len(shared[0]) > 1)
        says = f"{place}, of {of}"
    return BladeSoakOut(
        soak_id=soak.id,
        name=soak.name,
        on=soak.started.utc[:10] if soak.started else "",
        called=sheet.names[coupon_id],
        place_says=says,
        area=standing.area.says if standing else "",
        conditions=conditions_words(soak, coupon, answer),
        superficial=superficial_words(course.superficial) if course.superficial else "",
        first=first_words(course.first),
    )


def blade_soaks_out(blade_id: str, sheets: Sequence[SoakSheet]) -> list[BladeSoakOut]:
    """A line a coupon that was made of the blade."""
    return [
        blade_soak_out(sheet, coupon.id)
        for sheet in sheets
        for coupon in sheet.soak.coupons
        if coupon.blade_id == blade_id
    ]


def place_table_out(table: PlaceTable) -> PlaceTableOut:
    """Places from soak to soak."""
    return PlaceTableOut(
        soaks=[soak_line_out(sheet) for sheet in table.soaks],
        rows=[
            PlaceRowOut(blade=name, places=[_placed(each) for each in places])
            for name, places in table.rows
        ],
        by_steel=table.by_steel,
        says=kept_words(table.kept, by_steel=table.by_steel),
    )


def method_out(method: SoakMethod) -> SoakMethodBody:
    """A method as the wire has it."""
    return SoakMethodBody.showing(method)


def _coupons(sheet: SoakSheet) -> list[CouponOut]:
    found = []
    for coupon in sheet.soak.coupons:
        blade = sheet.blades.get(coupon.blade_id)
        found.append(
            CouponOut.showing(
                coupon,
                called=sheet.names[coupon.id],
                steel=sheet.steel_of(coupon),
                mark=blade.mark if blade else 0,
            )
        )
    return found


def _placed(found: Placed | None) -> PlacedOut | None:
    if found is None:
        return None
    says = place_words(found.place, is_shared=found.is_shared)
    return PlacedOut(place_says=says, area=area_words(found.standing.area))
