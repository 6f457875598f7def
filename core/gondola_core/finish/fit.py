"""Whether a removable figure still fits its cavity when the resin has shrunk."""

from __future__ import annotations

from dataclasses import dataclass

from ..materials import Resin
from ..words import Words, words

TIGHT_MM = 0.1
"""Gap below which a figure sticks. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class CavityFit:
    """The gap that is left around a figure."""

    figure_id: str
    gap_mm: float
    fits: bool
    words: Words


def cavity_fit(figure_id: str, name: str, gap_mm: float, size_mm: float, resin: Resin) -> CavityFit:
    """The gap on each side after the resin around has shrunk.

        gap' = gap - L eps/2,  eps = (1 - a_gel) dV/V / 3

    What reacts before the gel makes no shape smaller. Source: definition
    """
    linear = (1.0 - resin.gel_degree) * resin.shrink_fraction / 3
    left = gap_mm - size_mm * linear / 2
    fits = left >= TIGHT_MM
    said = words("finish.fits" if fits else "finish.stuck", name=name, gap=left)
    return CavityFit(figure_id=figure_id, gap_mm=round(left, 3), fits=fits, words=said)
