"""The analysis as JSON, schema 1: what `kessik analyse` prints and the trial file carries."""

from collections.abc import Mapping
from dataclasses import asdict
from typing import Any

from kessik.core.comparison.analysis import ANALYSIS_VERSION, TrialAnalysis
from kessik.core.comparison.matching import MatchingRule
from kessik.core.comparison.verdict import Comparison
from kessik.core.sharpness.life import Life, figures_of
from kessik.core.words.matching import open_lines
from kessik.core.words.notes import note_words
from kessik.core.words.pairs import reason_words
from kessik.core.words.rules import by_rule_words

SCHEMA = 1


def life_json(life: Life) -> dict[str, Any]:
    """L of the format: estimate, 95 % bounds, status, and what the plain rule gives; in the run's
    count unit.
    """
    figures = figures_of(life.found)
    out: dict[str, Any] = asdict(figures)
    if not figures.extrapolated:
        del out["extrapolated"]
    return {**out, "by_rule": {"value": life.by_rule.value, **by_rule_words(life.by_rule)}}


def comparison_json(trial: str, comparison: Comparison, rule: MatchingRule) -> dict[str, Any]:
    return {
        "trial": trial,
        "a": comparison.a,
        "b": comparison.b,
        "stage": comparison.stage,
        "ratio": comparison.ratio,
        "low": comparison.low,
        "high": comparison.high,
        "verdict": comparison.verdict,
        "scope": comparison.scope,
        "pending": open_lines(comparison.pending),
        "reasons": [reason_words(reason, rule) for reason in comparison.reasons],
        "edges_to_settle": comparison.edges_to_settle,
    }


def _whose(code: str, cut_with: str) -> dict[str, str]:
    """The blade, and the arm where that is not simply the blade."""
    return {"blade": code} if cut_with in ("", code) else {"blade": cut_with, "arm": code}


def analysis_json(
    trials: Mapping[str, TrialAnalysis], keen_gf: float, dull_gf: float
) -> dict[str, Any]:
    """Every trial of a file in one document."""
    runs: list[dict[str, Any]] = []
    blades: list[dict[str, Any]] = []
    comparisons: list[dict[str, Any]] = []
    for trial, analysis in trials.items():
        for result in analysis.runs:
            runs.append(
                {
                    "trial": trial,
                    **_whose(result.run.blade, result.run.cut_with),
                    "edge": result.run.edge,
                    "run": result.run.run,
                    "readings": sum(1 for check in result.run.checks if not check.struck),
                    "count_unit": result.run.count_unit,
                    "start_gf": result.start_gf,
                    "end_gf": result.end_gf,
                    "change_percent": result.change_percent,
                    "life": {stage: life_json(known.life) for stage, known in result.lives.items()},
                }
            )
        carried_by = {r.run.blade: r.run.cut_with for r in analysis.runs}
        for blade in analysis.blades:
            blades.append(
                {
                    "trial": trial,
                    **_whose(blade.blade, carried_by[blade.blade]),
                    "edges": blade.edges,
                    "life": {stage: life_json(life) for stage, life in blade.lives.items()},
                    "spread_percent": blade.spread_percent,
                    "notes": [
                        note_words(note)
                        for note in analysis.notes
                        if getattr(note, "blade", "") == blade.blade
                    ],
                }
            )
        comparisons.extend(
            comparison_json(trial, comparison, analysis.rule) for comparison in analysis.comparisons
        )
    return {
        "schema": SCHEMA,
        "analysis": {"version": ANALYSIS_VERSION, "keen_gf": keen_gf, "dull_gf": dull_gf},
        "runs": runs,
        "blades": blades,
        "comparisons": comparisons,
    }
