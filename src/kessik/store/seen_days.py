"""The days on which a data folder was looked after: what grows old goes by them, so that a clock
that jumps deletes nothing.
"""

import json
from datetime import date
from pathlib import Path

_NAME = "seen-days.json"
_MOST = 400


def see(folder: Path, day: date) -> None:
    """Note that the folder was looked after on a day."""
    days = _seen(folder)
    if day in days:
        return
    place = folder / _NAME
    partial = place.with_suffix(".partial")
    partial.write_text(json.dumps([each.isoformat() for each in [*days, day][-_MOST:]]))
    partial.replace(place)


def days_since(folder: Path, day: date) -> int:
    """On how many days after this one the folder was looked after."""
    return sum(each > day for each in _seen(folder))


def _seen(folder: Path) -> list[date]:
    try:
        said = json.loads((folder / _NAME).read_text(encoding="utf-8"))
        return [date.fromisoformat(each) for each in said]
    except (OSError, ValueError, TypeError):
        return []
