"""Pictures, what shows them, and those that nothing shows any more."""

from collections.abc import Collection
from dataclasses import asdict

from sqlalchemy import delete, exists, insert, select, update
from sqlalchemy.dialects.sqlite import insert as insert_or
from sqlalchemy.orm import Session

from kessik.core.pictures import Picture, Shown, ShownBy
from kessik.store.tables import PictureRow, PictureUseRow

_LET_GO = ""
"""Stands for the time of what nothing shows any more: it is older than anything."""
_IS_SHOWN = exists().where(PictureUseRow.hash == PictureRow.hash)


def keep(session: Session, picture: Picture) -> None:
    """Keep a picture's row; the same picture twice is one."""
    row = insert_or(PictureRow).values(**asdict(picture)).on_conflict_do_nothing()
    session.execute(row)


def show(session: Session, shown: Shown) -> None:
    """Say that something shows a picture that is kept; said again, the caption is the new one."""
    session.merge(
        PictureUseRow(
            shown_by=shown.shown_by,
            owner_id=shown.owner_id,
            hash=shown.picture.hash,
            caption=shown.caption,
            added_utc=shown.added_utc,
        )
    )
    session.flush()


def show_if_kept(
    session: Session, content_hash: str, shown_by: ShownBy, owner_id: str, added_utc: str
) -> None:
    """Say the same of a picture by its hash, where there is one."""
    if find(session, content_hash) is not None:
        values = {"shown_by": shown_by, "owner_id": owner_id, "hash": content_hash}
        session.execute(insert(PictureUseRow).values(**values, caption="", added_utc=added_utc))


def show_again(
    session: Session, content_hash: str, shown_by: ShownBy, owner_id: str, added_utc: str
) -> None:
    """Say that something shows a picture, where it may be said already."""
    values = {"shown_by": shown_by, "owner_id": owner_id, "hash": content_hash}
    row = insert_or(PictureUseRow).values(**values, caption="", added_utc=added_utc)
    session.execute(row.on_conflict_do_nothing())


def hide(session: Session, shown: Shown) -> None:
    """That it is shown there no more."""
    session.execute(
        delete(PictureUseRow).where(
            PictureUseRow.shown_by == shown.shown_by,
            PictureUseRow.owner_id == shown.owner_id,
            PictureUseRow.hash == shown.picture.hash,
        )
    )


def shown_by(session: Session, kind: ShownBy, owner_id: str) -> list[Shown]:
    """The pictures that something shows, oldest first."""
    found = (
        select(PictureRow, PictureUseRow)
        .join(PictureUseRow, PictureUseRow.hash == PictureRow.hash)
        .where(PictureUseRow.shown_by == kind, PictureUseRow.owner_id == owner_id)
        .order_by(PictureUseRow.added_utc)
    )
    return [
        Shown(_picture(row), kind, owner_id, use.caption, use.added_utc)
        for row, use in session.execute(found)
    ]


def find(session: Session, content_hash: str) -> Picture | None:
    """A picture that was not let go."""
    row = session.get(PictureRow, content_hash)
    return _picture(row) if row and row.added_utc != _LET_GO else None


def unshown(session: Session, before_utc: str) -> list[str]:
    """The hashes of pictures that nothing shows and that came before a time."""
    found = select(PictureRow.hash).where(~_IS_SHOWN, PictureRow.added_utc < before_utc)
    return list(session.scalars(found))


def all_unshown(session: Session) -> list[Picture]:
    """The pictures that wait to be shown, in the order of their camera's own time."""
    found = (
        select(PictureRow)
        .where(~_IS_SHOWN, PictureRow.added_utc != _LET_GO)
        .order_by(PictureRow.taken_at, PictureRow.hash)
    )
    return [_picture(row) for row in session.scalars(found)]


def release_unshown(session: Session, hashes: Collection[str]) -> None:
    """Let those of some pictures go that nothing shows: they are not waiting for anything."""
    unshown_ones = update(PictureRow).where(~_IS_SHOWN, PictureRow.hash.in_(hashes))
    session.execute(unshown_ones.values(added_utc=_LET_GO))


def delete_unshown(session: Session, hashes: Collection[str]) -> list[str]:
    """Forget those of some pictures that nothing shows; their hashes."""
    gone = list(
        session.scalars(select(PictureRow.hash).where(~_IS_SHOWN, PictureRow.hash.in_(hashes)))
    )
    session.execute(delete(PictureRow).where(PictureRow.hash.in_(gone)))
    return gone


def _picture(row: PictureRow) -> Picture:
    return Picture(
        row.hash, row.media_type, row.width_px, row.height_px, row.taken_at, row.added_utc
    )
