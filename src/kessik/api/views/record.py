"""What is put right later, over the wire: runs, traces and the bin."""

from datetime import date, timedelta

from kessik.api.schemas.record import (
    BinnedOut,
    EdgeChoiceOut,
    RecordedRunOut,
    TraceOut,
    TrialRecordOut,
)
from kessik.api.views.trials import run_brief, trial_out
from kessik.core.bin import BIN_DAYS, InBin, Trace
from kessik.core.trials.state import TrialRun
from kessik.core.words.blinding import sealed_trial_words
from kessik.core.words.traces import trace_words
from kessik.services.record.trials import TrialRecord


def recorded_run_out(r: TrialRun, numbers: dict[str, int]) -> RecordedRunOut:
    """A run in the record of its trial; `numbers` are those of the versions of its method."""
    run = r.run
    return RecordedRunOut.showing(
        run,
        **dict(run_brief(r)),
        blade=r.blade.code,
        mark=r.blade.mark,
        arm=run.arm or r.edge.arm,
        note=str(run.other.get("note", "")),
        put_right_after_stop=r.state.corrections_after_stop,
        method_number=numbers.get(run.method_id),
    )


def trace_out(trace: Trace) -> TraceOut:
    """What was changed, when and why."""
    return TraceOut.showing(trace, says=trace_words(trace))


def trial_record_out(found: TrialRecord) -> TrialRecordOut:
    """A trial with all its runs, and what was changed in it."""
    numbers = {v.id: v.number for v in found.state.versions.values()}
    cut = {r.run.edge_id for r in found.state.runs if not r.run.practice}
    return TrialRecordOut(
        trial=trial_out(found.state.trial),
        archived_utc=found.archived_utc,
        sealed=sealed_trial_words(found.state.sealed),
        runs=[recorded_run_out(r, numbers) for r in found.shown_runs],
        traces=[trace_out(trace) for trace in found.traces],
        edges=[
            EdgeChoiceOut(edge_id=e.id, blade=b.own_code, edge=e.number, is_cut=e.id in cut)
            for b in found.blades
            for e in b.edges
        ],
    )


def binned_out(entry: InBin) -> BinnedOut:
    """Something in the bin, and the day it goes for good."""
    goes = date.fromisoformat(entry.binned_utc[:10]) + timedelta(days=BIN_DAYS)
    return BinnedOut.showing(entry, goes_on=goes.isoformat())
