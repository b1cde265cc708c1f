"""Methods over the wire."""

from dataclasses import asdict
from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Finite, LongText, ShortText, Wire
from kessik.core.limits import most
from kessik.core.protocols.checks import CheckKind, CheckSpec, OwnCheck, ResultKind, SharpIs
from kessik.core.protocols.method_words import ends_when, schedule_words, stage_words
from kessik.core.protocols.methods import (
    START_READINGS,
    Confirmation,
    CountUnit,
    CutKind,
    DosePart,
    LostWhen,
    MediumKind,
    Method,
    ScheduleKind,
    Stage,
    StopKind,
    StopRule,
    Together,
)
from kessik.core.trials.trial import MethodVersion
from kessik.services.trials.methods import KnownMethods


class OwnCheckBody(Wire):
    """What a tester says of a check of their own."""

    result: ResultKind = "pass_fail"
    grades: list[ShortText] = Field(default_factory=list, max_length=most("named_counts"))
    unit: ShortText = ""
    sharp_is: SharpIs = ""
    touches_body: bool = False

    def own(self) -> OwnCheck:
        sent = self.model_dump(exclude={"grades"})
        return OwnCheck(**sent, grades=tuple(" ".join(grade.split()) for grade in self.grades))


class CheckSpecBody(Wire):
    """One kind of look."""

    kind: ShortText
    readings: Annotated[int, Bounded("check_readings")] = 1
    material: ShortText = ""
    own: OwnCheckBody | None = None

    def spec(self) -> CheckSpec:
        own = self.own.own() if self.own else None
        return CheckSpec(" ".join(self.kind.split()), self.readings, self.material, own)


class StageBody(Wire):
    """A sharpness that is lost on the way."""

    name: ShortText
    check: ShortText = "force"
    limit_gf: Finite | None = None
    lost_on: list[ShortText] = Field(default=["fail"], max_length=most("method_parts"))
    also: list[ShortText] = Field(default_factory=list, max_length=most("method_parts"))
    together: Together = "any"
    limit: Finite | None = None
    lost_when: LostWhen = ""

    def stage(self) -> Stage:
        sent = self.model_dump()
        return Stage(**{**sent, "lost_on": tuple(self.lost_on), "also": tuple(self.also)})


class StopRuleBody(Wire):
    """What ends a run."""

    kind: StopKind
    stage: ShortText = ""
    confirm: Confirmation = "none"
    amount: Finite | None = None


class DosePartBody(Wire):
    """One medium of a recipe and how much of it."""

    medium: ShortText
    amount: Annotated[Finite, Bounded("dose")]
    unit: ShortText = ""


class MethodBody(Wire):
    """How a run goes."""

    school: ShortText
    name: ShortText
    medium: MediumKind = "rope"
    cut: CutKind = "slice"
    surface: ShortText = ""
    count_unit: CountUnit = "cuts"
    piece: Finite = 1.0
    contact_mm: Finite | None = None
    zone_length_mm: Finite | None = None
    checks: list[CheckSpecBody] = Field(max_length=most("method_parts"))
    stages: list[StageBody] = Field(max_length=most("method_parts"))
    ends: list[StopRuleBody] = Field(max_length=most("method_parts"))
    schedule: ScheduleKind = "every"
    every: Finite = 1.0
    growth: Finite = 1.5
    at: list[Finite] = Field(default_factory=list, max_length=most("named_counts"))
    stations_mm: list[Finite] = Field(default_factory=list, max_length=most("method_parts"))
    start_readings: Annotated[int, Bounded("check_readings")] = START_READINGS
    recipe: list[DosePartBody] = Field(default_factory=list, max_length=most("method_parts"))
    spoiled_when: LongText = ""
    cautions: list[LongText] = Field(default_factory=list, max_length=most("method_parts"))
    note: LongText = ""

    def method(self) -> Method:
        """The method; OutOfRangeError where its parts contradict each other."""
        own = self.model_dump(
            include=set(MethodBody.model_fields) - {"checks", "stages", "ends", "recipe"}
        )
        own |= {name: tuple(own[name]) for name in ("at", "stations_mm", "cautions")}
        return Method(
            **own,
            checks=tuple(spec.spec() for spec in self.checks),
            stages=tuple(stage.stage() for stage in self.stages),
            ends=tuple(StopRule(**rule.model_dump()) for rule in self.ends),
            recipe=tuple(DosePart(**part.model_dump()) for part in self.recipe),
        )


class OutcomeWordOut(Wire):
    """One thing that a check can show, with its key at the bench."""

    key: str
    label: str
    letter: str


class CheckRowOut(Wire):
    """All that is known of a check: how it is called and asked for, and what can be said of it."""

    key: str
    name: str
    label: str
    asks: str
    result: ResultKind
    unit: str
    sharp_is: SharpIs
    least: float
    most: float
    is_judged: bool
    passes_or_fails: bool
    decides_stage: bool
    is_own: bool
    caution: str
    outcomes: list[OutcomeWordOut]

    @classmethod
    def of(cls, row: CheckKind) -> "CheckRowOut":
        words = [OutcomeWordOut(**asdict(word)) for word in row.outcomes]
        same = set(cls.model_fields) - {"least", "most", "outcomes"}
        own = {name: getattr(row, name) for name in same}
        return cls(**own, least=row.limit.least, most=row.limit.most, outcomes=words)


class MethodOut(MethodBody):
    """A method as it is kept, with its rules in plain words."""

    id: str
    number: int
    ends_when: str
    checked: str
    stage_words: list[str]
    check_rows: list[CheckRowOut]
    all_cautions: list[str] = Field(description="its cautions and those of the checks it has")

    @classmethod
    def of(cls, method: Method, method_id: str = "", number: int = 1) -> "MethodOut":
        return cls(
            **asdict(method),
            id=method_id,
            number=number,
            ends_when=ends_when(method),
            checked=schedule_words(method),
            stage_words=[stage_words(stage, method) for stage in method.stages],
            check_rows=[CheckRowOut.of(row) for row in method.rows],
            all_cautions=list(method.all_cautions()),
        )

    @classmethod
    def of_version(cls, version: MethodVersion) -> "MethodOut":
        return cls.of(version.method, version.id, version.number)


class OwnMethodOut(MethodOut):
    """A method of the tester's own, with its line, and whether that was put away."""

    line_id: str
    archived: bool


class KnownMethodsOut(Wire):
    """Ready methods, and the tester's own with their newest version."""

    ready: list[MethodOut]
    own: list[OwnMethodOut]

    @classmethod
    def of(cls, known: KnownMethods) -> "KnownMethodsOut":
        return cls(
            ready=[MethodOut.of(method) for method in known.ready],
            own=[
                OwnMethodOut(
                    **MethodOut.of_version(version).model_dump(),
                    line_id=version.line_id,
                    archived=version.line_id in known.archived,
                )
                for version in known.own
            ],
        )


class MethodChoice(Wire):
    """A method for a trial; `from_method_id` follows the line of a version, without it the trial's
    own goes on.
    """

    method: MethodBody
    from_method_id: ShortText | None = None
