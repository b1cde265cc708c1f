"""Facts of blades and edges: taken in, completed from their details, and laid out for matching."""

import math
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any
from uuid import NAMESPACE_URL, uuid4, uuid5

from kessik.core.comparison.matching import BladeFacts, Fact
from kessik.core.errors import OutOfRangeError
from kessik.core.facts import QUANTITIES, STANDINGS, Measurement, Standing, check, used
from kessik.core.geometry import Stations, summarise_stations, thickness_growth_mm
from kessik.core.hardness import USUAL_HRC, HardnessSummary, summarise
from kessik.core.sharpening.regimes import final_abrasive
from kessik.core.sharpening.settled import Settled, SettledRule, settled
from kessik.store.records import Blade, Edge, Grade, Run

_OWN_WORDS = ("grind", "profile", "finish", "coating", "grip")
THICKNESS_SPREAD_MM = 0.05


def entered(
    owner_id: str, quantity: str, value: float | str, standing: Standing, on: str
) -> Measurement:
    """The first value of a fact, given when a blade or an edge is added; its id follows from its
    owner.
    """
    made = str(uuid5(NAMESPACE_URL, f"kessik:{owner_id}:{quantity}"))
    return _valued(made, quantity, value, standing, on)


def _valued(
    made: str, quantity: str, value: float | str, standing: Standing, on: str
) -> Measurement:
    number = value if not isinstance(value, str) else None
    words = value if isinstance(value, str) else ""
    return Measurement(made, quantity, number, words, standing, on[:10], recorded_utc=on)


def stated_again(
    known: Sequence[Measurement],
    quantity: str,
    value: float | str | None,
    standing: Standing,
    on: str,
) -> list[Measurement]:
    """What a new statement of a fact changes: nothing if it is known just so, else one more
    measurement.

    None says that the fact is not known after all: every value of it is struck, and stays visible.
    """
    if value is None:
        own = [m for m in known if m.quantity == quantity and not m.struck]
        return [replace(m, struck="said to be not known after all") for m in own]
    made = _valued(str(uuid4()), quantity, value, standing, on)
    check(made)
    now = used(known, quantity)
    if now is not None and (now.value, now.words, now.standing) == (
        made.value,
        made.words,
        made.standing,
    ):
        return []
    return [made]


def restated(
    known: Sequence[Measurement],
    quantity: str,
    value: float | str | None,
    standing: Standing,
    on: str,
) -> list[Measurement]:
    """The same, where the tester takes back what was said before: values of a better standing are
    struck.
    """
    changes = stated_again(known, quantity, value, standing, on)
    if value is None or not changes:
        return changes
    better = STANDINGS[: STANDINGS.index(standing)]
    taken_back = [
        m for m in known if m.quantity == quantity and not m.struck and m.standing in better
    ]
    return [*changes, *(replace(m, struck="restated with another standing") for m in taken_back)]


def completed(measurement: Measurement, blade: Blade, on: str) -> Measurement:
    """A measurement with its value worked out from its readings or stations, checked."""
    if measurement.quantity not in QUANTITIES:
        check(measurement)
    details = measurement.details
    value = measurement.value
    if measurement.quantity == "hardness_hrc" and details.get("readings"):
        value = hardness_summary(details, blade).mean_hrc
    elif measurement.quantity == "thickness_behind_edge_mm" and details.get("stations"):
        value = _stations_mean(details["stations"], blade.edge_length_mm)
    elif measurement.quantity == "start_gf" and details.get("readings"):
        for reading in details["readings"]:
            check(replace(measurement, value=reading))
        value = math.exp(
            math.fsum(math.log(r) for r in details["readings"]) / len(details["readings"])
        )
    made = replace(measurement, value=value, words=measurement.words.strip(), recorded_utc=on)
    check(made)
    return made


