"""Uses kept, changed and deleted."""

from kessik.core.choice.uses import Use, check_use
from kessik.core.errors import UnknownError
from kessik.core.moments import Moment
from kessik.store.database import Database
from kessik.store.queries import uses


def uses_of(db: Database) -> list[Use]:
    """Every use."""
    with db.read() as session:
        return uses.all_uses(session)


def put_use(db: Database, use: Use, now: Moment) -> Use:
    """Keep a use under its client-made id; the same twice is one."""
    check_use(use)
    with db.write() as session:
        uses.save_use(session, use, now.utc)
    return use


def remove_use(db: Database, use_id: str) -> None:
    """Delete a use; UnknownError where there is none."""
    with db.write() as session:
        if not uses.delete_use(session, use_id):
            raise UnknownError("there is no such use", field="use")
