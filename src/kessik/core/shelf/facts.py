"""What is known of blades and edges, completed from its details; thickness that went stale."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from kessik.core.composition.grades import Grade, find_grade
from kessik.core.errors import OutOfRangeError
from kessik.core.facts import QUANTITIES, Expected, Measurement, check, used
from kessik.core.geometry import Stations, summarise_stations, thickness_growth_mm
from kessik.core.hardness import HardnessSummary, summarise
from kessik.core.sharpening.settled import Settled, SettledRule, settled
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge

THICKNESS_SPREAD_MM = 0.05


def completed(measurement: Measurement, blade: Blade, on: str) -> Measurement:
    """A measurement with its value worked out from its readings or stations, checked."""
    if measurement.quantity not in QUANTITIES:
        check(measurement)
    details = measurement.details
    value = measurement.value
    if measurement.quantity == "hardness_hrc" and details.get("readings"):
        value = hardness_summary(details, blade).mean_hrc
        _check_places(details, blade.edge_length_mm)
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


def _check_places(details: Mapping[str, Any], edge_length_mm: float | None) -> None:
    """Places of hardness readings, mm from the heel: one for each reading, on the blade."""
    places = details.get("places_mm") or ()
    if places and len(places) != len(details["readings"]):
        raise OutOfRangeError(
            f"{len(places)} places for {len(details['readings'])} readings; give one for each, or"
            " none",
            field="places_mm",
        )
    for place in places:
        if place < 0 or (edge_length_mm is not None and place > edge_length_mm):
            end = "the blade" if edge_length_mm is None else f"the {edge_length_mm:g} mm of edge"
            raise OutOfRangeError(
                f"a reading at {place:g} mm lies beyond {end}", field="places_mm", value=place
            )


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


def stations_mm(edge: Edge) -> list[float]:
    """The places where the edge's thickness in use was measured, mm from the heel."""
    measured = used(edge.measurements, "thickness_behind_edge_mm")
    stations = measured.details.get("stations", ()) if measured else ()
    return [float(station["position_mm"]) for station in stations]


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


def settled_edge(blade: Blade, edge: Edge, rule: SettledRule) -> Settled:
    """Whether an edge counts under a trial's rule."""
    return settled(edge.number, [e.sharpening for e in blade.edges], rule)


def usual_hardness(blade: Blade, grades: Mapping[str, Grade]) -> tuple[float, float] | None:
    """How the blade's grade is usually hardened: as said of this blade, else by the shelf, else by
    common practice.
    """
    low, high = blade.usual_hardness_low_hrc, blade.usual_hardness_high_hrc
    if low is not None and high is not None:
        return low, high
    known = find_grade(blade.claimed_grade or "", grades)
    if known is None or known.usual_low_hrc is None or known.usual_high_hrc is None:
        return None
    return known.usual_low_hrc, known.usual_high_hrc
