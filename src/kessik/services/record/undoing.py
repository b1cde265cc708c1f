"""Results that came in together go into the bin when that is undone, and what they replaced comes
back.
"""

from collections.abc import Callable, Iterator
from contextlib import ExitStack, contextmanager
from uuid import uuid4

from kessik.core.bin import InBin
from kessik.core.errors import ConflictError, UnknownError
from kessik.core.moments import Moment
from kessik.core.words.sentences import counted
from kessik.services.changes import undone_by
from kessik.services.record.bin_moves import coming_back, results_leaving
from kessik.store.database import Database, Session
from kessik.store.queries.bin_contents import Results
from kessik.store.queries.restoring_rows import Back


def offer_undo(
    db: Database, results: Results, trial_name: str, now: Moment, replaced: str = ""
) -> None:
    """Let the act that brings results in be undone; `replaced` is the id in the bin of those that
    go there for them.
    """
    entry = in_bin(str(uuid4()), results, trial_name, "the import was undone", now)

    def undo() -> None:
        with ExitStack() as moves:
            land = moves.enter_context(_replaced(db, replaced)) if replaced else None
            move = moves.enter_context(results_leaving(db, results))
            with db.write() as session:
                move(session, entry)
                if land:
                    land(session)

    undone_by(f"{counted(len(results.runs), 'run')} saved", undo)


@contextmanager
def _replaced(db: Database, bin_id: str) -> Iterator[Callable[[Session], Back]]:
    """What was replaced, ready to come back."""
    try:
        with coming_back(db, bin_id) as land:
            yield land
    except UnknownError as gone:
        raise ConflictError(
            "what they replaced is not in the bin any more; correct it by hand", field="change"
        ) from gone


def in_bin(bin_id: str, results: Results, trial_name: str, reason: str, now: Moment) -> InBin:
    """Results as they lie in the bin, together."""
    name = f"{counted(len(results.runs), 'run')} in {trial_name}"
    holds = tuple(_with(results))
    return InBin(bin_id, "results", results.trial_id, name, holds, reason, now.utc)


def _with(results: Results) -> list[str]:
    told = ((results.trials, "trial"), (results.blades, "blade"), (results.edges, "edge"))
    return [counted(len(ids), noun) for ids, noun in told if ids]