def hardness_summary(details: Mapping[str, Any], blade: Blade) -> HardnessSummary:
    """Individual Rockwell readings of one day, summed up with their warnings."""
    return summarise(
        details["readings"],
        after_change=bool(details.get("after_change")),
        block_nominal_hrc=details.get("block_nominal_hrc"),
        block_readings_hrc=details.get("block_readings") or (),
        stock_mm=blade.value("stock_mm"),
        tapered=bool(details.get("tapered")),
        spacing_mm=details.get("spacing_mm"),
        from_edge_mm=details.get("from_edge_mm"),
    )


def stations_of(edge: Edge) -> Stations | None:
    """The stations of the thickness in use, summed up; None where it was not taken at stations."""
    found = used(edge.measurements, "thickness_behind_edge_mm")
    stations = found.details.get("stations") if found else None
    return (
        summarise_stations([s["value_mm"] for s in stations], THICKNESS_SPREAD_MM)
        if stations
        else None
    )


def _stations_mean(stations: Sequence[Mapping[str, float]], edge_length_mm: float | None) -> float:
    quantity = QUANTITIES["thickness_behind_edge_mm"]
    for station in stations:
        if station["position_mm"] < 0 or (
            edge_length_mm is not None and station["position_mm"] > edge_length_mm
        ):
            end = "the edge" if edge_length_mm is None else f"the edge of {edge_length_mm:g} mm"
            raise OutOfRangeError(
                f"a station at {station['position_mm']:g} mm lies beyond {end}",
                field="thickness_behind_edge_mm",
            )
        check(Measurement("", quantity.name, station["value_mm"]))
    return summarise_stations([s["value_mm"] for s in stations], THICKNESS_SPREAD_MM).mean_mm


@dataclass(frozen=True)
class Expected:
    """A thickness that went stale with the last sharpening: from which edge, and what it should be
    by now.
    """

    from_edge: int
    was_mm: float
    now_mm: float | None

    def words(self) -> str:
        if self.now_mm is None:
            return (
                f"thickness went stale: measured on edge {self.from_edge} ({self.was_mm:.2f} mm), "
                "and how much steel went since is not known"
            )
        return (
            f"thickness went stale: measured on edge {self.from_edge} ({self.was_mm:.2f} mm), "
            f"about {self.now_mm:.2f} mm expected now; measure it"
        )


def expected_thickness(blade: Blade, edge: Edge) -> Expected | None:
    """What the thickness of an edge should have grown to since it was last measured; None where it
    is measured, or never was.
    """
    if edge.value("thickness_behind_edge_mm") is not None:
        return None
    earlier = [
        e
        for e in blade.edges
        if e.number < edge.number and e.value("thickness_behind_edge_mm") is not None
    ]
    if not earlier:
        return None
    last = earlier[-1]
    was = last.value("thickness_behind_edge_mm")
    assert was is not None
    since = [e for e in blade.edges if last.number < e.number <= edge.number]
    grind = blade.value("primary_grind_side_deg")
    removed = [e.steel_removed_mm for e in since if e.steel_removed_mm is not None]
    if grind is None or len(removed) < edge.number - last.number:
        return Expected(last.number, was, None)
    return Expected(last.number, was, was + thickness_growth_mm(math.fsum(removed), grind))


def edges_cut(blade: Blade, runs: Iterable[Run]) -> list[Edge]:
    """The edges cut in counted runs."""
    cut = {run.edge_id for run in runs if not run.practice}
    return [edge for edge in blade.edges if edge.id in cut]


def edge_waits(blade: Blade, used_up: Collection[str]) -> bool:
    """Whether the newest edge is sharpened and still to be cut; `used_up` holds the ids of edges
    cut in any trial.
    """
    newest = blade.edges[-1:]
    return bool(newest) and newest[0].id not in used_up and not newest[0].factory


def edges_in_use(blade: Blade, runs: Iterable[Run], used_up: Collection[str] = ()) -> list[Edge]:
    """The edges a comparison rests on, and the newest one where it is still to be cut.

    `used_up` holds the ids of edges that other trials have cut.
    """
    cut = edges_cut(blade, runs)
    waiting = [edge for edge in blade.edges[-1:] if edge not in cut and edge.id not in used_up]
    return [*cut, *waiting]


