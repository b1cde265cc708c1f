"""A gauge study over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Finite, ShortText, Wire
from kessik.api.schemas.records import Answer, Body
from kessik.core.gauge.kept import GaugeMeasures
from kessik.core.gauge.order import Turn
from kessik.core.gauge.study import GaugeReading
from kessik.core.limits import most


class GaugeReadingBody(Body[GaugeReading]):
    """One reading of a part by an operator."""


class GaugeStudyBody(Wire):
    """The readings of a study, in one unit."""

    readings: Annotated[list[GaugeReadingBody], Field(max_length=int(most("gauge_readings")))]
    unit: ShortText = ""


class GaugeComponentOut(Wire):
    """Where variance comes from: as a deviation with its interval, and its share of the whole."""

    name: str
    sd: str
    interval: str
    percent: str


class GaugeMeanOut(Wire):
    """What an operator reads of a part: the mean of their readings."""

    part: str
    operator: str
    mean: Finite


class GaugeStudyOut(Wire):
    """How good the gauge is, in sentences and by component."""

    sentences: list[str]
    notes: list[str]
    components: list[GaugeComponentOut]
    means: list[GaugeMeanOut]
    far_off: list[int] = Field(description="readings far from all others, by their place")


class TurnOut(Answer[Turn]):
    """One reading to take."""


class GaugeFileOut(Wire):
    """The readings of a file."""

    readings: list[GaugeReadingBody]
    unit: str
    notes: list[str]


class KeptStudyBody(GaugeStudyBody):
    """A study to keep: of which instrument, line or hand, on what, and whether plans reckon with
    it.
    """

    instrument: ShortText
    measures: GaugeMeasures = "force"
    in_use: bool = False


class KeptStudyOut(Wire):
    """A kept study with its answer, and how the gauge changed since the last one."""

    id: str
    instrument: str
    measures: GaugeMeasures
    unit: str
    made_utc: str
    in_use: bool
    says: str
    drift: str
    use: str = Field(description="what plans take from it; empty where they take nothing")
    readings: list[GaugeReadingBody]
