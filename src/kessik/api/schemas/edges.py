"""Edges over the wire: sharpenings with their steps, zones and what was seen on them."""

from typing import Annotated, Any, ClassVar

from kessik.api.schemas.common import Bounded, Finite, Id, Wire
from kessik.api.schemas.measurements import MeasurementOut
from kessik.api.schemas.records import Answer, Body, plain
from kessik.core.facts import entered
from kessik.core.geometry import Stations, Zone
from kessik.core.sharpening.regimes import Step
from kessik.core.sharpening.settled import SettledState
from kessik.core.sharpening.strop_back import StropBack
from kessik.core.shelf.edges import Damage, Edge


class StepBody(Body[Step]):
    """One step of a regime."""


class ZoneBody(Body[Zone]):
    """A stretch of an edge, mm from the heel."""


class DamageBody(Body[Damage]):
    """Something seen at a place on the edge."""


class EdgeBody(Body[Edge], without="blade_id measurements other"):
    """A sharpening, or changes to one: what is not sent stays as it is.

    The three values become measurements, made here; a null among them says that it is not known
    after all.
    """

    stated: ClassVar[tuple[str, ...]] = (
        "side_angle_deg",
        "micro_bevel_side_deg",
        "thickness_behind_edge_mm",
    )

    id: Id
    number: Annotated[int, Bounded("edge_number")] | None = None
    side_angle_deg: Finite | None = None
    micro_bevel_side_deg: Finite | None = None
    thickness_behind_edge_mm: Finite | None = None

    def sent_values(self) -> dict[str, float | None]:
        """The stated values that were sent."""
        return {name: getattr(self, name) for name in self.stated if name in self.model_fields_set}

    def changes(self) -> dict[str, Any]:
        """What was sent of the rest, as the record holds it."""
        rest = self.model_fields_set - set(self.stated) - {"id", "number"}
        sent: dict[str, Any] = {name: plain(getattr(self, name)) for name in rest}
        if "arm" in sent:
            sent["arm"] = sent["arm"].strip()
        return sent

    def made(self, blade_id: str, place: int, now_utc: str) -> Edge:
        """The edge with its first measurements; numbered by its place where no number was sent."""
        first = [(name, value) for name, value in self.sent_values().items() if value is not None]
        return Edge(
            self.id,
            blade_id,
            self.number or place,
            measurements=tuple(
                entered(self.id, name, value, "measured_here", now_utc) for name, value in first
            ),
            **self.changes(),
        )


class SettledOut(Wire):
    """Whether an edge counts under a rule, and why."""

    state: SettledState
    says: str


class StationsOut(Answer[Stations]):
    """Thickness at stations, summed up."""

    range_mm: float


class EdgeOut(Answer[Edge], without="blade_id other"):
    """An edge with what is known of it."""

    side_angle_deg: float | None
    micro_bevel_side_deg: float | None
    thickness_behind_edge_mm: float | None
    start_gf: float | None
    measurements: list[MeasurementOut]
    strokes_per_side: int
    stations: StationsOut | None
    expected_thickness: str


class StropBackOut(Answer[StropBack]):
    """What so many strokes on the strop brought back of the loss, as a share with 95 % bounds."""
