"""A package brought in: looked over as a folder of its own, then row by row beside what is here.

Seen all at once at the end. The same package twice brings nothing new, an older one after a newer
one neither, and what was changed here stays as it is here.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from tempfile import TemporaryDirectory

from kessik.core.errors import Fault, KessikError, RefusedFileError
from kessik.core.packages import Came, CameTrial, PackageBrought
from kessik.interchange.package_json import PackageHead
from kessik.services.arriving import (
    EVENTS_AT_ONCE,
    arrival_label,
    arriving,
    in_pieces,
    let_taps_through,
)
from kessik.services.packages.opening import open_apart
from kessik.services.reading.trial_states import state_of_trial
from kessik.services.shelf.checks import check_new_blades
from kessik.services.work import STORES, ImportWork
from kessik.store.database import Database, Session
from kessik.store.packages.gathering import gather
from kessik.store.packages.landing import Landing, land, store_ahead, store_piece
from kessik.store.packages.merging import content_sum, trial_rows
from kessik.store.packages.stored_rows import Tables
from kessik.store.queries.shelf import all_blades
from kessik.store.queries.testers import Tester, adopt, origins
from kessik.store.queries.trials import all_trials, spoiled_trials
from kessik.store.vetting import bring_pictures


def bring_package(
    db: Database,
    package: Path,
    called: str,
    work: ImportWork | None = None,
    *,
    is_mine: bool = False,
) -> PackageBrought:
    """Bring a package in; all or nothing. Where `is_mine`, a folder of nobody's becomes its
    sender's.

    RefusedFileError with what is wrong with it, CancelledError where the tester has had enough.
    """
    work = work or ImportWork()
    with TemporaryDirectory(prefix="kessik-package-") as made:
        folder = Path(made)
        head = open_apart(package, folder, called, lambda: work.step(0))
        with Database(folder) as there:
            with there.read() as session:
                _check_readable(session, called)
                ids = [trial.id for trial in all_trials(session)]
                tables = gather(session, ids)
            if is_mine:
                with db.write() as session:
                    adopt(session, Tester(head.tester_id, head.tester))
            return _bring(db, there, _OpenedPackage(head, tables, called), work)


@dataclass(frozen=True)
class _OpenedPackage:
    head: PackageHead
    tables: Tables
    called: str

    @property
    def tester(self) -> Tester:
        return Tester(self.head.tester_id, self.head.tester)


def _check_readable(session: Session, called: str) -> None:
    """What cannot be read back is not stored."""
    try:
        for trial in all_trials(session):
            state_of_trial(session, trial.id)
        check_new_blades(all_blades(session))
        spoiled = [each.name for each in spoiled_trials(session)]
    except KessikError as error:
        said = f"what it holds is no record of Kessik's: {error.message}"
        raise RefusedFileError([Fault(called, 1, "", said)]) from error
    except Exception as error:
        said = "what it holds is no record of Kessik's; nothing was brought in"
        raise RefusedFileError([Fault(called, 1, "", said)]) from error
    if spoiled:
        said = f"what it holds is no record of Kessik's: the trial {spoiled[0]} cannot be read"
        raise RefusedFileError([Fault(called, 1, "", said)])


def _bring(
    db: Database, there: Database, package: _OpenedPackage, work: ImportWork
) -> PackageBrought:
    with db.read() as here, there.read() as other:
        trials, contents = _compared(here, other, package)
    landing = _landing(package, trials, contents)
    work.begin(STORES, landing.size)
    bring_pictures([row["hash"] for row in package.tables["picture"]], there.folder, db.folder)
    label = arrival_label(package.head.tester_id)
    with arriving(db, label, work, lambda session: land(session, landing)):
        with db.write() as session:
            store_ahead(session, landing, label)
        for table in ("measurement", "run", "event"):
            for some in in_pieces(landing.ahead[table], EVENTS_AT_ONCE):
                with db.write() as session:
                    store_piece(session, landing, table, some)
                work.step(len(some))
                let_taps_through()
    return PackageBrought(
        package.head.tester, tuple(trials), tuple(landing.renumbered), dict(landing.renamed)
    )


def _compared(
    here: Session, other: Session, package: _OpenedPackage
) -> tuple[list[CameTrial], dict[str, str]]:
    """Each trial of the package beside the same here, and a sum over each."""
    known, from_where = {t.id for t in all_trials(here)}, origins(here)
    found, contents = [], {}
    for trial in all_trials(other):
        contents[trial.id] = content_sum(trial_rows(other, trial.id))
        came: Came = "new"
        if trial.id in known:
            before = from_where.get(trial.id)
            now = content_sum(trial_rows(here, trial.id))
            if now == contents[trial.id]:
                came = "same"
            elif before is None or before.content != now:
                came = "changed_here"
            else:
                came = "newer" if package.head.made_utc > before.made_utc else "older"
        found.append(CameTrial(trial.id, trial.name, came))
    return found, contents


def _landing(
    package: _OpenedPackage, trials: Sequence[CameTrial], contents: Mapping[str, str]
) -> Landing:
    by_way: dict[Came, set[str]] = {}
    for each in trials:
        by_way.setdefault(each.came, set()).add(each.id)
    return Landing(
        package.tables,
        package.tester,
        package.head.made_utc,
        frozenset(by_way.get("new", ())),
        frozenset(by_way.get("newer", ())),
        contents,
    )
