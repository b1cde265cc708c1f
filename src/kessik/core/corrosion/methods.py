"""Methods of a soak: medium, how it is put on, when it is looked at and tended, and what it is read
on. All of common practice, no source, but for the salt spray.
"""

from dataclasses import dataclass
from typing import Annotated, Literal

from kessik.core.corrosion.brine import check_salt
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit, most
from kessik.core.records import Within

Scale = Literal["rust", "discolouration"]
CouponSide = Literal["left", "right", "both"]
TendKind = Literal[
    "sprayed", "sprayed_fresh", "wiped_on", "film_broken", "topped_up", "turned", "dampened",
]  # fmt: skip
InspectionStage = Literal["as_found", "rinsed", "wiped", "scoured"]
STAGES: tuple[InspectionStage, ...] = ("as_found", "rinsed", "wiped", "scoured")


@dataclass(frozen=True)
class Intervention:
    """Something done to the coupons again and again: every so many hours, between two hours."""

    kind: TendKind
    every_h: Annotated[float, Within("soak_hours")]
    from_h: float = 0.0
    until_h: float | None = None

    def hours(self, end_h: float) -> tuple[float, ...]:
        """When it is due, up to an end; of more than a soak may make the first."""
        count = min(self.count(end_h), int(most("soak_dues")))
        return tuple(self.from_h + n * self.every_h for n in range(1, count + 1))

    def count(self, end_h: float) -> int:
        """How often it is due, up to an end."""
        last = end_h if self.until_h is None else min(self.until_h, end_h)
        return max(int((last - self.from_h) / self.every_h + 1e-9), 0)


@dataclass(frozen=True)
class Phase:
    """A stretch of a soak in a medium of its own, up to an hour of it: on one side or on both, read
    on its own scale.
    """

    medium: str
    until_h: Annotated[float, Within("soak_hours")]
    side: CouponSide = "both"
    scale: Scale = "rust"
    salt_percent: float | None = None


@dataclass(frozen=True)
class SoakMethod:
    """How blades are exposed: `hours` in all, looks at `look_h` in `stages`, what is done between
    (`tending`), strength of the brine, and what the looks are read on; `phases` where the medium
    changes on the way, each with its own.

    `needed_grade` is the ISO 10289 grade that the baseline has to come down to for the soak to have
    been severe enough.
    """

    key: str
    name: str
    medium: str
    hours: Annotated[float, Within("soak_hours")]
    look_h: tuple[float, ...]
    stages: tuple[InspectionStage, ...] = ("as_found", "wiped")
    tending: tuple[Intervention, ...] = ()
    scale: Scale = "rust"
    salt_percent: float | None = None
    needed_grade: int = 6
    phases: Annotated[tuple[Phase, ...], Within("soak_phases")] = ()
    steps: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    source: str = "common practice, no source"


_GLOVES = "Gloves and eye protection; keep brine off sockets and tools."
_ACID = "Acid food pastes irritate eyes and skin: gloves, air, and never mix cleaners to wash up."
_CABINET = "A spray cabinet is run by its own instructions and by those trained on it."

