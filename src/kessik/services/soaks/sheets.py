"""A soak opened: everything of it from one snapshot, with what it answers and what is due."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from kessik.core.composition.grades import find_grade
from kessik.core.corrosion.agreement import UsualRater
from kessik.core.corrosion.answer import SoakAnswer, soak_answer
from kessik.core.corrosion.duties import DueStep, duties, next_duties
from kessik.core.corrosion.exposures import ended_clock_h
from kessik.core.corrosion.fairness import Specimen
from kessik.core.corrosion.measuring import Measuring
from kessik.core.corrosion.methods import METHODS, SoakMethod
from kessik.core.corrosion.rounds import SideToSee, still_to_see
from kessik.core.corrosion.soaks import Act, Coupon, Look, Soak, own_methods
from kessik.core.errors import UnknownError
from kessik.core.moments import Moment
from kessik.core.pictures import Shown
from kessik.core.shelf.blades import Blade
from kessik.core.words.soaks import deed_words
from kessik.interchange.calendar_ics import CalendarEntry, write_calendar
from kessik.services.reading.grades import grades_by_name
from kessik.services.reading.trial_states import trial_state
from kessik.services.soaks.soaks import act_with_clock, clock_h, get_soak, with_clock
from kessik.store.database import Database, Session
from kessik.store.queries import pictures, shelf, soaks, trainings


@dataclass(frozen=True)
class SoakSheet:
    """All of one soak; `clock_h` is now, by the clock since the start."""

    soak: Soak
    blades: dict[str, Blade]
    acts: tuple[Act, ...]
    looks: tuple[Look, ...]
    waiting: tuple[Shown, ...]
    duties: tuple[DueStep, ...]
    answer: SoakAnswer
    to_see: tuple[SideToSee, ...]
    clock_h: float
    specimens: tuple[Specimen, ...] = ()

    def steel_of(self, coupon: Coupon) -> str:
        """The steel of a coupon: what its blade is sold as, or what is said of a piece."""
        return _steel_of(coupon, self.blades)

    @property
    def names(self) -> dict[str, str]:
        """What each coupon is called: with its side or arm where its name alone is not enough."""
        return coupon_names(self.soak)

    @property
    def is_open(self) -> bool:
        return self.soak.started is not None and ended_clock_h(self.acts) is None

    @property
    def next(self) -> list[DueStep]:
        return next_duties(self.duties, self.clock_h) if self.is_open else []


def coupon_names(soak: Soak) -> dict[str, str]:
    """Names of coupons by id: a name that stands twice carries its side or its arm."""
    names = [coupon.name for coupon in soak.coupons]
    found = {}
    for coupon in soak.coupons:
        more = ""
        if names.count(coupon.name) > 1:
            more = coupon.arm or coupon.side
        found[coupon.id] = f"{coupon.name} {more}".strip()
    return found


def soak_sheet(db: Database, soak_id: str, now: Moment) -> SoakSheet:
    """One soak with its answer."""
    with db.read() as session:
        soak = get_soak(session, soak_id)
        waiting = pictures.shown_by(session, "soak", soak_id)
        return _sheets(session, [soak], now, {soak_id: waiting})[0]


def all_sheets(db: Database, now: Moment) -> list[SoakSheet]:
    """Every soak with its answer, the newest first."""
    with db.read() as session:
        return _sheets(session, soaks.all_soaks(session), now, {})


def sheets_of_blades(
    db: Database, blade_ids: Sequence[str], now: Moment
) -> dict[str, list[SoakSheet]]:
    """The soaks of several blades, by blade; those in none are left out."""
    with db.read() as session:
        sheets = _sheets(session, soaks.soaks_of_blades(session, blade_ids), now, {})
    found: dict[str, list[SoakSheet]] = {}
    for sheet in sheets:
        for blade_id in dict.fromkeys(c.blade_id for c in sheet.soak.coupons):
            if blade_id in blade_ids:
                found.setdefault(blade_id, []).append(sheet)
    return found


def soaks_beside_trial(
    db: Database, trial_id: str, now: Moment
) -> list[tuple[Blade, list[SoakSheet]]]:
    """The blades of a trial that were in a soak, with those; none while the trial is blind."""
    state = trial_state(db, trial_id)
    if state.sealed:
        return []
    found = sheets_of_blades(db, [blade.id for blade in state.blades], now)
    return [(blade, found[blade.id]) for blade in state.blades if blade.id in found]


def soak_methods(db: Database) -> list[SoakMethod]:
    """The methods to copy and change: those that ship, and those that soaks were changed to."""
    with db.read() as session:
        kept = soaks.all_soaks(session)
    return [*METHODS, *own_methods(kept)]


def _sheets(
    session: Session, found: Sequence[Soak], now: Moment, waiting: dict[str, list[Shown]]
) -> list[SoakSheet]:
    ids = [soak.id for soak in found]
    acts, looks = soaks.acts_by_soak(session, ids), soaks.looks_by_soak(session, ids)
    wanted = {coupon.blade_id for soak in found for coupon in soak.coupons if coupon.blade_id}
    blades = {blade.id: blade for blade in shelf.blades_by_id(session, sorted(wanted))}
    coupons = [coupon for soak in found for coupon in soak.coupons]
    rater = trainings.rater_error(session)
    chromium = _chromium_of(session, {_steel_of(coupon, blades) for coupon in coupons})
    return [
        _sheet(
            soak,
            blades,
            tuple(act_with_clock(soak, act) for act in acts[soak.id]),
            tuple(with_clock(soak, look) for look in looks[soak.id]),
            tuple(waiting.get(soak.id, ())),
            now,
            chromium,
            rater.as_usual if rater else None,
        )
        for soak in found
    ]


def _steel_of(coupon: Coupon, blades: Mapping[str, Blade]) -> str:
    blade = blades.get(coupon.blade_id)
    return (blade.claimed_grade or "") if blade else coupon.steel.strip()


def _chromium_of(session: Session, steels: Iterable[str]) -> dict[str, float]:
    """The middle of the chromium range of every grade that is named and known, per cent."""
    grades = grades_by_name(session)
    found = {}
    for name in filter(None, steels):
        grade = find_grade(name, grades)
        middle = grade.middle("Cr") if grade else None
        if middle is not None:
            found[name] = middle
    return found


def _sheet(
    soak: Soak, blades: dict[str, Blade], acts: tuple[Act, ...], looks: tuple[Look, ...],
    waiting: tuple[Shown, ...], now: Moment, chromium: Mapping[str, float],
    rater: UsualRater | None,
) -> SoakSheet:  # fmt: skip
    hour = clock_h(soak.started, now) if soak.started else 0.0
    specimens = []
    for coupon in soak.coupons:
        blade = blades.get(coupon.blade_id)
        steel = _steel_of(coupon, blades)
        treatment = blade.heat_treatment if blade else None
        specimens.append(Specimen(coupon, steel, treatment, chromium.get(steel)))
    answer = soak_answer(soak, specimens, acts, looks, hour, rater)
    used = {look.picture for look in looks}
    still = [shown for shown in waiting if shown.picture.hash not in used]
    return SoakSheet(
        soak,
        {i: blades[i] for i in {c.blade_id for c in soak.coupons} if i in blades},
        acts,
        looks,
        tuple(sorted(still, key=lambda shown: shown.picture.taken_at or shown.picture.added_utc)),
        tuple(duties(soak, acts, looks)) if soak.started else (),
        answer,
        still_to_see(soak, acts, answer.rounds, looks, hour),
        hour,
        tuple(specimens),
    )


def measured_look(db: Database, soak_id: str, look_id: str) -> tuple[Look, Measuring | None]:
    """A look of a soak with how it was measured; UnknownError where there is none."""
    with db.read() as session:
        found = soaks.find_look(session, look_id)
    if found is None or found[0] != soak_id:
        raise UnknownError("there is no such inspection", field="look")
    return found[1], found[2]


def soak_calendar(db: Database, soak_id: str, now: Moment) -> tuple[Soak, bytes]:
    """Looks and interventions that are still to come, as iCalendar at their hours."""
    sheet = soak_sheet(db, soak_id, now)
    entries = []
    if sheet.soak.started is not None and sheet.is_open:
        begun = datetime.fromisoformat(sheet.soak.started.utc)
        for place, duty in enumerate(sheet.duties):
            if duty.done_h is None:
                at = begun + timedelta(hours=duty.clock_due_h)
                deed = deed_words(duty.what, medium=duty.medium)
                said = f"{sheet.soak.name}: {deed} at {duty.due_h:g} h"
                entries.append(CalendarEntry(f"{soak_id}-{place}", at, said))
    return sheet.soak, write_calendar(sheet.soak.name, entries, now.utc)
