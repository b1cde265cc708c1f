"""Plain objects that the queries hand out: what is kept of trials, blades, edges and runs."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from kessik.core.comparison.matching import MatchingRule, Standing
from kessik.core.protocols.methods import Method


@dataclass(frozen=True)
class Moment:
    """A time in UTC (ISO 8601) with the offset it was made at, in minutes."""

    utc: str
    offset_minutes: int = 0


@dataclass(frozen=True)
class Trial:
    """One question put to several blades under one method."""

    id: str
    name: str
    created: Moment
    question: str = ""
    rule: MatchingRule = field(default_factory=MatchingRule)
    method: Method = field(default_factory=Method)
    edges_per_blade: int = 2
    medium: str = ""
    rope_diameter_mm: float | None = None
    source: str = "bench"


@dataclass(frozen=True)
class Edge:
    """One sharpening of one blade; `other` keeps columns of a file that Kessik does not use yet."""

    id: str
    blade_id: str
    number: int
    side_angle_deg: float | None = None
    micro_bevel_side_deg: float | None = None
    thickness_behind_edge_mm: float | None = None
    note: str = ""
    other: Mapping[str, Any] = field(default_factory=dict)


@dataclass(frozen=True)
class Blade:
    """A physical specimen with its edges; `place` is its place in the trial and decides its mark."""

    id: str
    code: str
    place: int = 0
    claimed_grade: str | None = None
    hardness_hrc: float | None = None
    hardness_standing: Standing = "measured_here"
    usual_hardness_low_hrc: float | None = None
    usual_hardness_high_hrc: float | None = None
    edge_length_mm: float | None = None
    note: str = ""
    other: Mapping[str, Any] = field(default_factory=dict)
    edges: tuple[Edge, ...] = ()

    def edge(self, number: int) -> Edge | None:
        return next((edge for edge in self.edges if edge.number == number), None)


@dataclass(frozen=True)
class Run:
    """One edge (or zone) cut under one method."""

    id: str
    trial_id: str
    edge_id: str
    number: int
    started: Moment
    practice: bool = False
    practice_seed: int | None = None
    count_unit: str = "cuts"
    zone_from_mm: float | None = None
    zone_to_mm: float | None = None
    edge_length_used_mm: float | None = None
    other: Mapping[str, Any] = field(default_factory=dict)
