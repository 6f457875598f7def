"""The mass of one drop, from drops that were counted onto a scale."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

import numpy as np
from pydantic import Field
from scipy.stats import chi2

from ..part import Part, bounded
from .belief import COVERS

DROP_SCATTER = 0.12
"""Of the mass of a drop, until several weighings tell it. Source: own_learning"""


class DropsWeighed(Part):
    """So many drops onto a scale of such a step, once or more often."""

    drops_count: Annotated[int, Field(title="drops in one weighing", ge=1, le=500)] = 20
    masses_g: Annotated[
        list[Annotated[float, Field(gt=0, le=500)]], Field(title="weighings", min_length=1, max_length=50)
    ]
    scale_step_g: float = bounded("step of the scale", "g", 0.0001, 1, default=0.01)


@dataclass(frozen=True, slots=True, kw_only=True)
class DropMass:
    """One drop, nine in ten of it, and how much single drops scatter; the scatter's own range where it was told."""

    drop_g: float
    low_g: float
    high_g: float
    scatter_fraction: float
    scatter_low_fraction: float | None
    scatter_high_fraction: float | None


def drop_mass(weighed: DropsWeighed) -> DropMass:
    """Mass of a drop and how surely.

        m/n,  sd = sqrt(u^2 + n (c m/n)^2)/n,  c = sd(m_k) sqrt(n)/mean(m_k)

    Source: own_learning; the range of the scatter is student1908

    >>> drop_mass(DropsWeighed(drops_count=20, masses_g=[0.8])).drop_g
    0.04
    """
    masses, count = np.array(weighed.masses_g), weighed.drops_count
    drop = float(masses.mean()) / count
    scatter = DROP_SCATTER
    ends: tuple[float | None, float | None] = (None, None)
    if len(masses) > 1:
        degrees = len(masses) - 1
        scatter = float(masses.std(ddof=1)) * count**0.5 / float(masses.mean())
        low, high = (scatter * (degrees / chi2.ppf(share, degrees)) ** 0.5 for share in (0.95, 0.05))
        ends = (round(float(low), 3), round(float(high), 3))
    sd = (weighed.scale_step_g**2 + count * (scatter * drop) ** 2) ** 0.5 / count / len(masses) ** 0.5
    return DropMass(
        drop_g=round(drop, 5), low_g=round(max(0.0, drop - COVERS * sd), 5), high_g=round(drop + COVERS * sd, 5),
        scatter_fraction=round(scatter, 3), scatter_low_fraction=ends[0], scatter_high_fraction=ends[1],
    )
