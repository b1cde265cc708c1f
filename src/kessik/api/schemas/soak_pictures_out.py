"""Pictures of soaks over the wire: measured, outlined, laid on the time line."""

from kessik.api.schemas.common import Wire
from kessik.api.schemas.records import Answer
from kessik.api.schemas.soaks import MeasuringBody
from kessik.core.corrosion.quick import GradeInWords
from kessik.core.pictures import Picture
from kessik.services.soaks.pictures import Outlined
from kessik.services.soaks.series import NotRead, SeriesRead


class SoakPictureOut(Answer[Picture], without="media_type"):
    """A picture on a soak's time line; `taken_at` is its camera's own time, empty where it told
    none.
    """

    clock_h: float | None


class TakenPicturesOut(Wire):
    """How many pictures were laid on the time line."""

    pictures: int


class TakenLooksOut(Wire):
    """How many looks of a file were kept."""

    looks: int


class GradeInWordsOut(Answer[GradeInWords]):
    """A grade of ISO 10289, the areas that have it, and what they look like."""


class AreaAtOut(Wire):
    """The area at a place of the slider."""

    threshold: float
    percent: float


class RustOut(Wire):
    """A measurement that is not kept yet: the area, its grades, and the map it was read in."""

    rust_percent: float | None
    low: float
    high: float
    stain_percent: float
    says: str
    ratings: list[str]
    doubts: list[str]
    by_threshold: list[AreaAtOut]
    new_percent: float | None
    colour_step: float | None
    spots: str
    left_px: int
    top_px: int
    width_px: int
    height_px: int
    map_png: str
    """Red the strength of rust, green the kind, blue what was rust at the look before."""


class NotReadOut(Answer[NotRead]):
    """A picture that was left as it was, and why."""


class SeriesOut(Answer[SeriesRead]):
    """What was read of a series of pictures."""

    not_read: list[NotReadOut]


class OutlineOut(Answer[Outlined], without="size_px unsure"):
    """Where the blade is in a picture, proposed or carried over from an earlier look; `white_point`
    where the earlier look had one, `unsure` why none is proposed and what to do.
    """

    width_px: int
    height_px: int
    unsure: str


class LookMeasuringOut(Wire):
    """How a look was measured."""

    picture: str
    measuring: MeasuringBody | None
