"""The blades of the scenario: what they are, how they were sharpened, and how their edges truly
fall.
"""

from dataclasses import dataclass

from kessik.core.sharpening.regimes import Step
from kessik.core.shelf.blades import TrialRole
from kessik.core.shelf.edges import DamageKind

STATIONS_MM = (16.0, 48.0, 80.0)

RECIPE_STEPS = (
    Step(
        "diamond plate",
        "diamond",
        45.0,
        "mesh 325",
        15.0,
        40,
        "firm",
        "until a burr runs from heel to tip",
    ),
    Step("water stone", "alumina stone", 11.5, "JIS 1000", 15.0, 30, "medium"),
    Step("water stone", "alumina stone", 4.0, "JIS 3000", 15.0, 20, "light"),
    Step("leather strop", "alumina stone", 1.0, "", 15.0, 10, "light", "edge trailing"),
)


@dataclass(frozen=True)
class DemoEdge:
    """An edge of the scenario; `stop_after` leaves its run in progress at that count, `life` None
    is not cut.
    """

    number: int
    life: float | None
    side_angle_deg: float
    thickness_behind_edge_mm: float | None
    days_ago: int
    stop_after: float | None = None
    minutes: float = 14.0
    trouble: str = ""
    seen: tuple[tuple[float, DamageKind], ...] = ()


@dataclass(frozen=True)
class DemoBlade:
    """A blade of the scenario with its edges; `claimed_hrc` where its hardness is only said."""

    code: str
    grade: str
    kind: str
    readings_hrc: tuple[float, ...]
    edges: tuple[DemoEdge, ...]
    note: str = ""
    role: TrialRole = ""
    claimed_hrc: float | None = None
    loan_due_in_days: int | None = None
    price: str = ""
    austenitising_c: float | None = None
    tempers_c: tuple[float, ...] = ()


RAFT_BLADES = (
    DemoBlade(
        "AV-01", "1.4034", "levelling", (57.1, 57.6, 57.5),
        (
            DemoEdge(3, 13.2, 15.0, 0.36, 9, minutes=11.0),
            DemoEdge(4, 13.9, 15.2, 0.38, 6, minutes=10.5, seen=((33.0, "glint"), (35.5, "glint"))),
            DemoEdge(5, None, 15.0, None, 1, minutes=10.0),
        ),
        "what the crews have now; low reference", "low_reference", price="310 kr",
        austenitising_c=1040.0,
        tempers_c=(200.0, 200.0),
    ),
    DemoBlade(
        "AV-02", "1.4112", "burr_then_wear", (57.9, 58.3, 58.1),
        (
            DemoEdge(3, 23.0, 15.1, 0.37, 9, minutes=15.0,
                trouble="burr clung to the tip, last step twice"),
            DemoEdge(4, 24.6, 15.0, 0.39, 5, minutes=16.5, trouble="burr again"),
        ),
        "the obvious upgrade", price="640 kr", austenitising_c=1050.0, tempers_c=(180.0, 180.0),
    ),
    DemoBlade(
        "AV-03", "1.2436", "logarithmic", (60.2, 60.6, 60.4),
        (DemoEdge(3, 21.0, 15.0, 0.71, 8, minutes=26.0, seen=((41.0, "chip"),)),),
        "ground for another job: twice as thick behind the edge", loan_due_in_days=12,
        price="560 kr",
    ),
    DemoBlade(
        "AV-05", "1.3344", "levelling", (),
        (
            DemoEdge(3, 38.5, 14.8, 0.35, 8, minutes=31.0, trouble="slow on the plate"),
            DemoEdge(4, 40.5, 15.1, 0.37, 4, minutes=29.0),
            DemoEdge(5, 39.5, 15.0, 0.38, 0, 21, minutes=30.0),
        ),
        "powder grade; high reference, hardness to follow", "high_reference", claimed_hrc=65.0,
        loan_due_in_days=3,
        price="1450 kr",
    ),
)  # fmt: skip  # a table is read by its rows

UNFAIR_BLADES = (
    DemoBlade(
        "AV-06", "1.2436", "logarithmic", (58.2, 58.5, 58.3),
        (DemoEdge(3, 19.5, 15.1, 0.38, 10, minutes=17.0),),
        "sold to the forge as 1.2436", loan_due_in_days=-1, price="560 kr",
    ),
    DemoBlade(
        "AV-04", "1.2842", "levelling", (55.2, 55.5, 55.2),
        (DemoEdge(3, 11.0, 15.0, 0.77, 10, minutes=9.0),),
        "the rust baseline: must rust in every soak", price="180 kr",
    ),
)  # fmt: skip  # a table is read by its rows
