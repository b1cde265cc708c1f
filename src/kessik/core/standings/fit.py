"""The fit: ln life = arm + block + tester of the arm + edge, by the likelihood of intervals.

Arms and blocks are fixed, an arm's testers differ by τ and edges by a scatter of each trial's own.
Blocks are eliminated, so that a season of a thousand trials solves for its arms only.

References
----------
[1] S. R. Searle, G. Casella, C. E. McCulloch, Variance Components, chapter 7: mixed model
    equations.
[2] G. K. Smyth, Stat. Appl. Genet. Mol. Biol. 3 (2004): variances moderated across groups.
"""

from dataclasses import dataclass, field
from functools import cached_property

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.standings.design import Design, design_of
from kessik.core.standings.likelihood import Likelihood, likelihood
from kessik.core.standings.network import Network
from kessik.core.standings.variances import START, VarianceEvidence, Variances, renewed

Floats = NDArray[np.float64]

_MOST_STEPS, _MOST_ROUNDS = 60, 40
_SETTLED_STEP, _SETTLED_VARIANCE = 1e-5, 0.004
_LEAST_WEIGHT = 1e-9


@dataclass(frozen=True)
class Fit:
    """Effects, their covariance given the variances, and what each run gave to them."""

    design: Design
    variances: Variances
    effects: Floats
    covariance: Floats
    fitted: Floats
    seen: Likelihood
    sd: Floats

    @property
    def weights(self) -> Floats:
        """How much each run that takes part weighs, shape (runs,)."""
        return np.asarray(np.maximum((1.0 - self.seen.kappa) / self.sd**2, _LEAST_WEIGHT))

    @property
    def scores(self) -> Floats:
        """The slope of the likelihood in each run's mean, shape (runs,)."""
        return self.seen.r / self.sd

    @cached_property
    def block_means(self) -> Floats:
        """Columns averaged over each block by weight, shape (blocks, columns)."""
        weighted = self.design.in_blocks * self.weights[:, None]
        total = np.asarray(weighted.sum(axis=0))
        return np.asarray((weighted.T @ self.design.columns).toarray() / total[:, None])

    @cached_property
    def inside(self) -> Floats:
        """Each run's columns less those of its block, shape (runs, columns)."""
        return np.asarray(self.design.columns.toarray() - self.block_means[self.design.block])

    @cached_property
    def freedom(self) -> Floats:
        """How much of each run the model leaves to say something of its scatter, 0 to 1."""
        by_columns = np.einsum("ij,ij->i", self.inside @ self.covariance, self.inside)
        by_block = 1.0 / (self.design.in_blocks.T @ self.weights)
        fitted_variance = by_columns + by_block[self.design.block]
        left = 1.0 - self.seen.kappa - self.weights * fitted_variance
        return np.asarray(np.clip(left, 0.0, 1.0))

    @cached_property
    def gains(self) -> Floats:
        """What a run's error adds to each effect, shape (columns, runs)."""
        return np.asarray((self.covariance @ self.inside.T) * self.weights)

    def arm_effect(self) -> Floats:
        """ln life of each arm beside the pinned arm of its firm group; NaN without a run."""
        column = self.design.arm_column
        out = np.where(column >= 0, np.append(self.effects, 0.0)[column], 0.0)
        return np.where(self.design.placed, out, np.nan)

    def arm_covariance(self) -> Floats:
        """Covariance of those, with what a single tester leaves unseen, shape (arms, arms)."""
        column = self.design.arm_column
        padded = np.pad(self.covariance, ((0, 1), (0, 1)))
        out = padded[np.ix_(column, column)]
        alone = self.variances.tester_sd**2 * self.design.alone_with_a_tester
        return np.asarray(out + np.diag(alone))


@dataclass
class _Point:
    """Where the search stands: effects, block levels and the likelihood there."""

    effects: Floats
    blocks: Floats
    fitted: Floats = field(init=False)
    seen: Likelihood = field(init=False)
    height: float = field(init=False)


