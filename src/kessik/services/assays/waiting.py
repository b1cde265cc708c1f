"""What waits at the assay: parcels that are away, and claims that an assay excludes."""

from datetime import date

from kessik.core.due import BatchAway, ClaimExcluded, Due
from kessik.services.assays.verdicts import assays_of
from kessik.store.database import Database
from kessik.store.queries import assays, waiting

_LONG_AWAY_DAYS = 30


def batches_away(db: Database, day: date) -> list[Due]:
    """Every batch that was sent and is not back."""
    with db.read() as session:
        sent = [batch for batch in assays.all_batches(session) if batch.is_away]
    found = []
    for batch in sent:
        days = (day - date.fromisoformat(batch.sent_on)).days
        away = BatchAway(batch.name, batch.sent_on)
        found.append(Due("batch", away, overdue=days > _LONG_AWAY_DAYS, batch_id=batch.id))
    return found


def claims_excluded(db: Database, _day: date) -> list[Due]:
    """Blades on loan that are not what they are sold as: their lender wants to know."""
    with db.read() as session:
        lent = [blade.id for blade in waiting.lent_blades(session)]
        shot = assays.shots_by_blade(session, lent) if lent else {}
        judged = assays_of(session, list(shot)) if shot else {}
    excluded = [e.blade for e in judged.values() if e.assay.verdict == "excluded"]
    return [
        Due(
            "assay",
            ClaimExcluded(blade.code, blade.claimed_grade or ""),
            blade.id,
            mark=blade.mark,
        )
        for blade in excluded
    ]
