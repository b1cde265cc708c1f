"""Trials, blades and edges over the wire."""

from collections.abc import Sequence
from dataclasses import asdict

from kessik.api.schemas.trials import (
    CellOut,
    LineUpOut,
    MismatchOut,
    NextStepOut,
    RemedyOut,
    RunBrief,
    TrialOut,
    TrialPatch,
    VariableOut,
)
from kessik.api.views.methods import method_out
from kessik.api.views.shelf import blade_out
from kessik.core.comparison.findings import Mismatch
from kessik.core.comparison.matching import (
    VARIABLES,
    Cell,
    MatchingRule,
    Variable,
)
from kessik.core.comparison.remedies import Remedy
from kessik.core.comparison.scales import scale_of
from kessik.core.trials.next_step import next_step
from kessik.core.trials.state import TrialRun, covered
from kessik.core.trials.trial import Trial
from kessik.core.words.matching import (
    MISSING_REFERENCE,
    cell_words,
    line_up_words,
    mismatch_words,
    open_lines,
    tolerance_words,
    way_words,
)
from kessik.core.words.settled import rule_words
from kessik.services.reading.trials import blind_codes
from kessik.services.trials.line_up import LineUp


def trial_out(trial: Trial) -> TrialOut:
    """A trial as it is kept, with its rules in words."""
    return TrialOut.showing(
        trial,
        factor=trial.rule.factor,
        hardness_reading=trial.rule.hardness_reading,
        tolerances=dict(trial.rule.tolerances),
        effects=dict(trial.rule.effects),
        let_go=list(trial.rule.let_go),
        scale_edge_length=trial.rule.scale_edge_length,
        settled_kind=trial.settled_rule.kind,
        settled_edge_number=trial.settled_rule.edge_number,
        settled_steel_removed_mm=trial.settled_rule.steel_removed_mm,
        settled_rule=rule_words(trial.settled_rule),
        method=method_out(trial.method, trial.method_id, trial.method_number),
        created_utc=trial.created.utc,
        cautions_seen=trial.cautions_seen_utc is not None,
    )


def variable_out(v: Variable, trial: Trial, recorded: bool) -> VariableOut:
    """A variable as the trial holds it."""
    rule = trial.rule
    every_edge = v.kind == "settled" and trial.settled_rule.kind == "every_edge"
    return VariableOut.showing(
        v,
        tolerance=rule.tolerance(v),
        usual_tolerance=v.tolerance,
        tolerance_unit=scale_of(v.kind).tolerance_unit or v.unit,
        effect_percent=rule.effect(v),
        held=v.name not in rule.let_go,
        recorded=recorded,
        allowed="every edge" if every_edge else tolerance_words(v, rule),
    )


def cell_out(cell: Cell, rule: MatchingRule) -> CellOut:
    """One blade at one variable."""
    return CellOut.showing(cell, says=cell_words(cell, rule))


def mismatch_out(found: Mismatch, ways: Sequence[Remedy], rule: MatchingRule) -> MismatchOut:
    """A mismatch, with the ways out of it."""
    out = [
        RemedyOut(
            kind=way.kind,
            says=way_words(way, found),
            change=None if way.rule is None else _changed(rule, way.rule),
        )
        for way in ways
    ]
    says = mismatch_words(found, rule.factor)
    return MismatchOut.showing(found, says=says, ways_out=out)


def _changed(before: MatchingRule, after: MatchingRule) -> TrialPatch:
    was, is_now = asdict(before), asdict(after)
    return TrialPatch(**{name: is_now[name] for name in was if was[name] != is_now[name]})


def run_brief(r: TrialRun) -> RunBrief:
    """A run in one line."""
    run, blade, edge = r.run, r.blade, r.edge
    return RunBrief.showing(
        run,
        blade_id=blade.id,
        arm_id=blade.arm_id,
        edge_id=edge.id,
        edge=edge.number,
        status=r.state.status,
        count=r.state.count,
        started_utc=run.started.utc,
        worn_share=r.worn_share,
    )


def line_up_out(found: LineUp) -> LineUpOut:
    """The line-up: blades by variables, and what an answer could speak of."""
    state, rule = found.state, found.state.trial.rule
    recorded = {cell.variable for cell in found.cells}
    return LineUpOut.showing(
        found,
        trial=trial_out(state.trial),
        blades=[blade_out(blade) for blade in state.blades],
        variables=[variable_out(v, state.trial, v.name in recorded) for v in VARIABLES],
        cells=[cell_out(cell, rule) for cell in found.cells],
        pending=open_lines(found.pending),
        says=line_up_words(found.cells, found.pending, rule, len(state.blades), state.noun),
        taken_as_equal=[variable.label for variable in found.taken_as_equal],
        references=[MISSING_REFERENCE[role] for role in found.missing_references],
        mismatches=[mismatch_out(each, ways, rule) for each, ways in found.ways_out],
        runs=[run_brief(covered(r) if state.sealed else r) for r in state.runs],
        codes=blind_codes(state.trial, state.blades) if state.trial.is_blind else {},
        next_step=NextStepOut.showing(next_step(state)),
    )
