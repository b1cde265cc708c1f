"""Edges over the wire: sharpenings with their steps, zones and what was seen on them."""

from kessik.api.schemas.edges import (
    EdgeOut,
    StationsOut,
    StepBody,
)
from kessik.api.views.measurements import histories
from kessik.core.sharpening.regimes import Step, total_strokes_per_side
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.shelf.facts import expected_thickness, stations_of
from kessik.core.words.facts import expected_words


def step_bodies(steps: tuple[Step, ...]) -> list[StepBody]:
    """The steps of an edge or a recipe."""
    return [StepBody.showing(step) for step in steps]


def edge_out(edge: Edge, blade: Blade) -> EdgeOut:
    """An edge with what is known of it."""
    stations = stations_of(edge)
    expected = expected_thickness(blade, edge)
    return EdgeOut.showing(
        edge,
        side_angle_deg=edge.value("side_angle_deg"),
        micro_bevel_side_deg=edge.value("micro_bevel_side_deg"),
        thickness_behind_edge_mm=edge.value("thickness_behind_edge_mm"),
        start_gf=edge.value("start_gf"),
        strokes_per_side=total_strokes_per_side(edge.steps),
        measurements=histories(edge.measurements),
        stations=(StationsOut.showing(stations, range_mm=stations.range_mm) if stations else None),
        expected_thickness=expected_words(expected) if expected else "",
    )
