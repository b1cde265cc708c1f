"""What waits of soaks: looks and interventions, at their hour."""

from datetime import datetime, timedelta

from kessik.core.due import Due, SoakDeed
from kessik.core.moments import Moment
from kessik.services.clock import local_day
from kessik.services.soaks.sheets import all_sheets
from kessik.store.database import Database


def soak_duties(db: Database, now: Moment) -> list[Due]:
    """The next look and the next intervention of every soak that goes on."""
    found = []
    for sheet in all_sheets(db, now):
        if not sheet.is_open or sheet.soak.started is None:
            continue
        for duty in sheet.next[:2]:
            left_h = duty.clock_due_h - sheet.clock_h
            at = datetime.fromisoformat(sheet.soak.started.utc) + timedelta(hours=duty.clock_due_h)
            moment = Moment(at.isoformat(), sheet.soak.started.offset_minutes)
            found.append(
                Due(
                    "soak",
                    SoakDeed(
                        sheet.soak.name, duty.what, left_h, duty.missing, duty.places, duty.medium
                    ),
                    soak_id=sheet.soak.id,
                    on=local_day(moment).isoformat(),
                    overdue=left_h < -1,
                )
            )
    return found