class _Search:
    """Newton's way to the likeliest effects for given variances."""

    def __init__(self, design: Design, start: _Point) -> None:
        self.design, self.at = design, start
        network = design.network
        self.lower, self.upper = network.log_lower[design.runs], network.log_upper[design.runs]
        self.error = network.log_sd[design.runs]

    def found(self, variances: Variances) -> Fit:
        """The likeliest effects for these variances."""
        sd = np.hypot(variances.edge_sd[self.design.trial], self.error)
        covariance = self._climb(sd, self._penalty(variances))
        at = self.at
        return Fit(
            self.design, variances, at.effects, covariance, at.fitted, at.seen, np.asarray(sd)
        )

    def _climb(self, sd: Floats, penalty: Floats) -> Floats:
        """Move to the top and return the covariance of the effects there."""
        self._look(self.at, sd, penalty)
        for _ in range(_MOST_STEPS):
            factor, step, block_step = self._step(sd, penalty)
            moved = self._halved(step, block_step, sd, penalty)
            if moved < _SETTLED_STEP:
                break
        return _inverse(factor)

    def _penalty(self, variances: Variances) -> Floats:
        penalty = np.zeros(self.design.size)
        penalty[self.design.fixed :] = 1.0 / variances.tester_sd**2
        return penalty

    def _look(self, point: _Point, sd: Floats, penalty: Floats) -> None:
        point.fitted = self.design.columns @ point.effects + point.blocks[self.design.block]
        point.seen = likelihood(point.fitted, self.lower, self.upper, sd)
        point.height = float(point.seen.log.sum() - 0.5 * penalty @ point.effects**2)

    def _step(self, sd: Floats, penalty: Floats) -> tuple[Floats, Floats, Floats]:
        columns, in_blocks = self.design.columns, self.design.in_blocks
        weights = np.maximum((1.0 - self.at.seen.kappa) / sd**2, _LEAST_WEIGHT)
        scores = self.at.seen.r / sd
        weighted = columns * weights[:, None]
        by_block = (in_blocks.T @ weighted).toarray()
        total = in_blocks.T @ weights
        square = (columns.T @ weighted).toarray() - by_block.T @ (by_block / total[:, None])
        square[np.diag_indices_from(square)] += penalty
        block_scores = in_blocks.T @ scores
        slope = columns.T @ scores - penalty * self.at.effects
        slope = slope - by_block.T @ (block_scores / total)
        factor = _factor(square)
        step = scipy.linalg.cho_solve((factor, True), slope) if slope.size else slope
        return factor, step, (block_scores - by_block @ step) / total

    def _halved(self, step: Floats, block_step: Floats, sd: Floats, penalty: Floats) -> float:
        share = 1.0
        while share > 1e-4:
            tried = _Point(self.at.effects + share * step, self.at.blocks + share * block_step)
            self._look(tried, sd, penalty)
            if tried.height >= self.at.height - 1e-9 * abs(self.at.height):
                self.at = tried
                return share * float(np.abs(step).max(initial=0.0))
            share *= 0.5
        return 0.0


def fit(network: Network, start: Variances | None = None) -> Fit:
    """Effects and variances together; `start` is where the search of variances begins."""
    design = design_of(network)
    search = _Search(design, _start(design))
    variances = start or START.for_trials(len(network.trials))
    for _ in range(_MOST_ROUNDS):
        found = search.found(variances)
        new = renewed(variances, evidence_of(found))
        if new.distance(variances) < _SETTLED_VARIANCE:
            return found
        variances = new
    return found


def fit_given(network: Network, variances: Variances) -> Fit:
    """Effects for variances that are known."""
    design = design_of(network)
    return _Search(design, _start(design)).found(variances)


def evidence_of(found: Fit) -> VarianceEvidence:
    """What a fit's residuals say of its variances.

    Where lives have errors of their own, a run speaks of its edge's scatter by the share λ that the
    scatter has in the run's whole doubt.
    """
    design, variances = found.design, found.variances
    own = variances.edge_sd[design.trial]
    share = (own / found.sd) ** 4
    df = found.freedom
    errors = found.sd**2 - own**2
    squares = share * (found.seen.r**2 * found.sd**2 - df * errors)
    trials = len(design.network.trials)
    tester = found.effects[design.fixed :]
    doubt = np.eye(tester.size)
    if tester.size:
        doubt = doubt - found.covariance[design.fixed :, design.fixed :] / variances.tester_sd**2
    return VarianceEvidence(
        np.maximum(np.bincount(design.trial, squares, trials), 0.0),
        np.bincount(design.trial, share * df, trials).astype(float),
        float(tester @ tester),
        float(np.trace(doubt)),
        float((doubt**2).sum()),
    )


def _factor(square: Floats) -> Floats:
    """The lower triangle whose square is a positive matrix."""
    return np.asarray(scipy.linalg.cholesky(square, lower=True)) if square.size else square


def _inverse(factor: Floats) -> Floats:
    """The inverse of the square of a lower triangle."""
    if not factor.size:
        return factor
    lower, _ = scipy.linalg.lapack.dpotri(factor, lower=True)
    return np.asarray(np.tril(lower) + np.tril(lower, -1).T)


def _start(design: Design) -> _Point:
    """All arms alike, and each block at the mean of what is known of its lives."""
    network = design.network
    lower, upper = network.log_lower[design.runs], network.log_upper[design.runs]
    known = np.where(np.isfinite(lower), lower, upper)
    known = np.where(np.isfinite(lower) & np.isfinite(upper), 0.5 * (lower + upper), known)
    in_blocks = design.in_blocks
    levels = (in_blocks.T @ known) / np.maximum(in_blocks.T @ np.ones(known.size), 1.0)
    return _Point(np.zeros(design.size), np.asarray(levels))
