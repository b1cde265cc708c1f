"""Answers of trials as the sheets of a workbook: the numbers of the report, and how the plain ones
among them come about.
"""

from collections.abc import Iterator, Sequence

from kessik.api.schemas.verdict import AnswerOut
from kessik.interchange.workbook import Cell, Formula, Rows

_ANSWER = ("trial", "question", "answer", "stage", "how it stands", "rests on")
_BLADES = (
    "trial", "blade", "stage", "life", "low", "high", "life in words", "edges with a life",
    "plain geometric mean of these", "beside the first blade",
)  # fmt: skip  # a table is read by its rows
_EDGES = (
    "trial", "blade", "edge", "run", "stage", "life", "low", "high", "life in words",
    "included", "ln of the life", "start, gf", "end, gf", "change on the start",
)  # fmt: skip  # a table is read by its rows
_PAIRS = ("trial", "stage", "blade", "other blade", "verdict", "by", "95 in 100")
_READINGS = ("trial", "blade", "edge", "run", "count", "unit", "force, gf", "included")
_FIRST_ROW = 2


def trial_sheets(
    answers: Sequence[AnswerOut], made_from: str
) -> list[tuple[str, Sequence[str], Rows]]:
    """The sheets of these trials; `made_from` says which state of the data they rest on."""
    answer_rows = [
        (a.trial.name, a.trial.question, a.headline, a.stage, a.standing, made_from)
        for a in answers
    ]
    return [
        ("Answer", _ANSWER, answer_rows),
        ("Blades", _BLADES, list(_blades(answers))),
        ("Edges", _EDGES, list(_edges(answers))),
        ("Pairs", _PAIRS, list(_pairs(answers))),
        ("Readings", _READINGS, list(_readings(answers))),
    ]


def _blades(answers: Sequence[AnswerOut]) -> Iterator[list[Cell]]:
    row = _FIRST_ROW
    for answer in answers:
        for stage in answer.stages:
            first = row
            for blade in answer.ladder:
                if stage not in blade.lives:
                    continue
                life = blade.lives[stage]
                of_it = (
                    f'Edges!$A:$A,A{row},Edges!$B:$B,B{row},Edges!$E:$E,C{row},Edges!$J:$J,"yes"'
                )
                yield [
                    answer.trial.name, blade.blade, stage,
                    life.estimate, life.low, life.high, life.words,
                    Formula(f'=COUNTIFS({of_it},Edges!$F:$F,">0")'),
                    Formula(f'=IFERROR(EXP(AVERAGEIFS(Edges!$K:$K,{of_it})),"")'),
                    Formula(f'=IFERROR(I{row}/I${first},"")'),
                ]  # fmt: skip  # a row is read by its columns
                row += 1


def _edges(answers: Sequence[AnswerOut]) -> Iterator[list[Cell]]:
    row = _FIRST_ROW
    for answer in answers:
        for run in answer.runs:
            included = "no" if run.run.practice or run.left_out else "yes"
            for stage, life in run.lives.items():
                yield [
                    answer.trial.name, run.blade, run.run.edge, run.run.number, stage,
                    life.estimate, life.low, life.high, life.words, included,
                    Formula(f'=IF(F{row}="","",LN(F{row}))'),
                    run.start_gf, run.end_gf,
                    Formula(f'=IF(OR(L{row}="",M{row}=""),"",M{row}/L{row}-1)'),
                ]  # fmt: skip  # a row is read by its columns
                row += 1


def _pairs(answers: Sequence[AnswerOut]) -> Iterator[list[Cell]]:
    for answer in answers:
        stages = [(answer.stage, answer.comparisons)]
        stages += [(other.stage, other.comparisons) for other in answer.other_stages]
        for stage, pairs in stages:
            for pair in pairs:
                yield [answer.trial.name, stage, pair.a, pair.b, pair.tag, pair.size, pair.interval]


def _readings(answers: Sequence[AnswerOut]) -> Iterator[list[Cell]]:
    for answer in answers:
        for run in answer.runs:
            for reading in run.readings:
                included = "no" if reading.struck else "yes"
                yield [
                    answer.trial.name, run.blade, run.run.edge, run.run.number,
                    reading.count, run.run.count_unit, reading.force_gf, included,
                ]  # fmt: skip  # a row is read by its columns
