"""Results on paper over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Day, FaultOut, Id, ShortText, Wire
from kessik.api.schemas.records import Answer
from kessik.core.limits import most
from kessik.core.trials.paper.columns import PaperColumn
from kessik.core.trials.paper.lines import PaperLine
from kessik.services.paper.runs import PaperForm

Cell = Annotated[str, Field(max_length=most("cell"))]
Readings = Annotated[str, Field(max_length=100_000)]


class PaperLineBody(Wire):
    """One finished run as it was written: cells by column, and a tally where there is one."""

    id: Id
    cells: dict[ShortText, Cell] = Field(max_length=60)
    readings: Readings = ""

    def to_core(self) -> PaperLine:
        return PaperLine(self.id, self.cells, self.readings)


class PaperBody(Wire):
    """Lines of a paper record, by whom and on which day they were cut; `check_every` is the gap of
    the checks of lines that say none of their own.
    """

    lines: list[PaperLineBody] = Field(min_length=1, max_length=most("paper_lines"))
    by: ShortText = ""
    cut_on: Day = ""
    check_every: Annotated[float, Bounded("check_gap")] | None = None


class PaperColumnOut(Answer[PaperColumn]):
    """One thing that a line says."""


class PaperArmOut(Wire):
    """A blade or arm that lines can name, and the edge that would come next."""

    code: str
    next_edge: int


class PaperFormOut(Answer[PaperForm]):
    """What the lines of a trial hold."""

    arms: list[PaperArmOut]


class PaperCheckedOut(Wire):
    """Lines looked over."""

    slips: list[FaultOut]
    totals_without_gap: int = Field(description="lines whose totals tell no gap of their checks")


class KeptRunsOut(Wire):
    """The ids of runs that are kept."""

    run_ids: list[str]
