"""Trials, blades and edges."""

from dataclasses import replace

from fastapi import APIRouter, Response

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.trials import (
    BladeBody,
    BladeOut,
    BladePatch,
    EdgeBody,
    LineUpOut,
    NextStepOut,
    RunBrief,
    TrialBody,
    TrialOut,
    TrialPatch,
    VariableOut,
    line_up_parts,
)
from kessik.core.comparison.matching import VARIABLES, MatchingRule
from kessik.core.comparison.wording import line_up_words
from kessik.core.protocols.methods import Method
from kessik.services import trials
from kessik.services.clock import now
from kessik.services.today import next_step
from kessik.services.trial_files import export_trial, slug, zipped
from kessik.services.verdicts import verdict
from kessik.store.records import Trial

router = APIRouter(tags=["trials"])


@router.put("/trials/{trial_id}")
def put_trial(trial_id: Id, body: TrialBody, store: Store) -> TrialOut:
    """Make a trial under a client-made id; the same request twice makes one trial."""
    own = body.model_dump()
    trial = Trial(
        id=trial_id,
        name=body.name.strip(),
        question=body.question,
        created=now(),
        rule=MatchingRule(body.factor, body.hardness_reading, body.tolerances),
        method=Method(body.keen_gf, body.dull_gf, body.schedule, body.every),
        **{name: own[name] for name in ("edges_per_blade", "medium", "rope_diameter_mm")},
    )
    return TrialOut.of(trials.make_trial(store, trial))


@router.patch("/trials/{trial_id}")
def patch_trial(trial_id: Id, body: TrialPatch, store: Store) -> TrialOut:
    """Change settings; the method is fixed once a counted run has begun."""
    return TrialOut.of(trials.change_trial(store, trial_id, body.changes()))


@router.get("/trials/{trial_id}/line-up")
def get_line_up(trial_id: Id, store: Store) -> LineUpOut:
    """Blades by variables: matched, the factor, confounded or pending."""
    found = trials.line_up(store, trial_id)
    answer = verdict(store, trial_id)
    variables = [VariableOut.of(v, found.trial.rule.tolerance(v)) for v in VARIABLES]
    return LineUpOut(
        **line_up_parts(found, variables),  # type: ignore[arg-type]  # names and types are those of the model
        says=line_up_words(found.cells, found.pending, found.trial.rule, len(found.blades)),
        runs=[RunBrief.of(r) for r in answer.runs],
        next_step=NextStepOut.model_validate(next_step(answer)),
    )


@router.put("/trials/{trial_id}/blades/{blade_id}")
def put_blade(trial_id: Id, blade_id: Id, body: BladeBody, store: Store) -> BladeOut:
    """Add a new blade to a trial."""
    return BladeOut.of(trials.add_blade(store, trial_id, replace(body.record(), id=blade_id)))


@router.patch("/trials/{trial_id}/blades/{blade_id}")
def patch_blade(trial_id: Id, blade_id: Id, body: BladePatch, store: Store) -> BladeOut:
    """Change facts of a blade."""
    return BladeOut.of(trials.change_blade(store, trial_id, blade_id, body.changes()))


@router.delete("/trials/{trial_id}/blades/{blade_id}", status_code=204)
def delete_blade(trial_id: Id, blade_id: Id, store: Store) -> Response:
    """Take a blade that was not cut out of the trial."""
    trials.drop_blade(store, trial_id, blade_id)
    return Response(status_code=204)


@router.put("/trials/{trial_id}/blades/{blade_id}/edges/{edge_id}")
def put_edge(trial_id: Id, blade_id: Id, edge_id: Id, body: EdgeBody, store: Store) -> EdgeBody:
    """Record a sharpening, or change what is known of one."""
    return EdgeBody.of(trials.save_edge(store, trial_id, replace(body.record(blade_id), id=edge_id)))


@router.get("/trials/{trial_id}/files", response_class=Response)
def get_files(trial_id: Id, store: Store) -> Response:
    """The trial as series, runs, blades and edges files, zipped."""
    files = export_trial(store, trial_id)
    name = slug(next(iter(files)).split(".")[0])
    headers = {"Content-Disposition": f'attachment; filename="{name}.zip"'}
    return Response(zipped(files), media_type="application/zip", headers=headers)
