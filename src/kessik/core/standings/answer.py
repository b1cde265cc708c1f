"""Standings: where each arm stands among all that were ever cut, and how sure that is."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from kessik.core.errors import NotAllowedNowError
from kessik.core.standings.doubt import Doubts, doubts
from kessik.core.standings.draws import Normals, season_of
from kessik.core.standings.fit import Fit, fit
from kessik.core.standings.intervals import Differences, differences
from kessik.core.standings.network import Network, network_of
from kessik.core.standings.places import PlaceSpan, ranked
from kessik.core.standings.records import LifeRecord

Floats = NDArray[np.float64]
Progress = Callable[[int, int], None]

PLACES_SEED = 13
"""Places are drawn; with one seed the same lives give the same places everywhere."""

_STEPS = 3


@dataclass(frozen=True)
class LifeRatio:
    """life(a) / life(b) with its own 95 % interval; only a bound is known one-sided, at 97.5 %.

    `ratio` is None where an end is open, and a bound where nothing is known of it.
    """

    a: str
    b: str
    ratio: float | None
    low: float | None
    high: float | None


@dataclass(frozen=True)
class RestsOn:
    """What the standing of an arm rests on: trials by name, and how many runs."""

    trials: tuple[str, ...]
    runs: int


@dataclass(frozen=True)
class Standings:
    """One network fitted: ratios of arms, places in islands, and trials that disagree."""

    network: Network
    fit: Fit
    doubts: Doubts
    differences: Differences
    least: Floats
    places: tuple[PlaceSpan, ...]

    @cached_property
    def _number(self) -> dict[str, int]:
        return {arm: at for at, arm in enumerate(self.network.arms)}

    def ratio(self, a: str, b: str) -> LifeRatio | None:
        """One pair; None where no path connects the two."""
        i, j = self._number[a], self._number[b]
        if self.network.island_of[i] != self.network.island_of[j]:
            return None
        if i == j:
            return LifeRatio(a, b, 1.0, 1.0, 1.0)
        log_ratio = self.differences.log_ratio[i, j]
        if np.isfinite(log_ratio):
            return _ratio(a, b, log_ratio, self._half_width[i, j])
        return LifeRatio(a, b, None, _bound(self.least[i, j]), _bound(-self.least[j, i]))

    def ladders(self) -> list[list[str]]:
        """The arms of each island, the largest first; the longest life on top of each.

        An arm with an open end stands in the middle of the places that it could have.
        """
        return [
            sorted(arms, key=self._heights(arms).__getitem__) for arms in self.network.islands()
        ]

    def _heights(self, arms: Sequence[str]) -> dict[str, float]:
        effect = {arm: self._effect[self._number[arm]] for arm in arms}
        firm = sorted((arm for arm in arms if np.isfinite(effect[arm])), key=lambda a: -effect[a])
        place = {arm: float(at) for at, arm in enumerate(firm, start=1)}
        groups = {self.network.group_of[self._number[arm]] for arm in firm}
        if len(groups) > 1:  # several grounds have no common scale: by places alone
            place = {}
        middle = {arm: 0.5 * (self.place(arm).best + self.place(arm).worst) for arm in arms}
        return {arm: place.get(arm, middle[arm]) for arm in arms}

    def reference_of(self, arms: Sequence[str]) -> str:
        """The arm of an island that most trials have, and of those the one with most runs."""

        def met(arm: str) -> tuple[int, int]:
            rests = self.rests_on(arm)
            return len(rests.trials), rests.runs

        return max(arms, key=met)

    def rests_on(self, arm: str) -> RestsOn:
        """The trials that have an arm, and its runs in them."""
        own = self.network.arm == self._number[arm]
        trials = np.unique(self.network.trial[own])
        return RestsOn(tuple(self.network.trials[at] for at in trials), int(own.sum()))

    @cached_property
    def _effect(self) -> Floats:
        return self.fit.arm_effect()

    def place(self, arm: str) -> PlaceSpan:
        """The place of an arm in its island."""
        return self.places[self._number[arm]]

    @cached_property
    def _half_width(self) -> Floats:
        return self.differences.half_width()


def ratios_by(fit: Fit, pairs: Sequence[tuple[str, str]]) -> list[LifeRatio | None]:
    """Pairs by another fit of the same network; None where it knows no number."""
    number = {arm: at for at, arm in enumerate(fit.design.network.arms)}
    known = differences(fit)
    half = known.half_width()
    at = [(number[a], number[b]) for a, b in pairs]
    return [
        _ratio(a, b, known.log_ratio[i, j], half[i, j])
        if np.isfinite(known.log_ratio[i, j])
        else None
        for (a, b), (i, j) in zip(pairs, at, strict=True)
    ]


def _ratio(a: str, b: str, log_ratio: float, half: float) -> LifeRatio:
    low, middle, high = np.exp([log_ratio - half, log_ratio, log_ratio + half])
    return LifeRatio(a, b, float(middle), float(low), float(high))


def _bound(log_bound: float) -> float | None:
    return float(np.exp(log_bound)) if np.isfinite(log_bound) else None


def standings(
    records: Sequence[LifeRecord],
    normals: Normals,
    went_on: Progress = lambda _done, _of: None,
    without_doubted: bool = True,
) -> Standings:
    """The standings of lives; `normals` draws the places, and the same ones draw the same.

    Lives of a blade in a trial that disagrees with all others tell nothing of the blade elsewhere,
    unless `without_doubted` is false.
    """
    if not any(record.says_something for record in records):
        raise NotAllowedNowError("no life of these trials says anything yet")
    network = network_of(records)
    whole = fit(network)
    went_on(1, _STEPS)
    found = doubts(network, whole, normals)
    went_on(2, _STEPS)
    used = found.without if without_doubted else whole
    pairs = differences(used)
    season = season_of(used, _usual_df(pairs), normals)
    places = ranked(season)
    went_on(_STEPS, _STEPS)
    return Standings(network, used, found, pairs, places.least, places.places)


def _usual_df(pairs: Differences) -> float:
    """The degrees that intervals of pairs usually have."""
    known = pairs.df[np.isfinite(pairs.df)]
    return float(np.median(known)) if known.size else 10.0
