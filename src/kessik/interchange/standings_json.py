"""The answer of `kessik standings` as JSON and as CSV."""

from collections.abc import Iterator
from itertools import combinations
from typing import Any

from kessik.core.standings.answer import LifeRatio, Standings
from kessik.interchange.csv_tables import write_table

LADDER_COLUMNS = ("island", "blade", "ratio", "lower", "upper", "best", "worst", "trials", "runs")


def standings_json(found: Standings, reference: str) -> dict[str, Any]:
    """Pairs, places, islands and doubts; ratios are life of a / life of b with 95 % intervals."""
    network = found.network
    return {
        "schema": 1,
        "reference": reference,
        "pairs": [
            {"a": r.a, "b": r.b, "ratio": r.ratio, "lower": r.low, "upper": r.high}
            for a, b in combinations(network.arms, 2)
            if (r := found.ratio(a, b)) is not None
        ],
        "ranks": {
            arm: [place.best, place.worst]
            for arm, place in zip(network.arms, found.places, strict=True)
        },
        "inconsistent": list(
            dict.fromkeys(network.trials[cell.trial] for cell in found.doubts.named)
        ),
        "islands": network.islands(),
        "doubts": [
            {
                "trial": network.trials[cell.trial],
                "blade": network.arms[cell.arm],
                "or_else": [network.arms[arm] for arm in cell.or_else],
                "factor": cell.factor,
                "p": cell.p,
            }
            for cell in found.doubts.named
        ],
        "scatter": {
            "edges_percent": 100 * found.fit.variances.common_sd,
            "testers_percent": 100 * found.fit.variances.tester_sd,
        },
        "trials": len(network.trials),
        "runs": network.runs,
    }


def ladder_csv(found: Standings, reference: str) -> str:
    """The ladder as a table for spreadsheets: life relative to the reference of each island."""
    return write_table(LADDER_COLUMNS, list(ladder_rows(found, reference)))


def ladder_rows(found: Standings, reference: str) -> Iterator[dict[str, Any]]:
    """One row a blade, the longest life of its island first."""
    for number, arms in enumerate(found.ladders(), start=1):
        base = reference if reference in arms else found.reference_of(arms)
        for arm in arms:
            ratio = found.ratio(arm, base) or LifeRatio(arm, base, None, None, None)
            place, rests = found.place(arm), found.rests_on(arm)
            yield {
                "island": number,
                "blade": arm,
                "ratio": ratio.ratio,
                "lower": ratio.low,
                "upper": ratio.high,
                "best": place.best,
                "worst": place.worst,
                "trials": len(rests.trials),
                "runs": rests.runs,
            }
