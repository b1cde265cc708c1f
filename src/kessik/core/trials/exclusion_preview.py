"""A trial looked at without some readings or runs; nothing of it is changed."""

from collections.abc import Set
from dataclasses import replace

from kessik.core.errors import NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.trials.state import TrialRun, TrialState


def without(state: TrialState, event_ids: Set[str], run_ids: Set[str]) -> TrialState:
    """The trial as it would stand if these readings were struck out and these runs were not.

    NotAllowedNowError while its answer is hidden, UnknownError where something named is not in it.
    """
    if state.sealed:
        raise NotAllowedNowError(
            "the answer is hidden until the stop; nothing can be excluded yet", field="trial"
        )
    if not event_ids and not run_ids:
        raise OutOfRangeError("name a reading or an edge to exclude", field="event_ids")
    checks = {logged.event_id for r in state.runs for logged in r.state.checks}
    if not event_ids <= checks or not run_ids <= {r.run.id for r in state.runs}:
        raise UnknownError("one of these is not in this trial", field="event_ids")
    left = tuple(_struck(r, event_ids) for r in state.runs if r.run.id not in run_ids)
    return replace(state, runs=left)


def _struck(r: TrialRun, event_ids: Set[str]) -> TrialRun:
    checks = tuple(
        replace(logged, check=replace(logged.check, struck=True))
        if logged.event_id in event_ids
        else logged
        for logged in r.state.checks
    )
    return replace(r, state=replace(r.state, checks=checks))
