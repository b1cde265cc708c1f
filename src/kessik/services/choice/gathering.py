"""What is known of every blade by what a choice weighs, gathered once for a state of the data."""

import re
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from threading import Lock

from kessik.core.choice.axes import AxisKey, Choosable, Figure, exact, grades_of
from kessik.core.choice.upkeep import BladeUpkeep, cost_of_cutting, per, upkeep_of
from kessik.core.choice.uses import Use
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.ranking import mean_area
from kessik.core.errors import KessikError
from kessik.core.moments import Moment
from kessik.core.sharpening.strop_back import StropBack
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.loans import is_away
from kessik.core.shelf.toughness import Toughness
from kessik.core.standings.board import Board, StandingsQuestion
from kessik.core.trials.strop_tests import strop_tests
from kessik.core.vocabulary import STANDINGS
from kessik.core.words.standings import class_words
from kessik.services.reading.trial_states import state_of_trial
from kessik.services.soaks.sheets import SoakSheet, all_sheets
from kessik.services.standings.boards import Field, read_field, work_out
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, hanging
from kessik.store.queries.testers import blades_elsewhere, kept_elsewhere

_PRICE = re.compile(r"\d[\d\s'’.,]*")
_OF_CUTS, _OF_MM = 100.0, 1000.0


@dataclass(frozen=True)
class LifeChoice:
    """A class of lives that can be weighed: as it is asked for, and in words."""

    like: str
    says: str


@dataclass(frozen=True)
class Known:
    """All that a choice may weigh, for one class of lives; others have the blades `elsewhere`."""

    field: Field
    board: Board | None
    why_no_lives: str
    lives: tuple[LifeChoice, ...]
    soaks: tuple[SoakSheet, ...]
    upkeep: Mapping[str, BladeUpkeep]
    toughness: tuple[Toughness, ...]
    elsewhere: frozenset[str]


class ChoiceDesk:
    """What is known, kept until the data change: a weight is moved many times a second."""

    def __init__(self, db: Database) -> None:
        self._db, self._lock = db, Lock()
        self._kept: dict[str, tuple[tuple[str, int], Known]] = {}

    def known(self, life: str, now: Moment) -> Known:
        """What is known now, with lives of a class; those with most blades where none is named."""
        stamp = self._db.stamp()
        with self._lock:
            kept = self._kept.get(life)
            if kept is None or kept[0] != stamp:
                kept = stamp, gather(self._db, life, now)
                self._kept = {life: kept} if len(self._kept) > 8 else {**self._kept, life: kept}
        return kept[1]


def gather(db: Database, life: str, now: Moment) -> Known:
    """Read everything, and work the standings out."""
    with db.read() as session:
        field = read_field(session)
        elsewhere = blades_elsewhere(session, kept_elsewhere(session)["blade"])
        tough = tuple(t for t in hanging.all_noted(session, Toughness) if not t.struck)
        strops = _strops(session)
    like = tuple(tuple(each.split(":", 1)) for each in life.split("|") if ":" in each)
    board, why = _board(field, like)
    classes = board.classes if board else ()
    lives = tuple(
        LifeChoice("|".join(f"{k}:{v}" for k, v in each.traits), class_words(each))
        for each in classes
        if each.arms > 1
    )
    edges = {blade.id: blade.edges for blade in field.blades.values()}
    soaks = tuple(sheet for sheet in all_sheets(db, now) if _areas(sheet))
    return Known(
        field, board, why, lives, soaks, upkeep_of(edges, strops), tough, frozenset(elsewhere)
    )


def _board(field: Field, like: Sequence[tuple[str, ...]]) -> tuple[Board | None, str]:
    try:
        pairs = tuple((key, value) for key, value in like)
        return work_out(field, StandingsQuestion(like=pairs)), ""
    except KessikError as error:
        return None, error.message


def _strops(session: Session) -> dict[str, list[StropBack]]:
    """What the strop brought back, by blade; only trials in which one was used are read, and none
    whose answer is hidden.
    """
    found: dict[str, list[StropBack]] = {}
    for trial_id in bench_log.trials_with(session, "strop"):
        state = state_of_trial(session, trial_id)
        for r in state.runs if not state.sealed else ():
            found.setdefault(r.blade.id, []).extend(strop_tests(r.state, r.method))
    return found


def _areas(sheet: SoakSheet) -> dict[str, Bounds]:
    """How much of each blade had rusted when it was looked at last, by the id of the blade."""
    found: dict[str, Bounds] = {}
    for coupon in sheet.soak.coupons:
        course = next((c for c in sheet.answer.courses if c.coupon_id == coupon.id), None)
        if coupon.blade_id is None or course is None or not course.points:
            continue
        last = max(point.round_h for point in course.points)
        sides = {p.side: p.area for p in course.points if p.round_h == last}
        area = mean_area(list(sides.values()))
        before = found.get(coupon.blade_id)  # of several preparations the one that rusted most
        if before is None or area.middle > before.middle:
            found[coupon.blade_id] = area
    return found


def candidates(known: Known, use: Use) -> list[Choosable]:
    """Every blade with what is known of it for a use, or every grade; of two that are one blade the
    one that stands for both.
    """
    soak = next((s for s in known.soaks if s.soak.id == use.soak_id), None)
    areas = _areas(soak) if soak else {}
    told = [
        _candidate(blade, known, use, areas, soak.soak.name if soak else "")
        for blade in known.field.blades.values()
        if not blade.archived_utc and blade.id not in known.field.same
    ]
    if use.in_hand:
        told = [each for each in told if each.in_hand]
    return grades_of(told) if use.by == "grade" else told


