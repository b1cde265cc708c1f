"""What was done last, kept for a while so that it can be undone."""

from collections import OrderedDict
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from threading import Lock

from kessik.core.errors import NotHereError, UnknownError
from kessik.core.words.acts import act_words
from kessik.store.actor import ACTOR
from kessik.store.changes import RECORDED, Change, Compensation, revert
from kessik.store.database import Database

_KEPT = 200


class RecentChanges:
    """The last acts of a server's testers."""

    def __init__(self) -> None:
        self._kept: OrderedDict[str, Change] = OrderedDict()
        self._lock, self._undoing = Lock(), Lock()

    @contextmanager
    def recorded(self, change_id: str) -> Iterator[Change]:
        """What is written inside is one act."""
        change = Change(change_id, by=ACTOR.get())
        token = RECORDED.set(change)
        try:
            yield change
        finally:
            RECORDED.reset(token)

    def offer(self, change: Change) -> str:
        """Keep an act; says what was done, or nothing where it cannot be undone."""
        if not change.can_be_undone:
            return ""
        with self._lock:
            self._kept[change.id] = change
            while len(self._kept) > _KEPT:
                self._kept.popitem(last=False)
        return _words(change)

    def undo(self, db: Database, change_id: str, *, others: bool = True) -> None:
        """Take an act back, once; UnknownError where it is not kept any more, ConflictError where
        it was built on since, NotHereError where another device did it and this one may not undo
        what `others` did.
        """
        with self._lock:
            change = self._kept.get(change_id)
        if change is None:
            raise UnknownError("this cannot be undone any more; correct it by hand", field="change")
        if change.by != ACTOR.get() and not others:
            raise NotHereError(
                f"{change.by or 'the computer that runs Kessik'} did this: undo it there"
            )
        with self._undoing:
            if change.is_undone:
                return
            with db.write() as session:
                revert(session, change)
            if change.made_good_by:
                change.made_good_by.make_good()
            change.is_undone = True


def made_good_by(says: str, action: Callable[[], None]) -> None:
    """Say, before it is appended, how what an act appends to the bench log is made good when it is
    undone, and how the act is called.
    """
    change = RECORDED.get()
    if change is not None:
        change.made_good_by = Compensation(says, action)


def undone_by(says: str, action: Callable[[], None]) -> None:
    """Say how an act is undone as a whole, so that its rows need not be noted."""
    change = RECORDED.get()
    if change is not None:
        change.made_good_by, change.replaces_rows = Compensation(says, action), True


def _words(change: Change) -> str:
    if change.made_good_by:
        return change.made_good_by.says
    return act_words([(row.table, row.did) for row in change.rows.values()])
