"""Results that came in together go into the bin when that is undone, and what they replaced comes
back.
"""

from collections.abc import Mapping
from types import MappingProxyType
from uuid import uuid4

from kessik.core.keeping import InBin
from kessik.core.moments import Moment
from kessik.core.words.sentences import counted
from kessik.services.changes import undone_by
from kessik.store.database import Database
from kessik.store.queries import binning
from kessik.store.queries.binning import Results

_NOTHING: Mapping[str, str] = MappingProxyType({})


def offer_undo(
    db: Database,
    results: Results,
    trial_name: str,
    now: Moment,
    replaced: Mapping[str, str] = _NOTHING,
) -> None:
    """Let the act that brings results in be undone; `replaced` are the ids in the bin of the runs
    that go there for them.
    """
    runs = counted(len(results.runs), "run")
    entry = InBin(
        str(uuid4()),
        "results",
        results.trial_id,
        f"{runs} in {trial_name}",
        tuple(_with(results)),
        "bringing them in was undone",
        now.utc,
    )

    def undo() -> None:
        with db.write() as session:
            binning.take_results_away(session, entry, results)
            binning.bring_back(session, replaced.values())

    undone_by(f"{runs} kept", undo)


def _with(results: Results) -> list[str]:
    told = ((results.trials, "trial"), (results.blades, "blade"), (results.edges, "edge"))
    return [counted(len(ids), noun) for ids, noun in told if ids]
