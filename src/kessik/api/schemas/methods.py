"""Methods over the wire."""

from pydantic import Field

from kessik.api.schemas.common import ShortText, Wire
from kessik.api.schemas.records import Answer, Body
from kessik.core.limits import most
from kessik.core.protocols.checks import (
    CheckKind,
    CheckSpec,
    OutcomeWord,
    OwnCheck,
)
from kessik.core.protocols.methods import (
    DosePart,
    Method,
    ScheduleKind,
    Stage,
    StopRule,
)


class OwnCheckBody(Body[OwnCheck]):
    """What a tester says of a check of their own."""

    def to_core(self, **said: object) -> OwnCheck:
        return super().to_core(grades=tuple(" ".join(grade.split()) for grade in self.grades))


class CheckSpecBody(Body[CheckSpec]):
    """One kind of look."""

    def to_core(self, **said: object) -> CheckSpec:
        return super().to_core(kind=" ".join(self.kind.split()))


class StageBody(Body[Stage]):
    """A sharpness that is lost on the way."""


class StopRuleBody(Body[StopRule]):
    """What ends a run."""


class DosePartBody(Body[DosePart]):
    """One medium of a recipe and how much of it."""


class MethodBody(Body[Method]):
    """How a run goes."""

    school: ShortText
    name: ShortText
    surface: ShortText = ""
    checks: list[CheckSpecBody] = Field(max_length=most("method_parts"))
    stages: list[StageBody] = Field(max_length=most("method_parts"))
    ends: list[StopRuleBody] = Field(max_length=most("method_parts"))
    schedule: ScheduleKind = "every"


class OutcomeWordOut(Answer[OutcomeWord]):
    """One thing that a check can show, with its key at the bench."""


class CheckRowOut(
    Answer[CheckKind], without="done_on tries reads grades does stage is_the_cut uses_sheets"
):
    """All that is known of a check: how it is called and asked for, and what can be said of it."""

    least: float
    most: float
    is_judged: bool
    passes_or_fails: bool
    decides_stage: bool
    outcomes: list[OutcomeWordOut]


class MethodOut(MethodBody):
    """A method as it is kept, with its rules in plain words."""

    id: str
    number: int
    ends_when: str
    checked: str
    stage_words: list[str]
    check_rows: list[CheckRowOut]
    all_cautions: list[str] = Field(description="its cautions and those of the checks it has")


class OwnMethodOut(MethodOut):
    """A method of the tester's own, with its line, and whether that was put away."""

    line_id: str
    archived: bool


class GaugeScatterOut(Wire):
    """How readings of the tester's gauge scatter, and by which study."""

    percent: float
    says: str


class KnownMethodsOut(Wire):
    """Ready methods, and the tester's own with their newest version."""

    gauge: GaugeScatterOut | None = Field(description="by the newest study in use, if any")

    ready: list[MethodOut]
    own: list[OwnMethodOut]


class MethodChoice(Wire):
    """A method for a trial; `from_method_id` follows the line of a version, without it the trial's
    own goes on.
    """

    method: MethodBody
    from_method_id: ShortText | None = None
