"""Methods over the wire."""

from dataclasses import asdict
from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Finite, LongText, ShortText, Wire, within
from kessik.core.limits import most
from kessik.core.protocols.methods import (
    START_READINGS,
    CheckKind,
    CheckSpec,
    Confirmation,
    CountUnit,
    CutKind,
    DosePart,
    MediumKind,
    Method,
    Outcome,
    ScheduleKind,
    Stage,
    StopKind,
    StopRule,
    Together,
)
from kessik.core.trials.trial import MethodVersion
from kessik.services.trials.methods import KnownMethods


class CheckSpecBody(Wire):
    """One kind of look."""

    kind: CheckKind
    readings: Annotated[int, within("check_readings")] = 1
    material: ShortText = ""


class StageBody(Wire):
    """A sharpness that is lost on the way."""

    name: ShortText
    check: CheckKind = "force"
    limit_gf: Finite | None = None
    lost_on: list[Outcome] = Field(default=["fail"], max_length=3)
    also: list[CheckKind] = Field(default_factory=list, max_length=most("method_parts"))
    together: Together = "any"

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
    amount: Annotated[Finite, within("dose")]
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
    start_readings: Annotated[int, within("check_readings")] = START_READINGS
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
            checks=tuple(CheckSpec(**spec.model_dump()) for spec in self.checks),
            stages=tuple(stage.stage() for stage in self.stages),
            ends=tuple(StopRule(**rule.model_dump()) for rule in self.ends),
            recipe=tuple(DosePart(**part.model_dump()) for part in self.recipe),
        )


class MethodOut(MethodBody):
    """A method as it is kept, with its rules in plain words."""

    id: str
    number: int
    ends_when: str
    checked: str
    stage_words: list[str]
    all_cautions: list[str] = Field(description="its cautions and those of the checks it has")

    @classmethod
    def of(cls, method: Method, method_id: str = "", number: int = 1) -> "MethodOut":
        return cls(
            **asdict(method),
            id=method_id,
            number=number,
            ends_when=method.ends_when(),
            checked=method.checked(),
            stage_words=[stage.words() for stage in method.stages],
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
