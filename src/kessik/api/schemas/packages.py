"""Packages and testers over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Id, ShortText, Wire
from kessik.core.packages import Hidden, ReportKind


class TesterOut(Wire):
    """Whoever sent packages, and how many trials came from them."""

    id: str
    name: str
    trials: int


class TestersOut(Wire):
    """Whose folder this is, empty before it was ever said, and who else sent trials."""

    here: str
    others: list[TesterOut]


class TesterBody(Wire):
    """Who sends the packages of this folder."""

    name: Annotated[ShortText, Field(min_length=1)]


class CameTrialOut(Wire):
    """A trial of a package that is here now."""

    id: str
    name: str


class PackageBroughtOut(Wire):
    """What a package brought, in sentences, and its trials."""

    says: list[str]
    trials: list[CameTrialOut]


class BladeQuestionOut(Wire):
    """Two blades that may be one; `is_same` is empty until it was said."""

    one: str
    other: str
    says: str
    facts: str
    nothing_differs: bool
    is_same: bool | None


class SameBladeBody(Wire):
    """The tester's word on two blades."""

    one: Id
    other: Id
    is_same: bool


class ReportBody(Wire):
    """What a report is to hold: trials, all that is left out, and the standings if wanted."""

    trials: Annotated[list[Id], Field(min_length=1, max_length=2000)]
    kind: ReportKind = "pdf"
    leave_out: Annotated[list[Hidden], Field(default_factory=list, max_length=8)]
    with_standings: bool = False
    work_id: Id | None = None


class LastReportOut(Wire):
    """When the last report was made, empty before the first, and whether it is still today's."""

    made_utc: str
    is_current: bool
