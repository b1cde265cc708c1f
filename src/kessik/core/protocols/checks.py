"""The kinds of check: one row each, built in or a tester's own, with all that is known of it."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Literal, NoReturn

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS, Limit, check_limit
from kessik.core.protocols.entries import is_plain
from kessik.core.records import Within

ResultKind = Literal["number", "pass_fail", "damage", "scale"]
SharpIs = Literal["", "low", "high"]

FORCE = "force"
PASS_FAIL = ("pass", "fail", "doubt")
DAMAGE = ("clean", "glint", "roll", "chip", "burr")
_BODY_WORDS = (
    "skin", "nail", "thumb", "finger", "forearm", "arm", "leg", "tongue", "beard", "face", "shave",
    "shaves", "shaving",
)  # fmt: skip  # words of a list, several a line
_LONGEST_NAME, _LONGEST_UNIT = 60, 20
_FEWEST_GRADES, _MOST_GRADES = 2, 9

OFF_THE_SKIN = (
    "Do not shave-test on skin: paper or a hair sample off the body does, and is not pooled with"
    " shaving."
)
AWAY_FROM_THE_BODY = (
    "“{name}” is done on the body: use a substitute off the skin where there is one, and stop"
    " short of pressure. Local rules come first."
)


@dataclass(frozen=True)
class OutcomeWord:
    """One thing that a check can show: its word in the log, how it is said, and its key."""

    key: str
    label: str
    letter: str = ""


_OUTCOMES: Mapping[ResultKind, tuple[OutcomeWord, ...]] = {
    "number": (),
    "scale": (),
    "pass_fail": (
        OutcomeWord("pass", "passes", "p"), OutcomeWord("fail", "fails", "f"),
        OutcomeWord("doubt", "in doubt", "d"),
    ),
    "damage": (
        OutcomeWord("clean", "clean", "c"), OutcomeWord("glint", "glint", "g"),
        OutcomeWord("roll", "roll", "o"), OutcomeWord("chip", "chip", "i"),
        OutcomeWord("burr", "burr", "u"),
    ),
}  # fmt: skip  # a table is read by its rows


@dataclass(frozen=True)
class CheckKind:
    """One kind of check.

    `name` completes “the edge …” or names what is read, `label` is short; `done_on` and `tries` are
    what is usual. A number has a `unit`, a limit of the table (`reads`) and the way that is sharp;
    a scale its `grades`, the sharpest first. `asks` is what the bench asks for, `does` and
    `did_not` how one blade and several are spoken of after a dose. `stage` is what common practice
    calls the loss of it. A check that `is_the_cut` itself has no fresh edge to look at first.
    """

    key: str
    name: str
    label: str
    result: ResultKind
    done_on: str = ""
    tries: int = 1
    unit: str = ""
    sharp_is: SharpIs = ""
    reads: str = ""
    grades: tuple[str, ...] = ()
    asks: str = ""
    does: tuple[str, str] = ("", "")
    stage: str = ""
    caution: str = ""
    is_the_cut: bool = False
    uses_sheets: bool = False
    is_own: bool = False

    @property
    def is_judged(self) -> bool:
        """Whether a word is said of it, and not a number read."""
        return self.result != "number"

    @property
    def passes_or_fails(self) -> bool:
        """Whether it passes or fails by itself, so that stages can go by several such checks."""
        return self.result in ("pass_fail", "damage")

    @property
    def decides_stage(self) -> bool:
        """Whether a stage can be lost by it."""
        return self.is_judged or self.key == FORCE or (self.is_own and self.sharp_is != "")

    @property
    def limit(self) -> Limit:
        """What a number of it can be."""
        return LIMITS[self.reads or "own_reading"]

    @property
    def outcomes(self) -> tuple[OutcomeWord, ...]:
        """What can be said of it, with the keys of the bench; grades go by their place."""
        if self.result == "scale":
            return tuple(
                OutcomeWord(grade, grade, str(place)) for place, grade in enumerate(self.grades, 1)
            )
        return _OUTCOMES[self.result]


_TABLE = (
    CheckKind("force", "force on the test line", "force", "number", "test line",
        unit="gf", sharp_is="low", reads="force_gf", asks="wipe, read the force on the test line"),
    CheckKind("paper", "slices held paper", "held paper", "pass_fail", "thin paper", 2,
        asks="wipe, does it slice the held paper", does=("slices paper", "slice paper"),
        stage="working", uses_sheets=True),
    CheckKind("hair_sample", "cuts a hair sample off the body", "hair sample", "pass_fail",
        "hair sample off the body", 2, asks="wipe, does it cut the hair sample",
        does=("cuts the hair sample", "cut the hair sample"), stage="fine", caution=OFF_THE_SKIN,
        uses_sheets=True),
    CheckKind("shave", "shaves hair", "shaving", "pass_fail", "", 2,
        asks="wipe, does it shave (off the skin: paper or a hair sample shows it, too)",
        does=("shaves hair", "shave hair"), stage="fine", caution=OFF_THE_SKIN, uses_sheets=True),
    CheckKind("inspect", "apex under the lamp", "under the lamp", "damage", "lamp, 10x",
        asks="wipe, look along the apex under the lamp",
        does=("has a clean apex", "have a clean apex"), stage="deformation"),
    CheckKind("effort", "effort, 0 to 10", "effort, 0 to 10", "number", unit="", sharp_is="low",
        reads="effort", asks="how hard was it, 0 to 10", is_the_cut=True),
    CheckKind("rank", "effort, ranked", "rank by effort", "number", unit="", sharp_is="low",
        reads="rank", asks="its rank by effort, 1 for the least", is_the_cut=True),
    CheckKind("depth", "depth cut, mm", "depth", "number", unit="mm", sharp_is="high",
        reads="depth_mm", asks="the depth of this cycle", is_the_cut=True),
)  # fmt: skip  # a table is read by its rows
CHECKS: Mapping[str, CheckKind] = {row.key: row for row in _TABLE}
JUDGED: frozenset[str] = frozenset(key for key, row in CHECKS.items() if row.is_judged)
"""Built-in checks of which a word is said."""


@dataclass(frozen=True)
class OwnCheck:
    """What a tester says of a check of their own: what it shows, a scale's grades (sharpest first),
    a number's unit and the way that is sharp, and whether it is done on the body.
    """

    result: ResultKind = "pass_fail"
    grades: Annotated[tuple[str, ...], Within("named_counts")] = ()
    unit: str = ""
    sharp_is: SharpIs = ""
    touches_body: bool = False


@dataclass(frozen=True)
class CheckSpec:
    """One check of a method: how many readings or tries it takes, the same for a pass and a fail,
    and on what. A check with `own` is the tester's, called by its `kind`. `scatter_percent` is how
    far readings of force scatter, as a gauge study found it.
    """

    kind: str
    readings: Annotated[int, Within("check_readings")] = 1
    material: str = ""
    own: OwnCheck | None = None
    scatter_percent: Annotated[float, Within("reading_scatter_percent")] | None = None

    @property
    def row(self) -> CheckKind:
        """All that is known of it; OutOfRangeError where nobody knows it."""
        return built_in(self.kind) if self.own is None else _own_row(self, self.own)


def built_in(kind: str) -> CheckKind:
    """All that is known of a built-in check; OutOfRangeError where there is none of this name."""
    if kind not in CHECKS:
        raise OutOfRangeError(
            f"“{kind[:_LONGEST_NAME]}” is not a check that Kessik knows: define it in the method,"
            f" or use one of {', '.join(CHECKS)}",
            field="check",
        )
    return CHECKS[kind]


def check_name(kind: str) -> str:
    """How a check is called; a tester's own goes by its own name."""
    return CHECKS[kind].name if kind in CHECKS else kind


