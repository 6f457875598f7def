"""Whether a removable figure still fits its cavity when the resin has shrunk."""

from __future__ import annotations

from dataclasses import dataclass

from ..words import Words, words

AFTER_GEL = 0.42
"""Share of the shrinkage that comes after the gel, when the cavity has a shape. Source: assumed"""
TIGHT_MM = 0.1


@dataclass(frozen=True, slots=True, kw_only=True)
class CavityFit:
    """The gap that is left around a figure."""

    figure_id: str
    gap_mm: float
    fits: bool
    words: Words


def cavity_fit(figure_id: str, name: str, gap_mm: float, size_mm: float, shrink_fraction: float) -> CavityFit:
    """The gap on each side after the resin around has shrunk.

        gap' = gap - L eps/2,  eps = 0.42 dV/V / 3

    Source: definition; the share after the gel is assumed

    >>> cavity_fit("a", "boat", 0.5, 60.0, 0.03).gap_mm
    0.374
    """
    left = gap_mm - size_mm * AFTER_GEL * shrink_fraction / 3 / 2
    fits = left >= TIGHT_MM
    said = words("finish.fits" if fits else "finish.stuck", name=name, gap=left)
    return CavityFit(figure_id=figure_id, gap_mm=round(left, 3), fits=fits, words=said)
