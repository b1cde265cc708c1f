"""Pictures and what shows them."""

from dataclasses import dataclass
from typing import Literal

ShownBy = Literal["blade", "event", "soak", "look"]


@dataclass(frozen=True)
class Picture:
    """A picture that is kept, by the hash of its content; `taken_at` is its camera's own time, size
    0 where nobody looked.
    """

    hash: str
    media_type: str
    width_px: int = 0
    height_px: int = 0
    taken_at: str = ""
    added_utc: str = ""


@dataclass(frozen=True)
class Shown:
    """A picture as something shows it: a blade on its page, a look in the bench log, a soak
    or a look of it."""

    picture: Picture
    shown_by: ShownBy
    owner_id: str
    caption: str = ""
    added_utc: str = ""
