"""What a soak says, over the wire."""

from collections.abc import Sequence

from kessik.api.schemas.soak_answers_out import (
    BoundsOut,
    ClimateReadingOut,
    CourseOut,
    CoursePointOut,
    DiscolouredOut,
    FairnessCheckOut,
    LevelEntryOut,
    MassLossOut,
    PartChangeOut,
    PhaseOut,
    RankEntryOut,
    SoakAnswerOut,
    WornOut,
)
from kessik.core.corrosion.answer import Course, PhaseAnswer, SoakAnswer
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.fairness import NAMES, FairnessCheck
from kessik.core.corrosion.mass import MassLoss
from kessik.core.corrosion.soaks import Soak
from kessik.core.vocabulary import DISCOLOURATIONS, INSPECTION_STAGES
from kessik.core.words.climate import climate_words
from kessik.core.words.mass import cabinet_words, gap_words, loss_words, mass_words
from kessik.core.words.moving_parts import part_words, parts_words
from kessik.core.words.phases import came_words, phase_title, phase_words
from kessik.core.words.rust import BORROWED, area_words, entry_words, first_words, superficial_words
from kessik.core.words.soak_levels import level_entry_words, level_name
from kessik.core.words.soaks import (
    held_words,
    is_one_answer,
    soak_headline,
    soak_reasons,
    value_words,
)
from kessik.core.words.wear import coating_words, worn_words
from kessik.services.soaks.sheets import SoakSheet


def bounds_out(area: Bounds) -> BoundsOut:
    """An area with its bounds, and in words."""
    return BoundsOut.showing(area, says=area_words(area))


def held_out(held: FairnessCheck, names: dict[str, str]) -> FairnessCheckOut:
    """One variable over the coupons; in words where it is confounded."""
    says = held_words(held, names) if held.status == "confounded" else ""
    told = list(dict.fromkeys(value_words(held, value) for value in held.values.values()))
    return FairnessCheckOut.showing(held, name=NAMES[held.variable], told=told, says=says)


def course_out(course: Course) -> CourseOut:
    """One coupon along the soak."""
    points = [CoursePointOut.showing(p, area=bounds_out(p.area)) for p in course.points]
    return CourseOut.showing(
        course,
        points=points,
        first=first_words(course.first),
        superficial=superficial_words(course.superficial) if course.superficial else "",
        pits=course.worst_pits,
    )


def soak_answer_out(sheet: SoakSheet) -> SoakAnswerOut:
    """What a soak says so far."""
    answer, names = sheet.answer, sheet.names
    return SoakAnswerOut.showing(
        answer,
        headline=soak_headline(sheet.soak, answer, names),
        reasons=soak_reasons(sheet.soak, answer, names),
        coatings=coating_words(sheet.soak, answer),
        worn=_worn(answer),
        severity=answer.validity.severity,
        needed_percent=answer.validity.needed_percent,
        judged_stage=_stage(answer),
        standings=standings_out(answer),
        levels=_levels(sheet.soak, answer),
        unlinked_levels=_unlinked(sheet.soak, answer),
        ties=[list(tie) for tie in answer.ranking.ties],
        discoloured=_discoloured(answer),
        courses=[course_out(course) for course in answer.courses],
        held=[held_out(held, names) for held in answer.held],
        borrowed=BORROWED,
        masses=[_mass(loss) for loss in answer.masses],
        cabinet=[cabinet_words(check, names[check.coupon_id]) for check in answer.cabinet],
        parts=[PartChangeOut.showing(each, says=part_words(each)) for each in answer.parts],
        parts_say=parts_words(answer.parts, names),
        climate=[ClimateReadingOut.showing(each) for each in answer.climate],
        climate_says=climate_words(answer.climate),
        phases=[_phase(each, answer.hours, names) for each in answer.phases],
        is_one_answer=is_one_answer(answer),
    )


def _discoloured(answer: SoakAnswer) -> list[DiscolouredOut]:
    return [
        DiscolouredOut(word=DISCOLOURATIONS[word], coupon_ids=list(ids))
        for word, ids in answer.discoloured
    ]


def _phase(found: PhaseAnswer, hours: float, names: dict[str, str]) -> PhaseOut:
    answer = found.answer
    return PhaseOut(
        title=phase_title(found),
        medium=found.span.phase.medium,
        from_h=found.span.from_h,
        to_h=found.span.to_h,
        says=phase_words(found, hours, names),
        judged_stage=_stage(answer),
        standings=standings_out(answer),
        discoloured=_discoloured(answer),
        came={coupon_id: came_words(area) for coupon_id, area in found.came.items()},
    )


def _stage(answer: SoakAnswer) -> str:
    return INSPECTION_STAGES[answer.stage] if answer.stage else ""


def _mass(loss: MassLoss) -> MassLossOut:
    per_area, rate = loss_words(loss)
    return MassLossOut(
        coupon_id=loss.coupon_id,
        hours=loss.hours,
        gained_mg=mass_words(loss.gain_mg),
        lost_mg=mass_words(loss.loss_mg),
        lost_g_m2=per_area,
        rate_mm_a=rate,
        missing=gap_words(loss),
    )


def _worn(answer: SoakAnswer) -> list[WornOut]:
    """What each coupon went through, beside its rust where it was worn."""
    areas = {course.coupon_id: course.worn_percent for course in answer.courses}
    by_coupon: dict[str, list[str]] = {}
    for worn in answer.worn:
        by_coupon.setdefault(worn.coupon_id, []).append(worn_words(worn))
    found = []
    for coupon_id, counts in by_coupon.items():
        area = areas.get(coupon_id)
        rust = area_words(area) if area else ""
        found.append(WornOut(coupon_id=coupon_id, counts=counts, rust_where_worn=rust))
    return found


def _unlinked(soak: Soak, answer: SoakAnswer) -> list[str]:
    levels = answer.levels.unlinked if answer.levels else ()
    return [level_name(level, soak.factor) for level in levels]


def _levels(soak: Soak, answer: SoakAnswer) -> list[LevelEntryOut]:
    """Levels of the factor at their places; none where the soak was not severe enough."""
    order = answer.levels
    if order is None or answer.validity.severity == "not_enough":
        return []
    place_of = _place_numbers(order.places)
    return [
        LevelEntryOut(
            place=place_of[entry.level],
            level=level_name(entry.level, soak.factor),
            coupon_ids=list(entry.coupons),
            area=bounds_out(entry.area),
            says=level_entry_words(entry),
        )
        for entry in order.entries
    ]


def _place_numbers(places: Sequence[Sequence[str]]) -> dict[str, int]:
    """The number of each place, from 1, shared with all in it."""
    found: dict[str, int] = {}
    first = 1
    for group in places:
        found.update(dict.fromkeys(group, first))
        first += len(group)
    return found


def standings_out(answer: SoakAnswer) -> list[RankEntryOut]:
    """Every coupon at its place; none where the soak was not severe enough."""
    if answer.validity.severity == "not_enough":
        return []
    place_of = _place_numbers(answer.ranking.places)
    return [
        RankEntryOut.showing(
            s, place=place_of[s.coupon_id], area=BoundsOut.showing(s.area, says=entry_words(s))
        )
        for s in answer.ranking.standings
    ]
