"""Two blades as their makers tell of them, side by side: what differs, what that is held to do,
what would be an equal comparison, and what the lives say.
"""

from dataclasses import dataclass

from kessik.core.composition.grades import Grade, Range, find_grade
from kessik.core.composition.separation import differences
from kessik.core.facts import MEASURED
from kessik.core.heat_treatment import own_warnings, unequal
from kessik.core.shelf.blades import Blade
from kessik.core.words.elements import effect_of
from kessik.core.words.performance import EQUAL_COMPARISON, caveat_words
from kessik.core.words.sentences import as_sentence
from kessik.services.reading.grades import grades_by_name
from kessik.services.reading.lives_of_blades import life_lines_of
from kessik.services.shelf.blades import get_blade
from kessik.store.database import Database

NOT_MEASURED = "Both columns are what makers claim; nothing in them was measured here."


@dataclass(frozen=True)
class Told:
    """What is told of one blade: grade, hardness with its standing, and hardening."""

    blade: Blade
    grade: Grade | None
    hardness: str
    hardening: str
    lives: tuple[str, ...]


@dataclass(frozen=True)
class Differs:
    """An element that differs: what each promises, and what more of it is held to do."""

    element: str
    first: Range | None
    second: Range | None
    says: str


@dataclass(frozen=True)
class SideBySide:
    """Two blades laid side by side."""

    first: Told
    second: Told
    differs: tuple[Differs, ...]
    warnings: tuple[str, ...]
    standing: str
    equal_comparison: str


def side_by_side(db: Database, first_id: str, second_id: str) -> SideBySide:
    """Lay two blades side by side; UnknownError where one of them is not on the shelf."""
    with db.read() as session:
        blades = [get_blade(session, blade_id) for blade_id in (first_id, second_id)]
        grades = grades_by_name(session)
    lives = life_lines_of(db, [blade.id for blade in blades])
    found = [find_grade(blade.claimed_grade or "", grades) for blade in blades]
    told = [
        Told(
            blade,
            grade,
            _hardness(blade),
            _hardening(blade),
            tuple(line.says for line in lives.get(blade.id, ())),
        )
        for blade, grade in zip(blades, found, strict=True)
    ]
    first, second = told
    return SideBySide(
        first,
        second,
        tuple(_differs(first.grade, second.grade)),
        tuple(_warnings(first, second)),
        NOT_MEASURED if _is_all_claimed(blades) else "",
        EQUAL_COMPARISON,
    )


def _differs(first: Grade | None, second: Grade | None) -> list[Differs]:
    if first is None or second is None:
        return []
    return [
        Differs(d.element, d.first, d.second, effect_of(d.element))
        for d in differences(first, second)
    ]


def _warnings(first: Told, second: Told) -> list[str]:
    hardness = first.blade.value("hardness_hrc"), second.blade.value("hardness_hrc")
    found = unequal(first.blade.heat_treatment, second.blade.heat_treatment, hardness)
    said = [as_sentence(f"{caveat_words(caveat)}.") for caveat in found]
    for told in (first, second):
        chromium = told.grade.middle("Cr") if told.grade else None
        own = own_warnings(told.blade.heat_treatment, chromium)
        said += [f"{told.blade.code}: {caveat_words(caveat)}." for caveat in own]
    return said


def _hardness(blade: Blade) -> str:
    found = blade.used("hardness_hrc")
    if found is None or found.value is None:
        return "hardness not known"
    return f"{found.value:g} HRC, {found.standing.replace('_', ' ')}"


def _hardening(blade: Blade) -> str:
    told = blade.heat_treatment
    if not told.is_told:
        return told.note or "how it was hardened is not said"
    parts = [
        f"austenitised at {told.austenitising_c:g} °C" if told.austenitising_c else "",
        f"cooled to {told.sub_zero_c:g} °C" if told.sub_zero_c is not None else "",
        f"tempered at {', '.join(f'{t:g}' for t in told.tempers_c)} °C" if told.tempers_c else "",
        told.standing.replace("_", " "),
    ]
    return ", ".join(part for part in parts if part)


def _is_all_claimed(blades: list[Blade]) -> bool:
    used = [blade.used("hardness_hrc") for blade in blades]
    return not any(found and found.standing in MEASURED for found in used)