def not_compared(known: Known) -> tuple[list[str], list[str]]:
    """Codes of blades priced in another currency, and with a toughness of another test, than most;
    neither is weighed.
    """
    currency, test = _usual_currency(known), _usual_test(known)
    blades = [b for b in known.field.blades.values() if not b.archived_utc]
    priced = [b.code for b in blades if (p := price_of(b.price)) and p.unit != currency]
    tested = [
        b.code
        for b in blades
        if (own := _own_toughness(known.toughness, b)) and all(t.alike != test for t in own)
    ]
    return priced, tested


def _usual_currency(known: Known) -> str:
    found = Counter(p.unit for b in known.field.blades.values() if (p := price_of(b.price)))
    return found.most_common(1)[0][0] if found else ""


def _usual_test(known: Known) -> tuple[str, ...]:
    """The test, specimen and direction that most energies are of: others are another scale."""
    found = Counter(each.alike for each in known.toughness)
    return found.most_common(1)[0][0] if found else ()


def _candidate(
    blade: Blade, known: Known, use: Use, areas: Mapping[str, Bounds], soak: str
) -> Choosable:
    found: dict[AxisKey, Figure] = {}
    life = _life(known.board, blade.id)
    if life is not None:
        found["edge"] = life
    if blade.id in areas:
        area = areas[blade.id]
        found["rust"] = Figure(area.middle, area.low, area.high, "%", soak)
    price = price_of(blade.price)
    if price is not None and price.unit == _usual_currency(known):
        found["price"] = price
    if (tough := _toughness(known, blade)) is not None:
        found["toughness"] = tough
    _add_upkeep(found, known, blade.id, use)
    return Choosable(
        blade.id,
        blade.code,
        blade.mark,
        blade.claimed_grade or "",
        found,
        in_hand=not (is_away(blade) or blade.id in known.elsewhere),
    )


def _life(board: Board | None, blade_id: str) -> Figure | None:
    """The life of a blade beside the reference of the largest island; that of its first arm."""
    for rung in board.rungs if board else ():
        if rung.island == 0 and rung.arm.partition("/")[0] == blade_id and rung.ratio:
            ratio = rung.ratio
            if ratio.ratio and ratio.low and ratio.high:
                told = f"{len(rung.trials)} trial{'s' if len(rung.trials) > 1 else ''}"
                return Figure(ratio.ratio, ratio.low, ratio.high, "×", told)
    return None


def _add_upkeep(found: dict[AxisKey, Figure], known: Known, blade_id: str, use: Use) -> None:
    """Minutes and money for so much that is cut, where a life in counts is known."""
    upkeep = known.upkeep.get(blade_id)
    counts = _life_counted(known.board, blade_id)
    if upkeep is None or counts is None:
        return
    of, unit = (_OF_MM, "m") if counts.unit == "mm" else (_OF_CUTS, f"100 {counts.unit}")
    if upkeep.minutes is not None:
        found["upkeep"] = per(upkeep.minutes, counts, of, f"min per {unit}")
    if upkeep.steel_mm is not None and "price" in found:
        cost = cost_of_cutting(
            found["price"], counts, upkeep.steel_mm, upkeep.minutes, use.assumed, of
        )
        found["cost"] = replace(cost, unit=f"{cost.unit} per {unit}".strip())


def _life_counted(board: Board | None, blade_id: str) -> Figure | None:
    """The life of a blade on a usual block, in counts."""
    if board is None:
        return None
    for rung in board.rungs:
        ratio = rung.ratio
        if rung.arm.partition("/")[0] != blade_id or rung.cuts is None or ratio is None:
            continue
        if ratio.ratio and ratio.low and ratio.high:
            share = rung.cuts / ratio.ratio
            return Figure(rung.cuts, ratio.low * share, ratio.high * share, board.unit)
    return None


def _own_toughness(told: Sequence[Toughness], blade: Blade) -> list[Toughness]:
    """Energies of the blade itself, else of its grade."""
    own = [t for t in told if t.blade_id == blade.id]
    return own or [t for t in told if t.grade and t.grade == blade.claimed_grade]


def _toughness(known: Known, blade: Blade) -> Figure | None:
    """The energy recorded last among those of the usual test."""
    usual = _usual_test(known)
    own = [t for t in _own_toughness(known.toughness, blade) if t.alike == usual]
    if not own:
        return None
    last = own[-1]
    hard = f", at {last.hardness_hrc:g} HRC" if last.hardness_hrc else ""
    low = last.low_j if last.low_j is not None else last.joules
    high = last.high_j if last.high_j is not None else last.joules
    return Figure(last.joules, low, high, "J", f"{STANDINGS[last.standing]}{hard}")


def price_of(text: str) -> Figure | None:
    """The number in a price with what else stands there as its unit; None where there is none."""
    found = _PRICE.search(text)
    if found is None:
        return None
    digits = re.sub(r"[\s'’]", "", found[0])
    digits = digits.replace(",", ".") if digits.count(",") == 1 and "." not in digits else digits
    try:
        value = float(digits.replace(",", "").rstrip("."))
    except ValueError:
        return None
    unit = (text[: found.start()] + text[found.end() :]).strip()
    return exact(value, unit) if value > 0 else None
