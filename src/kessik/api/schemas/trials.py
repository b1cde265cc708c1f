"""Trials, blades and edges over the wire."""

from typing import Any, ClassVar, Literal

from pydantic import Field

from kessik.api.schemas.common import FactorName, Finite, Id, LongText, ShortText, StandingName, Wire
from kessik.core.comparison.matching import Cell, Variable
from kessik.services.trials import LineUp
from kessik.services.verdicts import TrialRun
from kessik.store.records import Blade, Edge, Trial


class EdgeBody(Wire):
    """One sharpening of a blade."""

    id: Id
    number: int = Field(ge=1, le=10000)
    side_angle_deg: Finite | None = None
    micro_bevel_side_deg: Finite | None = None
    thickness_behind_edge_mm: Finite | None = None
    note: LongText = ""

    @classmethod
    def of(cls, edge: Edge) -> "EdgeBody":
        return cls(**{name: getattr(edge, name) for name in cls.model_fields})

    def record(self, blade_id: str) -> Edge:
        return Edge(blade_id=blade_id, **self.model_dump())


class BladeBody(Wire):
    """A blade with its edges."""

    id: Id
    code: ShortText
    claimed_grade: ShortText | None = None
    hardness_hrc: Finite | None = None
    hardness_standing: StandingName = "measured_here"
    usual_hardness_low_hrc: Finite | None = None
    usual_hardness_high_hrc: Finite | None = None
    edge_length_mm: Finite | None = None
    note: LongText = ""
    edges: list[EdgeBody] = Field(default_factory=list)

    def record(self) -> Blade:
        own = self.model_dump(exclude={"edges"})
        return Blade(**own, edges=tuple(edge.record(self.id) for edge in self.edges))


class BladeOut(BladeBody):
    """A blade in its place in the trial; the place decides its mark."""

    place: int

    @classmethod
    def of(cls, blade: Blade) -> "BladeOut":
        own = {name: getattr(blade, name) for name in cls.model_fields if name != "edges"}
        return cls(**own, edges=[EdgeBody.of(edge) for edge in blade.edges])


class Patch(Wire):
    """Some fields of a thing; what is not sent stays, and null empties a field that may be empty."""

    emptiable: ClassVar[frozenset[str]] = frozenset()

    def changes(self) -> dict[str, Any]:
        sent = self.model_dump(exclude_unset=True)
        return {name: value for name, value in sent.items() if value is not None or name in self.emptiable}


class BladePatch(Patch):
    """Facts of a blade to change."""

    emptiable = frozenset(
        {"claimed_grade", "hardness_hrc", "usual_hardness_low_hrc", "usual_hardness_high_hrc", "edge_length_mm"}
    )

    code: ShortText | None = None
    claimed_grade: ShortText | None = None
    hardness_hrc: Finite | None = None
    hardness_standing: StandingName | None = None
    usual_hardness_low_hrc: Finite | None = None
    usual_hardness_high_hrc: Finite | None = None
    edge_length_mm: Finite | None = None
    note: LongText | None = None


class TrialBody(Wire):
    """A new trial."""

    id: Id
    name: ShortText
    question: LongText = ""
    factor: FactorName = "steel"
    hardness_reading: Literal["same_hardness", "as_usually_hardened"] = "same_hardness"
    tolerances: dict[str, Finite] = Field(default_factory=dict)
    keen_gf: Finite = 300.0
    dull_gf: Finite = 400.0
    schedule: Literal["adaptive", "every"] = "adaptive"
    every: int = Field(default=1, ge=1, le=10000)
    edges_per_blade: int = Field(default=2, ge=1, le=100)
    medium: ShortText = ""
    rope_diameter_mm: Finite | None = None


class TrialPatch(Patch):
    """Settings of a trial to change."""

    emptiable = frozenset({"rope_diameter_mm"})

    name: ShortText | None = None
    question: LongText | None = None
    factor: FactorName | None = None
    hardness_reading: Literal["same_hardness", "as_usually_hardened"] | None = None
    tolerances: dict[str, Finite] | None = None
    keen_gf: Finite | None = None
    dull_gf: Finite | None = None
    schedule: Literal["adaptive", "every"] | None = None
    every: int | None = Field(default=None, ge=1, le=10000)
    edges_per_blade: int | None = Field(default=None, ge=1, le=100)
    medium: ShortText | None = None
    rope_diameter_mm: Finite | None = None


