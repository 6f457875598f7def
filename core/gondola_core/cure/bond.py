"""How a pour bonds to the one below it."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..materials import Resin
from .march import Marched


@dataclass(frozen=True, slots=True, kw_only=True)
class Bond:
    """The joint under a pour.

    below_cured_fraction   least degree of cure of the upper face of the pour below when this one comes
    bond_fraction   groups still free to react there, over those at its gel; 1 before gel
    """

    below_cured_fraction: float
    bond_fraction: float


def bond_below(marched: Marched, number: int, below: Resin) -> Bond | None:
    """The joint under pour `number` (from 0); None under the first, or where nothing is below.

        bond = (1 - a) / (1 - a_gel), at most 1

    The share of reactive ends is what can tie the layers chemically; what is missing has to be
    held by a roughened face.

    Source: assumed
    """
    degree = float(marched.top_degree[number - 1]) if number else np.nan
    if np.isnan(degree):
        return None
    left = (1.0 - degree) / (1.0 - below.gel_degree)
    return Bond(below_cured_fraction=round(degree, 4), bond_fraction=round(min(1.0, max(0.0, left)), 3))
