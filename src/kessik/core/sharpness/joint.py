"""Joint fit of the edges of one blade: shape and scatter are related, shared as a prior and not
forced equal.

A blade has an unseen master (shape, scatter); each edge follows it or a near relative with
probability SHARED and goes its own way otherwise. Given the master, edges are independent, so
everything stays exact on the grid.
"""

from collections.abc import Sequence
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from kessik.core.sharpness import shapes
from kessik.core.sharpness.posterior import (
    SCATTER_NODES,
    EdgeLikelihood,
    model_prior,
    scatter_prior,
)

Floats = NDArray[np.float64]

SHARED = 0.6
_SHAPE_KINSHIP, _SCATTER_KINSHIP = 0.08, 0.35


@lru_cache(maxsize=1)
def kinship() -> Floats:
    """Probability of an edge's model (columns) given its blade's master (rows), shape (models,
    models).
    """
    u = np.linspace(0.1, 1.1, 21)
    curves = shapes.rises(u)
    distance = np.sqrt(np.mean((curves[:, None, :] - curves[None, :, :]) ** 2, axis=-1))
    near_shape = np.exp(-0.5 * (distance / _SHAPE_KINSHIP) ** 2) * shapes.prior_weights()
    apart = np.log(SCATTER_NODES[:, None] / SCATTER_NODES[None, :])
    near_scatter = np.exp(-0.5 * (apart / _SCATTER_KINSHIP) ** 2) * scatter_prior()
    near = np.kron(_rows_to_one(near_shape), _rows_to_one(near_scatter))
    return np.asarray(SHARED * near + (1.0 - SHARED) * model_prior()[None, :])


def _rows_to_one(matrix: Floats) -> Floats:
    return np.asarray(matrix / matrix.sum(axis=1, keepdims=True))


def given_master(edge: EdgeLikelihood) -> Floats:
    """Likelihood of the edge's life given the blade's master, shape (models, lives); what the jump
    process says is the same for every master.
    """
    kept = np.flatnonzero(edge.likelihood.any(axis=1))
    table = np.asarray(kinship()[:, kept] @ edge.likelihood[kept])
    if edge.fall_mass is None:
        return table
    whole = float(model_prior() @ (table @ edge.spacing))
    falls = edge.fall_share * edge.fall_mass / edge.spacing / edge.fall_mass.sum()
    return np.asarray((1.0 - edge.fall_share) * table / whole + falls)


def life_masses(edges: Sequence[EdgeLikelihood]) -> list[Floats]:
    """Posterior mass of each edge's life on its own grid, every edge informed by its sisters."""
    tables = [given_master(edge) for edge in edges]
    evidence = np.stack([table @ edge.spacing for table, edge in zip(tables, edges, strict=True)])
    evidence /= evidence.max(axis=1, keepdims=True)
    masses = []
    for index, (table, edge) in enumerate(zip(tables, edges, strict=True)):
        others = np.prod(np.delete(evidence, index, axis=0), axis=0) * model_prior()
        mass = (others @ table) * edge.spacing
        masses.append(np.asarray(mass / mass.sum()))
    return masses


def quantiles(log_life: Floats, mass: Floats, shares: Sequence[float]) -> Floats:
    """Quantiles of a life from its grid mass, in the unit of the counts."""
    cumulative = np.cumsum(mass) - 0.5 * mass
    return np.asarray(np.exp(np.interp(shares, cumulative, log_life)))
