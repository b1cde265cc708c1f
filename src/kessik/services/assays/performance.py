"""What blades are made of against how they did, over all of the tester's trials of one method."""

from collections.abc import Mapping
from dataclasses import dataclass

from kessik.core.composition.derived import derived
from kessik.core.composition.elements import ELEMENTS
from kessik.core.facts import MEASURED
from kessik.core.shelf.blades import Blade
from kessik.core.trials.performance import Seen, Trend, travelling_with, trend
from kessik.core.words.performance import travel_words, trend_words
from kessik.services.assays.verdicts import AssayedBlade, judged
from kessik.services.reading.grades import grade_shelf
from kessik.services.reading.lives_of_blades import LifeLine, life_lines
from kessik.store.database import Database
from kessik.store.queries import assays, shelf

DERIVED = {
    "pren": "PREN",
    "carbon_in_mc": "carbon tied in MC",
    "chromium_in_solution": "least chromium in solution",
}
HARDNESS = "hardness_hrc"
FIRST = ("Cr", HARDNESS)
"""What is shown where nothing is asked for."""
YIELDS = {"life": "life", "strokes": "strokes to sharpen", "minutes": "minutes to sharpen"}


@dataclass(frozen=True)
class Value:
    """What is known of one variable of a blade: the value, whether it counts, and from what."""

    value: float
    counts: bool
    source: str


@dataclass(frozen=True)
class Performance:
    """Points of one method against one variable, with what can be said of them."""

    methods: tuple[str, ...]
    variables: tuple[tuple[str, str, str], ...]
    method: str
    against: str
    unit: str
    points: tuple[Seen, ...]
    trend: Trend
    says: str
    travels: str


def performance(db: Database, method: str, against: str, of: str) -> Performance:
    """Gather the points; an unknown method or variable falls back to the first there is."""
    lines = [line for line in life_lines(db) if line.point.estimate is not None]
    methods = tuple(sorted({line.point.like for line in lines}, key=lambda m: -_blades(lines, m)))
    like = method if method in methods else next(iter(methods), "")
    with db.read() as session:
        blades = {blade.id: blade for blade in shelf.all_blades(session)}
        shots = assays.shots_by_blade(session)
        found = judged(list(blades.values()), shots, grade_shelf(session))
    known = {each.blade.id: _values(each) for each in found}
    own = [line for line in lines if line.point.like == like and line.point.blade_id in known]
    variables = tuple(dict.fromkeys(name for line in own for name in known[line.point.blade_id]))
    usual = next((v for v in FIRST if v in variables), next(iter(variables), ""))
    name = against if against in variables else usual
    points = tuple(_points(own, blades, known, name, of))
    shown = trend(points)
    x, y = label(name), YIELDS.get(of, "life")
    columns = {
        variable: {b: values[variable].value for b, values in known.items() if variable in values}
        for variable in variables
    }
    ids = list(dict.fromkeys(point.blade_id for point in points if point.counts))
    others = [label(other) for other in travelling_with(name, columns, ids)]
    unit = next((line.point.unit for line in own), "") if of == "life" else of
    return Performance(
        methods,
        tuple((variable, label(variable), unit_of(variable)) for variable in variables),
        like,
        name,
        unit,
        points,
        shown,
        trend_words(shown, x, y),
        travel_words(x, others),
    )


def _blades(lines: list[LifeLine], like: str) -> int:
    return len({line.point.blade_id for line in lines if line.point.like == like})


def label(name: str) -> str:
    """A variable by its plain name."""
    if name in ELEMENTS:
        return ELEMENTS[name].name
    return "hardness" if name == HARDNESS else DERIVED.get(name, name)


def unit_of(name: str) -> str:
    return "HRC" if name == HARDNESS else "" if name == "pren" else "%"


def _points(
    lines: list[LifeLine],
    blades: Mapping[str, Blade],
    known: Mapping[str, Mapping[str, Value]],
    name: str,
    of: str,
) -> list[Seen]:
    points = []
    for line in lines:
        blade = blades[line.point.blade_id]
        value = known[blade.id].get(name)
        y = line.point.estimate if of == "life" else _effort(blade, of)
        if value is None or y is None:
            continue
        low, high = (line.point.low, line.point.high) if of == "life" else (None, None)
        points.append(
            Seen(
                blade.id,
                _named(line, blade),
                blade.mark,
                value.value,
                y,
                low,
                high,
                value.counts,
                value.source,
            )
        )
    return points


def _named(line: LifeLine, blade: Blade) -> str:
    return blade.code if line.point.code == blade.code else f"{blade.code}, {line.point.code}"


def _effort(blade: Blade, of: str) -> float | None:
    """Mean minutes, or strokes, that its edges took to sharpen."""
    told = [
        edge.minutes
        if of == "minutes"
        else sum((step.strokes_per_side or 0) * 2 * step.repeats for step in edge.steps) or None
        for edge in blade.edges
    ]
    kept = [value for value in told if value]
    return sum(kept) / len(kept) if kept else None


def _values(found: AssayedBlade) -> dict[str, Value]:
    """What is known of a blade: read by the analyser, else of the grade it is sold as; that counts
    only where an assay bears the claim out.
    """
    assay, blade = found.assay, found.blade
    values: dict[str, Value] = {}
    claim = None if assay.verdict == "excluded" else assay.claim
    borne_out = assay.verdict == "consistent"
    how = "grade confirmed by the assay" if borne_out else "claimed"
    for listed in claim.ranges if claim else ():
        values[listed.element] = Value(listed.middle_percent, borne_out, how)
    for mean in assay.blade.means:
        if mean.detected and mean.element != "Fe":
            values[mean.element] = Value(mean.percent, True, "measured")
    if claim is not None:
        figures = derived({name: each.value for name, each in values.items()})
        values["pren"] = Value(figures.pren, borne_out, how)
        values["carbon_in_mc"] = Value(figures.carbon_in_mc, borne_out, how)
        least = figures.chromium_in_solution[0]
        values["chromium_in_solution"] = Value(least, borne_out, how)
    hardness = blade.used(HARDNESS)
    if hardness is not None and hardness.value is not None:
        is_measured = hardness.standing in MEASURED
        values[HARDNESS] = Value(hardness.value, is_measured, hardness.standing.replace("_", " "))
    return values