class TrialOut(Wire):
    """A trial as it is kept, with its stop rule in words."""

    id: str
    name: str
    question: str
    factor: FactorName
    hardness_reading: Literal["same_hardness", "as_usually_hardened"]
    tolerances: dict[str, float]
    keen_gf: float
    dull_gf: float
    schedule: Literal["adaptive", "every"]
    every: int
    edges_per_blade: int
    medium: str
    rope_diameter_mm: float | None
    created_utc: str
    source: str
    ends_when: str

    @classmethod
    def of(cls, trial: Trial) -> "TrialOut":
        return cls(
            id=trial.id,
            name=trial.name,
            question=trial.question,
            factor=trial.rule.factor,  # type: ignore[arg-type]  # checked on entry
            hardness_reading=trial.rule.hardness_reading,
            tolerances=dict(trial.rule.tolerances),
            keen_gf=trial.method.keen_gf,
            dull_gf=trial.method.dull_gf,
            schedule=trial.method.schedule,
            every=trial.method.every,
            edges_per_blade=trial.edges_per_blade,
            medium=trial.medium,
            rope_diameter_mm=trial.rope_diameter_mm,
            created_utc=trial.created.utc,
            source=trial.source,
            ends_when=trial.method.ends_when(),
        )


class VariableOut(Wire):
    """A held-equal variable with the tolerance in force."""

    name: str
    label: str
    unit: str
    tolerance: float
    decimals: int
    factor: str

    @classmethod
    def of(cls, variable: Variable, tolerance: float) -> "VariableOut":
        own = {name: getattr(variable, name) for name in cls.model_fields if name != "tolerance"}
        return cls(**own, tolerance=tolerance)


class CellOut(Wire):
    """One blade at one variable."""

    blade: str
    variable: str
    value: float | None
    standing: str | None
    state: Literal["matched", "factor", "confounded", "pending"]
    says: str

    @classmethod
    def of(cls, cell: Cell) -> "CellOut":
        return cls(**{name: getattr(cell, name) for name in cls.model_fields})


class RunBrief(Wire):
    """A run in one line."""

    id: str
    blade_id: str
    edge_id: str
    edge: int
    number: int
    practice: bool
    status: Literal["fresh", "cutting", "paused", "stopped", "abandoned"]
    count: float
    count_unit: str
    started_utc: str
    zone_from_mm: float | None
    zone_to_mm: float | None
    worn_share: float

    @classmethod
    def of(cls, r: TrialRun) -> "RunBrief":
        run, blade, edge = r.run, r.blade, r.edge
        return cls(
            id=run.id,
            blade_id=blade.id,
            edge_id=edge.id,
            edge=edge.number,
            number=run.number,
            practice=run.practice,
            status=r.state.status,
            count=r.state.count,
            count_unit=run.count_unit,
            started_utc=run.started.utc,
            zone_from_mm=run.zone_from_mm,
            zone_to_mm=run.zone_to_mm,
            worn_share=r.worn_share,
        )


class NextStepOut(Wire):
    """What to do next in a trial."""

    kind: Literal["add_blades", "go_on", "start_run", "read_verdict"]
    says: str
    run_id: str | None
    blade_id: str | None


class LineUpOut(Wire):
    """The line-up: blades by variables, what is open, and what an answer could speak of."""

    trial: TrialOut
    blades: list[BladeOut]
    variables: list[VariableOut]
    cells: list[CellOut]
    pending: list[str]
    scope: str
    says: str
    runs: list[RunBrief]
    next_step: NextStepOut


def line_up_parts(found: LineUp, variables: list[VariableOut]) -> dict[str, object]:
    """The parts of a line-up that come straight from the use case."""
    return {
        "trial": TrialOut.of(found.trial),
        "blades": [BladeOut.of(blade) for blade in found.blades],
        "variables": variables,
        "cells": [CellOut.of(cell) for cell in found.cells],
        "pending": list(found.pending),
        "scope": found.scope,
    }