METHODS: tuple[SoakMethod, ...] = (
    SoakMethod(
        "salt_pack", "Salt pack overnight", "wet salt under a saturated cloth", 12, (12,),
        steps=("Lay the blades flat, sides marked.", "Strew salt, lay a cloth wetted to dripping"
               " over it.", "Cover against drying; inspect in the morning."),
        salt_percent=26.4, cautions=(_GLOVES,),
    ),
    SoakMethod(
        "wiped", "Brine wiped on", "brine, wiped on at intervals", 48, (12, 24, 48),
        tending=(Intervention("wiped_on", 6),), salt_percent=3.5, cautions=(_GLOVES,),
        steps=("Wipe every blade with the same wet cloth, the same strokes.",
               "Let it dry upright between."),
    ),
    SoakMethod(
        "fresh_then_brine", "Fresh water, then brine", "sprayed: fresh water first, then brine",
        144, (24, 48, 72, 96, 120, 144),
        tending=(Intervention("sprayed_fresh", 12, 0, 72), Intervention("sprayed", 12, 72)),
        phases=(Phase("fresh water, sprayed", 72), Phase("brine, sprayed", 144, salt_percent=3.5)),
        cautions=(_GLOVES,),
        steps=("Three days of fresh water sort out what rusts at all.",
               "Three days of brine sort the rest."),
    ),
    SoakMethod(
        "immersed", "In strong brine for weeks", "immersed in strong brine", 504,
        (24, 72, 168, 336, 504),
        tending=(Intervention("film_broken", 24), Intervention("topped_up", 72)), salt_percent=20,
        cautions=(_GLOVES,), stages=("as_found", "rinsed", "wiped"),
        steps=("Hang the blades free of each other and of the jar.",
               "Break the film on the surface each day, so that air gets in.",
               "Top up with plain water to the mark: the salt stays."),
    ),
    SoakMethod(
        "acid_paste", "Acid food paste overnight", "mustard and vinegar paste", 10, (10,),
        stages=("as_found", "rinsed"), scale="discolouration", cautions=(_ACID,), needed_grade=9,
        steps=("Smear both sides as thick as a coin.", "Read how far it discoloured, and count"
               " single dark spots."),
    ),
    SoakMethod(
        "paste_then_brine", "Acid paste, then brine on the other side",
        "mustard and vinegar paste on one side, then brine on the other", 24, (10, 24),
        stages=("as_found", "rinsed"), cautions=(_ACID, _GLOVES),
        phases=(
            Phase("mustard and vinegar paste", 10, "left", "discolouration"),
            Phase("5 % brine", 24, "right", salt_percent=5),
        ),
        steps=("Tape the right side. Smear the left as thick as a coin, and rinse it after ten"
               " hours.", "Tape the left side, bare the right, and lay a cloth wet with brine on"
               " it."),
    ),
    SoakMethod(
        "brine_overnight", "5 % brine overnight", "in 5 % brine to the ricasso", 14, (14,),
        stages=("as_found", "rinsed", "wiped"), salt_percent=5, cautions=(_GLOVES,),
        steps=("Mix 52.6 g of salt in 1 kg of water.", "Stand the blades upright, not touching."),
    ),
    SoakMethod(
        "damp_wrap", "Damp wrap in a closed box", "wrapped in damp cloth, in a closed box", 48,
        (12, 24, 48), tending=(Intervention("dampened", 24),), salt_percent=3.5,
        cautions=(_GLOVES,),
        steps=("Wring the cloth out; it is damp, not wet.", "Turn the box over at each round."),
    ),
    SoakMethod(
        "salt_spray", "Neutral salt spray", "cabinet, 50 g/L at 35 °C", 96, (2, 6, 24, 48, 96),
        salt_percent=4.84, cautions=(_CABINET, _GLOVES),
        steps=("50 ± 5 g/L, 35 ± 2 °C, pH 6.5 to 7.2.", "1.5 ± 0.5 mL/h on 80 cm²."),
        source="ISO 9227, neutral salt spray; its limits from memory",
    ),
)  # fmt: skip  # a method is read as one card
BY_KEY = {method.key: method for method in METHODS}


def check_method(method: SoakMethod) -> None:
    """Refuse a method without a name, whose looks lie outside of it, or with brine that cannot
    be.
    """
    if not method.name.strip():
        raise OutOfRangeError("name the method", field="method.name")
    check_limit("soak_hours", method.hours, "hours")
    if len(method.look_h) > most("soak_looks") or len(method.tending) > most("soak_looks"):
        raise OutOfRangeError("a method has up to 200 rounds", field="look_h")
    if list(method.look_h) != sorted(set(method.look_h)):
        raise OutOfRangeError("order the rounds by hour, each hour once", field="look_h")
    for hour in method.look_h:
        if not 0 < hour <= method.hours:
            raise OutOfRangeError(
                f"a round at {hour:g} h lies outside of a soak of {method.hours:g} h",
                field="look_h",
                value=hour,
            )
    if not method.stages or len(set(method.stages)) < len(method.stages):
        raise OutOfRangeError("a round has at least one stage, each once", field="stages")
    for each in method.tending:
        check_limit("soak_hours", each.every_h, "tending")
        if each.until_h is not None and each.until_h < each.from_h:
            raise OutOfRangeError("an intervention ends after it begins", field="tending")
    check_dues(method, method.hours)
    for salt in (method.salt_percent, *(phase.salt_percent for phase in method.phases)):
        if salt is not None:
            check_salt(salt)
    _check_phases(method)
    if not 0 <= method.needed_grade <= 10:
        raise OutOfRangeError("a grade of ISO 10289 is 0 to 10", field="needed_grade")


def check_dues(method: SoakMethod, whole_h: float) -> None:
    """Refuse a soak that makes more rounds and interventions than anyone could do."""
    dues = len(method.look_h) + sum(each.count(whole_h) for each in method.tending)
    if dues > most("soak_dues"):
        raise OutOfRangeError(
            f"this makes {dues:,} rounds and interventions in {whole_h:g} h; a soak has up to"
            f" {most('soak_dues'):g}: do them less often, or for a shorter time",
            field="tending",
            value=dues,
        )


def _check_phases(method: SoakMethod) -> None:
    phases = method.phases
    if not phases:
        return
    if not 2 <= len(phases) <= most("soak_phases"):
        raise OutOfRangeError(f"a soak has none, or 2 to {most('soak_phases'):g} phases",
                              field="phases")  # fmt: skip
    if not all(phase.medium.strip() for phase in phases):
        raise OutOfRangeError("every phase has a medium", field="phases")
    ends = [phase.until_h for phase in phases]
    if ends != sorted(set(ends)) or ends[0] <= 0:
        raise OutOfRangeError("order the phases by the hour they end at", field="phases")
    if ends[-1] != method.hours:
        raise OutOfRangeError(
            f"the last phase ends at {ends[-1]:g} h, the soak at {method.hours:g} h",
            field="phases",
            value=ends[-1],
        )
