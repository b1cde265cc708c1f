"""Several testers in one network: what each finds alone, and how much more or less they count.

A tester's level is the mean ln life on their blocks, as the common network has it. Two levels
differ by medium, lot, hand and gauge together; what is the same blade at both cancels out. A worked
example: blocks of one tester at ln 4.9, 5.1 and of another at 5.3, 5.5 differ by 0.4: the second
counts e^0.4 = 1.49 times as many cuts for the same blade.

References
----------
[1] ISO 5725-2: repeatability and reproducibility; names from memory.
[2] B. L. Welch, Biometrika 34 (1947): two means with variances of their own.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray
from scipy.special import stdtrit

from kessik.core.standings.answer import LifeRatio, Standings, standings
from kessik.core.standings.draws import Normals
from kessik.core.standings.fit import Fit
from kessik.core.standings.places import PlaceSpan
from kessik.core.standings.records import LifeRecord

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class TesterStanding:
    """One tester beside all: `level` is how many times as long lives are at theirs as at the first
    tester's, `ratios` and `places` what their own trials say alone, by arm.
    """

    tester: str
    trials: int
    runs: int
    level: LifeRatio | None
    ratios: Mapping[str, LifeRatio | None] = field(default_factory=dict)
    places: Mapping[str, PlaceSpan] = field(default_factory=dict)


def tester_standings(
    found: Standings,
    records: Sequence[LifeRecord],
    owners: Mapping[str, str],
    reference: str,
    normals: Normals,
) -> tuple[TesterStanding, ...]:
    """Each tester alone, the one with most trials first; none where there is one only.

    `owners` tells whose a trial is. A tester who never cut the reference is put beside nothing.
    """
    own: dict[str, list[LifeRecord]] = {}
    for record in records:
        own.setdefault(owners.get(record.trial, ""), []).append(record)
    if len(own) < 2:
        return ()
    order = sorted(own, key=lambda tester: -len({record.trial for record in own[tester]}))
    levels = _levels(found.fit, owners)
    return tuple(
        replace(
            _alone(tester, own[tester], reference, normals),
            level=_beside(levels, order[0], tester),
        )
        for tester in order
    )


def _alone(
    tester: str, records: Sequence[LifeRecord], reference: str, normals: Normals
) -> TesterStanding:
    trials = len({record.trial for record in records})
    told = [record for record in records if record.says_something]
    if not told:
        return TesterStanding(tester, trials, len(records), None)
    found = standings(told, normals)
    arms = found.network.arms
    is_there = reference in arms
    return TesterStanding(
        tester,
        trials,
        len(records),
        None,
        {arm: found.ratio(arm, reference) for arm in arms} if is_there else {},
        {arm: found.place(arm) for arm in arms},
    )


def _levels(fit: Fit, owners: Mapping[str, str]) -> dict[str, Floats]:
    """By tester the level of each of their blocks in the largest firm group."""
    design, network = fit.design, fit.design.network
    if not design.runs.size:
        return {}
    groups = network.group_of[design.arm]
    here = groups == int(np.argmax(np.bincount(groups)))
    level = (fit.fitted - design.columns @ fit.effects)[here]
    blocks, first = np.unique(design.block[here], return_index=True)
    trial = design.trial[here]
    found: dict[str, list[float]] = {}
    for at in first[np.argsort(blocks)]:
        owner = owners.get(network.trials[trial[at]], "")
        found.setdefault(owner, []).append(float(level[at]))
    return {tester: np.array(values) for tester, values in found.items()}


def _beside(levels: Mapping[str, Floats], first: str, other: str) -> LifeRatio | None:
    """The level of one tester beside the first one's; none with fewer than two blocks each."""
    a, b = levels.get(other), levels.get(first)
    if other == first or a is None or b is None or min(a.size, b.size) < 2:
        return None
    variances = np.array([a.var(ddof=1) / a.size, b.var(ddof=1) / b.size])
    total = float(variances.sum())
    df = total**2 / float((variances**2 / (np.array([a.size, b.size]) - 1.0)).sum())
    middle = float(a.mean() - b.mean())
    half = float(stdtrit(df, 0.975)) * np.sqrt(total)
    low, ratio, high = np.exp([middle - half, middle, middle + half])
    return LifeRatio(other, first, float(ratio), float(low), float(high))
