"""The mussel growers' first trial: raft rope to the force limits, dated in the days before the demo is started."""

from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import count
from uuid import NAMESPACE_URL, uuid5

import numpy as np

from kessik.core.comparison.matching import MatchingRule, Standing
from kessik.core.protocols.events import BenchEvent, EventKind
from kessik.core.protocols.methods import Method
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import TrueEdge, true_edge
from kessik.services.bench import append_event, plan_check, start_run
from kessik.services.trials import add_blade, make_trial
from kessik.store.database import Database
from kessik.store.records import Blade, Edge, Moment, Run, Trial

SEED = 20260
TRIAL_ID = str(uuid5(NAMESPACE_URL, "kessik:demo:raft-rope"))
_SECONDS_A_CUT = 38
_TESTER = SimulatedTester(scatter=0.05, outlier_share=0.01)


@dataclass(frozen=True)
class DemoEdge:
    """An edge of the scenario; `stop_after` leaves its run in progress at that count."""

    number: int
    life: float
    side_angle_deg: float
    thickness_behind_edge_mm: float
    days_ago: int
    stop_after: float | None = None
    cut: bool = True


@dataclass(frozen=True)
class DemoBlade:
    """A blade of the scenario with its edges."""

    code: str
    grade: str
    kind: str
    hardness_hrc: float | None
    edges: tuple[DemoEdge, ...]
    note: str = ""
    standing: Standing = "measured_here"


BLADES = (
    DemoBlade(
        "AV-01", "1.4034", "levelling", 57.4,
        (DemoEdge(3, 13.2, 15.0, 0.36, 9), DemoEdge(4, 13.9, 15.2, 0.38, 6)),
        "what the crews have now; low reference",
    ),
    DemoBlade(
        "AV-02", "1.4112", "burr_then_wear", 58.1,
        (DemoEdge(3, 23.0, 15.1, 0.37, 9), DemoEdge(4, 24.6, 15.0, 0.39, 5)),
        "the obvious upgrade",
    ),
    DemoBlade(
        "AV-03", "1.2436", "logarithmic", 60.4,
        (DemoEdge(3, 21.0, 15.0, 0.71, 8),),
        "ground for another job: twice as thick behind the edge",
    ),
    DemoBlade(
        "AV-05", "1.3344", "levelling", None,
        (DemoEdge(3, 38.5, 14.8, 0.35, 8), DemoEdge(4, 40.5, 15.1, 0.37, 4), DemoEdge(5, 39.5, 15.0, 0.38, 0, 21)),
        "powder grade; high reference, hardness to follow",
    ),
)  # fmt: skip


def build(db: Database, today: datetime) -> None:
    """Fill an empty database with the scenario; `today` carries the local offset. Built once, the same every time."""
    offset = today.utcoffset() or timedelta()
    minutes = int(offset.total_seconds() // 60)

    def moment(days_ago: int, hour: float) -> Moment:
        local = (today - timedelta(days=days_ago)).replace(hour=0, minute=0, second=0, microsecond=0)
        return Moment((local - offset + timedelta(hours=hour)).replace(tzinfo=None).isoformat() + "+00:00", minutes)

    make_trial(
        db,
        Trial(
            id=TRIAL_ID,
            name="Raft rope, before the season",
            question="Which steel keeps its edge longest in wet, gritty dropper rope?",
            created=moment(12, 9),
            rule=MatchingRule("steel", "as_usually_hardened"),
            method=Method(schedule="adaptive"),
            edges_per_blade=2,
            medium="32 mm hemp dropper rope, lot 7",
            rope_diameter_mm=32,
            source="demo",
        ),
    )
    rng = np.random.default_rng(SEED)
    usual = {"1.4034": (55.0, 58.0), "1.4112": (57.0, 60.0), "1.2436": (60.0, 63.0), "1.3344": (63.0, 66.0)}
    for blade in BLADES:
        _blade(db, blade, usual[blade.grade])
    for blade, edge in sorted(
        ((b, e) for b in BLADES for e in b.edges if e.cut), key=lambda pair: (-pair[1].days_ago, pair[0].code)
    ):
        shape = np.random.default_rng([SEED, *blade.code.encode()])
        truth = true_edge(blade.kind, edge.life, shape, start_gf=float(148 * np.exp(rng.normal(0, 0.04))))
        _cut(db, blade, edge, truth, moment(edge.days_ago, 8.5 + 2.2 * BLADES.index(blade)), rng)


def _id(*parts: object) -> str:
    return str(uuid5(NAMESPACE_URL, ":".join(["kessik", "demo", *map(str, parts)])))


def _blade(db: Database, blade: DemoBlade, usual: tuple[float, float]) -> None:
    blade_id = _id(blade.code)
    edges = tuple(
        Edge(
            _id(blade.code, edge.number),
            blade_id,
            edge.number,
            side_angle_deg=edge.side_angle_deg,
            thickness_behind_edge_mm=edge.thickness_behind_edge_mm,
        )
        for edge in blade.edges
    )
    add_blade(
        db,
        TRIAL_ID,
        Blade(
            id=blade_id,
            code=blade.code,
            claimed_grade=blade.grade,
            hardness_hrc=blade.hardness_hrc,
            hardness_standing=blade.standing,
            usual_hardness_low_hrc=usual[0],
            usual_hardness_high_hrc=usual[1],
            edge_length_mm=96,
            note=blade.note,
            edges=edges,
        ),
    )


def _cut(
    db: Database, blade: DemoBlade, edge: DemoEdge, truth: TrueEdge, start: Moment, rng: np.random.Generator
) -> None:
    """Cut one edge at the bench as a tester would: check when told to, cut in between, stop when the rule says so."""
    run_id = _id(blade.code, edge.number, "run")
    run = Run(run_id, TRIAL_ID, _id(blade.code, edge.number), 1, start, zone_from_mm=12, zone_to_mm=76)
    state = start_run(db, run).state
    clock = datetime.fromisoformat(start.utc)
    device = f"demo-bench-{blade.code}-{edge.number}"
    for sequence in count(1):
        if not state.plan_is_current:
            state = plan_check(db, run_id, clock.isoformat()).state
        if state.status == "stopped" or (edge.stop_after is not None and state.count >= edge.stop_after):
            return
        kind: EventKind = "reading" if state.check_due else "cut"
        payload: dict[str, object] = {"amount": 1}
        if state.check_due:
            reading = _TESTER.read_gf(float(truth.force_gf(state.count)[0]), rng)
            payload = {"check": "force", "value": reading, "unit": "gf", "source": "virtual"}
        clock += timedelta(seconds=25 if state.check_due else _SECONDS_A_CUT)
        time = clock.isoformat()
        event = BenchEvent(_id(run_id, sequence), kind, device, sequence, state.position, state.count, time, payload)
        state = append_event(db, run_id, event, time).state