def settled_edge(blade: Blade, edge: Edge, rule: SettledRule) -> Settled:
    """Whether an edge counts under a trial's rule."""
    return settled(edge.number, [e.sharpening for e in blade.edges], rule)


def left_out(
    blades: Sequence[Blade], runs: Sequence[Run], rule: SettledRule
) -> dict[tuple[str, int], str]:
    """The cut edges that do not count, by blade code and number, with the reason.

    Where every edge cut is a factory edge, that is the question, and they are compared with each
    other.
    """
    cut = [(blade, edge) for blade in blades for edge in edges_cut(blade, runs)]
    factory_is_the_question = bool(cut) and all(edge.factory for _, edge in cut)
    found = {}
    for blade, edge in cut:
        state = settled_edge(blade, edge, rule)
        if state.state == "not_yet" or (state.state == "factory" and not factory_is_the_question):
            found[blade.code, edge.number] = state.says
    return found


def usual_hardness(blade: Blade, grades: Mapping[str, Grade]) -> tuple[float, float] | None:
    """How the blade's grade is usually hardened: as said of this blade, else by the shelf, else by
    common practice.
    """
    low, high = blade.usual_hardness_low_hrc, blade.usual_hardness_high_hrc
    if low is not None and high is not None:
        return low, high
    grade = (blade.claimed_grade or "").strip()
    own = grades.get(grade)
    if own is not None and own.usual_low_hrc is not None and own.usual_high_hrc is not None:
        return own.usual_low_hrc, own.usual_high_hrc
    return USUAL_HRC.get(grade)


def blade_facts(
    blade: Blade,
    edges: Sequence[Edge],
    rule: SettledRule,
    grades: Mapping[str, Grade] | None = None,
) -> BladeFacts:
    """What matching needs to know of a blade and these of its edges."""
    hardness = blade.used("hardness_hrc")
    length = blade.used("edge_length_mm")
    by_edge = {
        "side_angle_deg": [_fact(edge, "side_angle_deg") for edge in edges],
        "micro_bevel_side_deg": [_fact(edge, "micro_bevel_side_deg") for edge in edges],
        "thickness_behind_edge_mm": [_thickness(blade, edge) for edge in edges],
        "final_abrasive_um": [_abrasive(edge) for edge in edges],
        "start_gf": [_start(edge) for edge in edges],
        "edge_length_mm": (
            [Fact(length.value, length.standing)] * max(len(edges), 1) if length else []
        ),
    }
    own = {name: _own(blade, name) for name in (*_OWN_WORDS, "stock_mm")}
    return BladeFacts(
        code=blade.code,
        grade=blade.claimed_grade,
        hardness_hrc=Fact(hardness.value, hardness.standing) if hardness else Fact(),
        usual_hardness_hrc=usual_hardness(blade, grades or {}),
        edges=by_edge,
        micro_bevel_known=any(edge.value("side_angle_deg") is not None for edge in edges),
        own=own,
        settled=[(edge.number, settled_edge(blade, edge, rule)) for edge in edges],
    )


def _fact(edge: Edge, quantity: str) -> Fact:
    found = used(edge.measurements, quantity)
    return Fact(found.value, found.standing) if found else Fact()


def _thickness(blade: Blade, edge: Edge) -> Fact:
    expected = expected_thickness(blade, edge)
    if expected is None:
        return _fact(edge, "thickness_behind_edge_mm")
    return Fact(expected=expected.now_mm or expected.was_mm, says=expected.words())


def _abrasive(edge: Edge) -> Fact:
    size, kind = final_abrasive(edge.steps)
    return Fact(size, kind=kind) if size is not None else Fact()


def _start(edge: Edge) -> Fact:
    found = used(edge.measurements, "start_gf")
    if found is None:
        return Fact()
    return Fact(found.value, found.standing, readings=len(found.details.get("readings") or (1,)))


def _own(blade: Blade, quantity: str) -> Fact:
    found = blade.used(quantity)
    if found is None:
        return Fact()
    return Fact(found.value if found.value is not None else found.words, found.standing)
