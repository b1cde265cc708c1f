"""Results that came in together go into the bin when that is undone, and what they replaced comes
back.
"""

from uuid import uuid4

from kessik.core.bin import InBin
from kessik.core.errors import ConflictError
from kessik.core.moments import Moment
from kessik.core.words.sentences import counted
from kessik.services.changes import undone_by
from kessik.store.database import Database
from kessik.store.queries import binning, restoring_rows
from kessik.store.queries.binning import Results


def offer_undo(
    db: Database, results: Results, trial_name: str, now: Moment, replaced: str = ""
) -> None:
    """Let the act that brings results in be undone; `replaced` is the id in the bin of those that
    go there for them.
    """
    entry = in_bin(str(uuid4()), results, trial_name, "the import was undone", now)

    def undo() -> None:
        with db.write() as session:
            binning.take_results_away(session, entry, results)
            if replaced and binning.find_binned(session, replaced) is None:
                raise ConflictError(
                    "what they replaced is not in the bin any more; correct it by hand",
                    field="change",
                )
            if replaced:
                restoring_rows.restore(session, replaced)

    undone_by(f"{counted(len(results.runs), 'run')} saved", undo)


def in_bin(bin_id: str, results: Results, trial_name: str, reason: str, now: Moment) -> InBin:
    """Results as they lie in the bin, together."""
    name = f"{counted(len(results.runs), 'run')} in {trial_name}"
    holds = tuple(_with(results))
    return InBin(bin_id, "results", results.trial_id, name, holds, reason, now.utc)


def _with(results: Results) -> list[str]:
    told = ((results.trials, "trial"), (results.blades, "blade"), (results.edges, "edge"))
    return [counted(len(ids), noun) for ids, noun in told if ids]
