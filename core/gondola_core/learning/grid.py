"""Answers on a few points of (ln rate, ln heat), and smooth between them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from .belief import Belief

Array = NDArray[np.float64]

RATES, HEATS = 6, 4
"""Points each way. Source: own_learning"""
REACH = 2.5
"""Deviations of the belief that the points cover."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Grid:
    """Chebyshev points: rates (6,) and heats (4,), logarithms."""

    rates: Array
    heats: Array

    @property
    def points(self) -> list[Array]:
        """All of them, the heats quickest."""
        return [np.array([rate, heat]) for rate in self.rates for heat in self.heats]

    def table(self, values: Sequence[Array]) -> Array:
        """(rates, heats, n) of (n,) at each point."""
        return np.array(values).reshape(len(self.rates), len(self.heats), -1)

    def at(self, table: Array, logs: Array) -> Array:
        """(n,) at any (ln rate, ln heat), by the polynomial through all points; held at the edges.

        Source: berrut_trefethen2004
        """
        first = _shares(self.rates, float(logs[0]))
        second = _shares(self.heats, float(logs[1]))
        return np.asarray(np.einsum("i,ijn,j->n", first, table, second))


def _shares(nodes: Array, at: float) -> Array:
    """Of each point in the value at a place."""
    place = float(np.clip(at, nodes.min(), nodes.max()))
    gaps = place - nodes
    if (np.abs(gaps) < 1e-12).any():
        return np.asarray(np.abs(gaps) < 1e-12, dtype=float)
    weights = np.array([1.0 / np.prod(node - np.delete(nodes, at)) for at, node in enumerate(nodes)])
    parts = weights / gaps
    return np.asarray(parts / parts.sum())


def grid_around(belief: Belief) -> Grid:
    """Points over what is believed."""
    def nodes(count: int, middle: float, sd: float) -> Array:
        return np.asarray(middle + REACH * sd * np.cos(np.pi * (np.arange(count) + 0.5) / count))

    return Grid(
        rates=nodes(RATES, float(belief.mean[0]), float(belief.sd[0])),
        heats=nodes(HEATS, float(belief.mean[1]), float(belief.sd[1])),
    )