def check_spec(spec: CheckSpec) -> None:
    """Refuse a check that cannot be, with what would be right; OutOfRangeError names `checks`."""
    if spec.scatter_percent is not None:
        if spec.kind != FORCE:
            _refuse("how far readings scatter is said of a force check only")
        check_limit("reading_scatter_percent", spec.scatter_percent, "checks")
    if spec.own is None:
        if spec.kind not in CHECKS:
            _refuse(f"“{spec.kind[:_LONGEST_NAME]}” is not defined; define it, or choose another")
        return
    _check_name(spec.kind)
    match spec.own.result:
        case "scale":
            _check_grades(spec.kind, spec.own.grades)
        case "number":
            if not spec.own.sharp_is:
                _refuse(f"“{spec.kind}”: say whether a sharp edge reads low or high")
            if len(spec.own.unit) > _LONGEST_UNIT or not is_plain(spec.own.unit):
                _refuse(f"“{spec.kind}”: a unit has up to {_LONGEST_UNIT} characters")
        case "damage":
            _refuse(f"“{spec.kind}” passes or fails, is graded on a scale, or reads a number")
        case "pass_fail":
            pass


def _check_name(name: str) -> None:
    if not name.strip():
        _refuse("give the check a name")
    if name != " ".join(name.split()) or len(name) > _LONGEST_NAME or not is_plain(name):
        _refuse(f"“{name[:_LONGEST_NAME]}”: a name has up to {_LONGEST_NAME} characters, one line")
    taken = name.casefold().replace("_", " ")
    for row in CHECKS.values():
        if taken in (row.key.replace("_", " "), row.name.casefold(), row.label.casefold()):
            _refuse(f"Kessik has a check “{row.name}”; choose it, or give yours another name")
    if taken in ("written", "dose start", "dose end", "strop", "stop"):
        _refuse(f"“{name}” means something else in files; give the check another name")


def _check_grades(name: str, grades: tuple[str, ...]) -> None:
    if not _FEWEST_GRADES <= len(grades) <= _MOST_GRADES:
        _refuse(
            f"“{name}” has {len(grades)} grades; {_FEWEST_GRADES} to {_MOST_GRADES} can be told"
            " apart by a key each"
        )
    folded = [grade.strip().casefold() for grade in grades]
    if len(set(folded)) < len(folded) or not all(folded):
        _refuse(f"“{name}”: give every grade a name of its own")
    if any(len(grade) > _LONGEST_NAME or not is_plain(grade) for grade in grades):
        _refuse(f"“{name}”: a grade has up to {_LONGEST_NAME} characters")
    if set(folded) & {*PASS_FAIL, *DAMAGE}:
        _refuse(f"“{name}”: call no grade pass, fail, doubt or a damage of the apex")


def touches_body(spec: CheckSpec) -> bool:
    """Whether a check of one's own is done on the body, as it says or as its words say."""
    if spec.own is None:
        return False
    words = f"{spec.kind} {spec.material}".casefold().replace(",", " ").split()
    return spec.own.touches_body or any(word in _BODY_WORDS for word in words)


def _own_row(spec: CheckSpec, own: OwnCheck) -> CheckKind:
    on = f" on {spec.material}" if spec.material else ""
    return CheckKind(
        spec.kind,
        spec.kind,
        spec.kind,
        own.result,
        spec.material,
        spec.readings,
        own.unit,
        own.sharp_is,
        "",
        own.grades,
        f"wipe, {spec.kind}{on}",
        (f"passes “{spec.kind}”", f"pass “{spec.kind}”"),
        caution=AWAY_FROM_THE_BODY.format(name=spec.kind) if touches_body(spec) else "",
        is_own=True,
    )


def _refuse(message: str) -> NoReturn:
    raise OutOfRangeError(message, field="checks")
