"""A trial's answer as a report: the words and numbers of its pages, in the order of a sheet."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from kessik.api.schemas.standings import BoardOut
from kessik.api.schemas.verdict import AnswerOut, BladeVerdictOut, ComparisonOut, RunVerdictOut
from kessik.core.comparison.variables import BY_NAME
from kessik.core.packages import Hidden
from kessik.core.vocabulary import STANDINGS
from kessik.interchange.report.charts import Curve, RungBar, decay_chart, ladder_chart
from kessik.interchange.report.document import (
    Block,
    Drawing,
    Grid,
    Heading,
    Paragraph,
    Points,
    Report,
)

_BLADES_BESIDE = 6
"""So many blades find room beside each other."""
_LIMITS = (
    "An interval holds in 95 of 100 such trials, for what was measured and nothing else.",
    "The answer is about these blades on this medium; another lot, hand or tester can differ.",
)


@dataclass(frozen=True)
class BesideTrial:
    """What is told of the blades beside the trial: sentences of assays and of soaks, by code."""

    assays: tuple[tuple[str, str], ...] = ()
    soaks: tuple[tuple[str, str], ...] = ()


def trial_report(
    answer: AnswerOut, beside: BesideTrial, hidden: Sequence[Hidden], made_from: str, day: str
) -> Report:
    """The report of one trial."""
    trial = answer.trial
    medium = f", {trial.medium}" if trial.medium else ""
    return Report(
        title=trial.name,
        under=f"{trial.method.name}{medium}; set up {trial.created_utc[:10]}",
        blocks=tuple(trial_blocks(answer, beside, hidden)),
        made_from=made_from,
        day=day,
    )


def trial_blocks(
    answer: AnswerOut, beside: BesideTrial, hidden: Sequence[Hidden]
) -> Iterator[Block]:
    """The blocks of a trial, from its question to the raw readings."""
    if answer.trial.question:
        yield Paragraph(f"Question: {answer.trial.question}")
    yield Paragraph(answer.headline, "lead")
    yield Paragraph(answer.standing)
    if answer.prediction:
        yield Paragraph(f"Prediction, recorded before the first cut: {answer.prediction}")
    yield from _charts(answer)
    yield from _lives(answer)
    yield from _pairs(answer)
    yield from _limits(answer)
    yield from _blades(answer, hidden)
    yield from _matching(answer)
    yield from _method(answer)
    yield from _told("What analyses say of the steels", beside.assays)
    yield from _told("Soaks of these blades", beside.soaks)
    yield from _upkeep(answer)
    yield from _runs(answer)
    yield from _readings(answer)


def _charts(answer: AnswerOut) -> Iterator[Block]:
    limits = [s.limit_gf for s in answer.trial.method.stages if s.limit_gf is not None]
    curves = _curves([run for run in answer.runs if run.readings and not run.left_out])
    unit = _unit(answer)
    if curves:
        blades = ", ".join(dict.fromkeys(curve.blade for curve in curves))
        yield Drawing(
            "curves",
            decay_chart(curves, limits, unit),
            "Force to sever the test line against what was cut; sharp is above. Full marks: first"
            " edge; hollow: later ones; ×: excluded. Bands: 95 in 100.",
            f"Readings of {blades} with the curves through them.",
        )
    rungs = [_bar(blade, answer.stage) for blade in answer.ladder if answer.stage in blade.lives]
    if rungs:
        yield Drawing(
            "lives",
            ladder_chart(rungs, unit),
            f"Life to {answer.stage}: best estimate, and where it lies in 95 of 100.",
            "; ".join(f"{rung.blade}: {rung.words}" for rung in rungs),
        )


def _curves(runs: Sequence[RunVerdictOut]) -> list[Curve]:
    first = {run.blade: run.run.edge for run in reversed(runs)}
    return [_curve(run, is_first=run.run.edge == first[run.blade]) for run in runs]


def _curve(run: RunVerdictOut, *, is_first: bool) -> Curve:
    readings = [(r.count, r.force_gf, r.struck) for r in run.readings]
    if run.band is None:
        return Curve(run.blade, run.mark, readings, is_first=is_first)
    band = run.band
    lines = (band.counts, band.middle_gf, band.low_gf, band.high_gf)
    return Curve(run.blade, run.mark, readings, *lines, is_first)


def _bar(blade: BladeVerdictOut, stage: str) -> RungBar:
    life = blade.lives[stage]
    return RungBar(blade.blade, blade.mark, life.estimate, life.low, life.high, life.words)


def _unit(answer: AnswerOut) -> str:
    return next((run.run.count_unit for run in answer.runs), answer.trial.method.count_unit)


def _lives(answer: AnswerOut) -> Iterator[Block]:
    if not answer.ladder:
        return
    yield Heading("Lives")
    rows = tuple(
        (
            blade.blade,
            blade.grade or "not known",
            str(blade.edges),
            *(blade.lives[s].words if s in blade.lives else "" for s in answer.stages),
            *(blade.on_one_length.get(s, "") for s in answer.stages if _is_scaled(answer)),
            "" if blade.ranked else "not ranked",
        )
        for blade in answer.ladder
    )
    scaled = [f"{s}, on one edge length" for s in answer.stages if _is_scaled(answer)]
    heads = ("blade", "grade, as sold", "edges", *answer.stages, *scaled, "")
    yield Grid(heads, rows, numeric=frozenset({2}))
    extra = [*answer.ways, *answer.sums, *answer.lot_factors]
    if extra:
        yield Points(tuple(extra))


def _is_scaled(answer: AnswerOut) -> bool:
    return any(blade.on_one_length for blade in answer.ladder)


def _pairs(answer: AnswerOut) -> Iterator[Block]:
    if not answer.comparisons:
        return
    yield Heading("Pairs")
    yield _pair_table(answer.stage, answer.comparisons)
    for other in answer.other_stages:
        if other.comparisons:
            yield Paragraph(other.headline)
            yield _pair_table(other.stage, other.comparisons)
    reasons = [*answer.shared_reasons, *answer.reasons]
    if reasons:
        yield Points(tuple(dict.fromkeys(reasons)))


def _pair_table(stage: str, pairs: Sequence[ComparisonOut]) -> Grid:
    rows = tuple((f"{pair.a}, {pair.b}", pair.tag, pair.size, pair.interval) for pair in pairs)
    return Grid(("pair", f"to {stage}", "by", "95 in 100"), rows)


def _limits(answer: AnswerOut) -> Iterator[Block]:
    """What weakens the claim, said before anybody asks."""
    yield Heading("What this does not show")
    told = [*_LIMITS, *(f"Open: {each}" for each in answer.pending), *answer.notes]
    told += [f"Taken as equal without a measurement: {each}" for each in answer.taken_as_equal]
    told += [f"Not held equal, by choice: {each}" for each in answer.let_go]
    told += [f"Left out of the ranking: {each}" for each in answer.left_out]
    if answer.with_all:
        told.append(answer.with_all)
    yield Points(tuple(told))


def _blades(answer: AnswerOut, hidden: Sequence[Hidden]) -> Iterator[Block]:
    if not answer.blades:
        return
    yield Heading("Blades")
    columns = [
        ("blade", [b.code for b in answer.blades]),
        ("grade, as sold", [b.claimed_grade or "not known" for b in answer.blades]),
        ("hardness", [_hardness(b.hardness_hrc, b.hardness_standing) for b in answer.blades]),
    ]
    if "owners" not in hidden:
        columns.append(("whose", [b.owner or b.loan_from or "not said" for b in answer.blades]))
        columns.append(("made by", [b.origin or "not said" for b in answer.blades]))
    if "prices" not in hidden:
        columns.append(("price", [b.price or "not said" for b in answer.blades]))
    if "notes" not in hidden:
        columns.append(("note", [b.note for b in answer.blades]))
    rows = tuple(zip(*(values for _, values in columns), strict=True))
    yield Grid(tuple(name for name, _ in columns), rows)


def _hardness(hrc: float | None, standing: str | None) -> str:
    if hrc is None:
        return "not known"
    told = next((label for key, label in STANDINGS.items() if key == standing), "")
    return f"{hrc:g} HRC, {told}" if told else f"{hrc:g} HRC"


def _matching(answer: AnswerOut) -> Iterator[Block]:
    blades = list(dict.fromkeys(cell.blade for cell in answer.cells))
    names = list(dict.fromkeys(cell.variable for cell in answer.cells))
    if not blades:
        return
    yield Heading("What was held equal")
    shown = {(c.blade, c.variable): c.shown or "not known" for c in answer.cells}
    for first in range(0, len(blades), _BLADES_BESIDE):
        some = blades[first : first + _BLADES_BESIDE]
        rows = tuple((_label(n), *(shown.get((b, n), "") for b in some)) for n in names)
        yield Grid(("", *some), rows, small=True)
    said = [
        f"{cell.blade}, {_label(cell.variable)}: {cell.says}"
        for cell in answer.cells
        if cell.says and cell.state != "equal"
    ]
    if said:
        yield Points(tuple(dict.fromkeys(said)))


def _label(variable: str) -> str:
    return BY_NAME[variable].label if variable in BY_NAME else variable


def _method(answer: AnswerOut) -> Iterator[Block]:
    method = answer.trial.method
    yield Heading("Method")
    told = [
        f"{method.name}, version {method.number}: {method.ends_when}.",
        f"Checked {method.checked}; {'; '.join(method.stage_words)}.",
        f"An edge counts by this rule, fixed before cutting: {answer.trial.settled_rule}.",
    ]
    if method.note:
        told.append(method.note)
    if method.spoiled_when:
        told.append(f"A cut is spoiled when: {method.spoiled_when}")
    yield Points(tuple(told))
    yield Paragraph(" ".join(method.all_cautions), "note")


def _told(title: str, told: Sequence[tuple[str, str]]) -> Iterator[Block]:
    if told:
        yield Heading(title)
        yield Points(tuple(f"{name}: {says}" for name, says in told))


def _upkeep(answer: AnswerOut) -> Iterator[Block]:
    told = []
    for each in answer.upkeep:
        said = [each.stones, each.restoring, *each.abilities]
        told += [f"{each.blade}: {line}" for line in said if line]
    if told:
        yield Heading("Upkeep")
        yield Points(tuple(told))


def _runs(answer: AnswerOut) -> Iterator[Block]:
    if not answer.runs:
        return
    yield Heading("Runs")
    rows = tuple(
        (
            run.blade,
            str(run.run.edge),
            str(run.run.number),
            run.run.started_utc[:10],
            f"{run.run.count:g} {run.run.count_unit}",
            "practice" if run.run.practice else run.left_out or "; ".join(run.warnings),
        )
        for run in answer.runs
    )
    heads = ("blade", "edge", "run", "begun", "went to", "left out, or to be noted")
    yield Grid(heads, rows, numeric=frozenset({1, 2}), small=True)


def _readings(answer: AnswerOut) -> Iterator[Block]:
    runs = [run for run in answer.runs if run.readings]
    if not runs:
        return
    yield Heading("Readings")
    rows = tuple(
        (
            f"{run.blade}, edge {run.run.edge}, run {run.run.number}",
            ", ".join(_reading(r.count, r.force_gf, struck=r.struck) for r in run.readings),
        )
        for run in runs
    )
    caption = f"count ({_unit(answer)}): force in gf; what was excluded stands in brackets"
    yield Grid(("run", "readings"), rows, caption, small=True)


def _reading(count: float, force_gf: float, *, struck: bool) -> str:
    told = f"{count:g}: {force_gf:.4g}"
    return f"({told})" if struck else told


def standings_blocks(board: BoardOut) -> Iterator[Block]:
    """The common ladder with what weakens it."""
    yield Paragraph(board.headline, "lead")
    yield Paragraph(" ".join([*board.basis, *board.loosened]))
    bars = [
        RungBar(rung.code, rung.mark, rung.ratio, rung.low, rung.high, rung.place)
        for rung in board.rungs
        if rung.island == 0
    ]
    code = next((rung.code for rung in board.rungs if rung.arm == board.reference), "")
    yield Drawing(
        "standings",
        ladder_chart(bars, f"life as a multiple of {code}"),
        "Every blade beside the reference; bars: 95 in 100. On the right its place.",
        "; ".join(f"{rung.code}: {rung.says}, {rung.place}" for rung in board.rungs),
    )
    codes = {rung.arm: rung.code for rung in board.rungs}
    beside = [codes.get(island.reference, "") for island in board.islands]
    rows = tuple(
        (
            rung.code,
            rung.grade,
            f"{rung.says} (beside {beside[rung.island]})" if rung.island else rung.says,
            rung.place,
            "; ".join([rung.rests, *rung.marks]),
        )
        for rung in board.rungs
    )
    yield Grid(("blade", "grade", f"beside {code}", "place", "rests on"), rows, small=True)
    told = [*(f"{each.says} {each.with_and_without}" for each in board.doubted), board.power]
    yield Points(tuple(each for each in [*told, board.repeats] if each))
