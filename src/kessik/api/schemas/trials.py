"""Trials, blades and edges over the wire."""

from collections.abc import Sequence
from dataclasses import asdict
from typing import Annotated, Any

from pydantic import Field

from kessik.api.schemas.common import Bounded, Day, Finite, Id, LongText, ShortText, Wire
from kessik.api.schemas.methods import MethodBody, MethodOut
from kessik.api.schemas.shelf import BladeOut, Patch
from kessik.core.comparison.findings import Mismatch
from kessik.core.comparison.matching import (
    Cell,
    HardnessReading,
    MatchingRule,
    MatchState,
    Variable,
)
from kessik.core.comparison.remedies import Remedy, WayKind
from kessik.core.comparison.variables import Factor, VariableKind
from kessik.core.facts import Owner
from kessik.core.limits import most
from kessik.core.moments import Moment
from kessik.core.protocols.run_state import RunStatus
from kessik.core.sharpening.settled import RuleKind
from kessik.core.shelf.blades import TrialRole
from kessik.core.trials.next_step import StepKind
from kessik.core.trials.state import TrialRun, covered
from kessik.core.trials.trial import Trial
from kessik.core.words.matching import (
    cell_words,
    mismatch_words,
    open_lines,
    tolerance_words,
    way_words,
)
from kessik.core.words.settled import rule_words
from kessik.services.trials.blind import blind_codes
from kessik.services.trials.line_up import LineUp


class TrialBody(Wire):
    """A new trial."""

    id: Id
    name: ShortText
    question: LongText = ""
    factor: Factor = "steel"
    hardness_reading: HardnessReading = "same_hardness"
    tolerances: dict[str, Finite] = Field(default_factory=dict)
    effects: dict[str, Finite] = Field(default_factory=dict)
    let_go: list[ShortText] = Field(default_factory=list, max_length=most("details"))
    scale_edge_length: bool = False
    settled_kind: RuleKind = "edge_number"
    settled_edge_number: Annotated[int, Bounded("settled_edge_number")] = 3
    settled_steel_removed_mm: Finite = 0.5
    method: MethodBody | None = Field(
        default=None, description="empty: the force-limit rope series"
    )
    edges_per_blade: Annotated[int, Bounded("edges_per_blade")] = 2
    medium: ShortText = ""
    rope_diameter_mm: Finite | None = None


class TrialPatch(Patch):
    """Settings of a trial to change."""

    emptiable = frozenset({"rope_diameter_mm"})

    name: ShortText | None = None
    question: LongText | None = None
    factor: Factor | None = None
    hardness_reading: HardnessReading | None = None
    tolerances: dict[str, Finite] | None = None
    effects: dict[str, Finite] | None = None
    let_go: list[ShortText] | None = Field(default=None, max_length=most("details"))
    scale_edge_length: bool | None = None
    settled_kind: RuleKind | None = None
    settled_edge_number: Annotated[int, Bounded("settled_edge_number")] | None = None
    settled_steel_removed_mm: Finite | None = None
    edges_per_blade: Annotated[int, Bounded("edges_per_blade")] | None = None
    medium: ShortText | None = None
    rope_diameter_mm: Finite | None = None
    created_on: Day | None = None
    reason: LongText = ""

    def changes(self) -> dict[str, Any]:
        found = super().changes()
        found.pop("reason", None)
        day = found.pop("created_on", None)
        if day:
            found["created"] = Moment(f"{day}T12:00:00.000+00:00")
        return found


class TrialOut(Wire):
    """A trial as it is kept, with its stop rule in words."""

    id: str
    name: str
    question: str
    factor: Factor
    hardness_reading: HardnessReading
    tolerances: dict[str, float]
    effects: dict[str, float]
    let_go: list[str]
    scale_edge_length: bool
    settled_kind: RuleKind
    settled_edge_number: int
    settled_steel_removed_mm: float
    settled_rule: str
    method: MethodOut
    edges_per_blade: int
    medium: str
    rope_diameter_mm: float | None
    created_utc: str
    source: str
    is_blind: bool
    unblinded_utc: str | None
    cautions_seen: bool

    @classmethod
    def of(cls, trial: Trial) -> "TrialOut":
        return cls(
            id=trial.id,
            name=trial.name,
            question=trial.question,
            factor=trial.rule.factor,  # type: ignore[arg-type]  # checked on entry
            hardness_reading=trial.rule.hardness_reading,
            tolerances=dict(trial.rule.tolerances),
            effects=dict(trial.rule.effects),
            let_go=list(trial.rule.let_go),
            scale_edge_length=trial.rule.scale_edge_length,
            settled_kind=trial.settled_rule.kind,
            settled_edge_number=trial.settled_rule.edge_number,
            settled_steel_removed_mm=trial.settled_rule.steel_removed_mm,
            settled_rule=rule_words(trial.settled_rule),
            method=MethodOut.of(trial.method, trial.method_id, trial.method_number),
            edges_per_blade=trial.edges_per_blade,
            medium=trial.medium,
            rope_diameter_mm=trial.rope_diameter_mm,
            created_utc=trial.created.utc,
            source=trial.source,
            is_blind=trial.is_blind,
            unblinded_utc=trial.unblinded_utc,
            cautions_seen=trial.cautions_seen_utc is not None,
        )


