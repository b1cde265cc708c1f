"""Results on paper over the wire."""

from dataclasses import asdict
from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Day, FaultOut, Id, ShortText, Wire
from kessik.core.limits import most
from kessik.core.trials.paper.columns import ColumnKind
from kessik.core.trials.paper.lines import PaperLine
from kessik.services.paper.runs import Checked, PaperForm

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


class PaperColumnOut(Wire):
    """One thing that a line says."""

    key: str
    label: str
    kind: ColumnKind
    unit: str
    hint: str
    usual: bool


class PaperArmOut(Wire):
    """A blade or arm that lines can name, and the edge that would come next."""

    code: str
    next_edge: int


class PaperFormOut(Wire):
    """What the lines of a trial hold."""

    columns: list[PaperColumnOut]
    arms: list[PaperArmOut]
    count_unit: str
    check_every: float | None

    @classmethod
    def of(cls, form: PaperForm) -> "PaperFormOut":
        return cls(
            columns=[PaperColumnOut.model_validate(column) for column in form.columns],
            arms=[PaperArmOut(code=code, next_edge=edge) for code, edge in form.arms],
            count_unit=form.count_unit,
            check_every=form.check_every,
        )


class PaperCheckedOut(Wire):
    """Lines looked over."""

    slips: list[FaultOut]
    totals_without_gap: int = Field(description="lines whose totals tell no gap of their checks")

    @classmethod
    def of(cls, found: Checked) -> "PaperCheckedOut":
        slips = [FaultOut(**asdict(fault)) for fault in found.slips]
        return cls(slips=slips, totals_without_gap=found.totals_without_gap)


class KeptRunsOut(Wire):
    """The ids of runs that are kept."""

    run_ids: list[str]