class SeenBody(Wire):
    """Whether the cautions of a trial were read and need not be shown again."""

    seen: bool


class RoleBody(Wire):
    """What a blade is in a trial for; `arms` are the preparations it is compared under, where they
    are sent.
    """

    role: TrialRole = ""
    arms: list[ShortText] | None = Field(None, max_length=most("arms"))


class VariableOut(Wire):
    """A held-equal variable with the tolerance and the assumed effect in force; `held` unless
    knowingly let go.
    """

    name: str
    label: str
    unit: str
    kind: VariableKind
    of: Owner
    tolerance: float
    usual_tolerance: float
    effect_percent: float | None
    decimals: int
    factors: list[str]
    consequence: str
    explained: str
    held: bool
    recorded: bool
    allowed: str = Field(description="what the trial allows of it, in words")

    @classmethod
    def of_variable(cls, v: Variable, trial: Trial, recorded: bool) -> "VariableOut":
        rule = trial.rule
        every_edge = v.kind == "settled" and trial.settled_rule.kind == "every_edge"
        own = (
            "name",
            "label",
            "unit",
            "kind",
            "of",
            "decimals",
            "consequence",
            "explained",
        )
        return cls(
            **{name: getattr(v, name) for name in own},
            factors=list(v.factors),
            tolerance=rule.tolerance(v),
            usual_tolerance=v.tolerance,
            effect_percent=rule.effect(v),
            held=v.name not in rule.let_go,
            recorded=recorded,
            allowed="every edge" if every_edge else tolerance_words(v, rule),
        )


class CellOut(Wire):
    """One blade at one variable."""

    blade: str
    variable: str
    value: float | str | None
    shown: str
    standing: str | None
    state: MatchState
    says: str

    @classmethod
    def of(cls, cell: Cell, rule: MatchingRule) -> "CellOut":
        own = {name: getattr(cell, name) for name in cls.model_fields if name != "says"}
        return cls(**own, says=cell_words(cell, rule))


class WayOutOut(Wire):
    """One way out of a mismatch, in words; `change` is what it changes of the trial, where it does
    that.
    """

    kind: WayKind
    says: str
    change: TrialPatch | None


class MismatchOut(Wire):
    """A blade that differs at a variable, what that does to the answer, and the ways out of it."""

    blade: str
    variable: str
    says: str
    ways_out: list[WayOutOut]

    @classmethod
    def of(cls, found: Mismatch, ways: Sequence[Remedy], rule: MatchingRule) -> "MismatchOut":
        out = [
            WayOutOut(
                kind=way.kind,
                says=way_words(way, found),
                change=None if way.rule is None else _changed(rule, way.rule),
            )
            for way in ways
        ]
        says = mismatch_words(found, rule.factor)
        return cls(blade=found.blade, variable=found.variable, says=says, ways_out=out)


def _changed(before: MatchingRule, after: MatchingRule) -> TrialPatch:
    was, is_now = asdict(before), asdict(after)
    return TrialPatch(**{name: is_now[name] for name in was if was[name] != is_now[name]})


class RunBrief(Wire):
    """A run in one line."""

    id: str
    blade_id: str
    arm_id: str
    edge_id: str
    edge: int
    number: int
    practice: bool
    status: RunStatus
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
            arm_id=blade.arm_id,
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

    kind: StepKind
    says: str
    run_id: str | None
    arm_id: str | None
    edge_id: str | None
    zone_from_mm: float | None
    zone_to_mm: float | None


class LineUpOut(Wire):
    """The line-up: blades by variables, what is open, and what an answer could speak of."""

    trial: TrialOut
    blades: list[BladeOut]
    variables: list[VariableOut]
    cells: list[CellOut]
    pending: list[str]
    taken_as_equal: list[str]
    references: list[str]
    mismatches: list[MismatchOut]
    used_up: list[str] = Field(
        description="ids of the edges that were cut, in this trial or another"
    )
    scope: str
    says: str
    runs: list[RunBrief]
    codes: dict[str, str] = Field(description="by arm id, while the trial is blind")
    next_step: NextStepOut


def line_up_parts(found: LineUp) -> dict[str, object]:
    """The parts of a line-up that come straight from the use case."""
    return {
        "trial": TrialOut.of(found.state.trial),
        "blades": [BladeOut.of(blade) for blade in found.state.blades],
        "cells": [CellOut.of(cell, found.state.trial.rule) for cell in found.cells],
        "pending": open_lines(found.pending),
        "taken_as_equal": [variable.label for variable in found.taken_as_equal],
        "references": list(found.references),
        "mismatches": [
            MismatchOut.of(each, ways, found.state.trial.rule) for each, ways in found.ways_out
        ],
        "used_up": list(found.used_up),
        "scope": found.scope,
        "runs": [RunBrief.of(covered(r) if found.state.sealed else r) for r in found.state.runs],
        "codes": (
            blind_codes(found.state.trial, found.state.blades) if found.state.trial.is_blind else {}
        ),
    }
