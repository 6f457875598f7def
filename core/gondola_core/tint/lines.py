"""How a layer line is seen: each thing that draws it, as a colour difference, by how one looks at it."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, pi, sqrt

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

DE00_OF_STEP = 22.0
"""dE00 of a relative step in luminance. Source: own_light"""
MIRRORED = 0.5
"""Contrast of what a line mirrors, or of a speck, against what stands beside it. Source: assumed"""
LEVEL_DEG = 10.0
"""Looks along a line from level to so many degrees above count alike. Source: assumed"""
BATCH_STEP = 2e-4
"""Step in index between two cups of one resin: a hundredth off in ratio. Source: assumed"""
INDEX = 1.55
"""Of set epoxy. Source: own_geometry"""
SPECKS_PER_CM2_H = {False: 0.2, True: 0.02}
"""Specks that settle in an hour on an open face, and on a covered one. Source: assumed"""
SPECK_MM = 0.05
"""Across a speck of house dust. Source: assumed"""
RESOLVED = 1 / 3000
"""Height that an eye makes out, over its distance: 0.1 mm at 300 mm. Source: own_geometry"""
UNBONDED_SHARE = 0.1
"""Share of a face that stays parted where nothing was left to react and nobody abraded it. Source: assumed"""
HELD_BELOW = 0.45
"""Share of a pour's shrinkage that the one below keeps it from. Source: own_march"""
GROOVE_MM = 0.2
"""Step in a face from which its whole slope is seen. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Joint:
    """What a line is made of.

    index_step      between the resins on either side
    open_h          hours that the lower face lay open
    covered         True if under a cover
    bond_fraction   groups still free to react; 1 before gel
    shrunk          linear shrinkage of the lower pour from gel until the upper one comes; 0 where the wall holds it
    climb_mm        height of the lower pour's rim at the walls
    viewing_mm      distance of the eye
    """

    index_step: float
    open_h: float
    covered: bool
    bond_fraction: float
    shrunk: float
    climb_mm: float
    viewing_mm: float


def mirrored_fraction(index_step: float, index: float = INDEX) -> float:
    """Share of the light that a step in index mirrors, mean over looks from level to 10 degrees above.

        R = ((1 - w)/(1 + w))^2,  w = sqrt(1 - (gc/g)^2),  all of it below gc = sqrt(2 dn/n)

    Source: fresnel1823

    >>> round(mirrored_fraction(0.0), 3), round(mirrored_fraction(2e-4), 2), mirrored_fraction(0.05)
    (0.0, 0.1, 1.0)
    """
    critical = sqrt(2.0 * abs(index_step) / index)
    grazes = (np.arange(200) + 0.5) / 200 * np.radians(LEVEL_DEG)
    w = np.sqrt(np.maximum(0.0, 1.0 - (critical / grazes) ** 2))
    return float(np.mean(((1.0 - w) / (1.0 + w)) ** 2))


def index_de00(joint: Joint) -> float:
    """Of two resins, or two cups of one, that bend light otherwise."""
    return DE00_OF_STEP * MIRRORED * mirrored_fraction(max(abs(joint.index_step), BATCH_STEP))


def dust_de00(joint: Joint, path_mm: float) -> float:
    """Of specks, seen along the line through so much resin: a line as high as a speck.

        covered share = 1 - exp(-n d Y);  what is thinner than an eye makes out pales with its height
    """
    specks_mm2 = SPECKS_PER_CM2_H[joint.covered] * joint.open_h / 100.0
    share = 1.0 - exp(-specks_mm2 * SPECK_MM * path_mm)
    return DE00_OF_STEP * MIRRORED * share * min(1.0, SPECK_MM / (RESOLVED * joint.viewing_mm))


def dust_from_above_de00(joint: Joint) -> float:
    """Of the same specks seen on the face of the line."""
    specks_mm2 = SPECKS_PER_CM2_H[joint.covered] * joint.open_h / 100.0
    return DE00_OF_STEP * MIRRORED * (1.0 - exp(-specks_mm2 * pi / 4 * SPECK_MM**2))


def climb_de00(joint: Joint) -> float:
    """Of the rim that the lower pour left at the wall, where the next one met it too hard to bond."""
    parted = UNBONDED_SHARE * (1.0 - joint.bond_fraction)
    return DE00_OF_STEP * MIRRORED * parted * min(1.0, joint.climb_mm / (RESOLVED * joint.viewing_mm))


def shrink_de00(joint: Joint, path_mm: float, polished: bool) -> float:
    """Of the step in a face where the lower pour had drawn back when the next one came.

        step = e Y/2 (1 - held),  e the linear shrinkage by then; what lies below holds a share

    A sanded or coated face has none left.
    """
    if not polished:
        return 0.0
    step_mm = joint.shrunk * path_mm / 2 * (1.0 - HELD_BELOW)
    sight = min(1.0, step_mm / (RESOLVED * joint.viewing_mm))
    return DE00_OF_STEP * MIRRORED * min(1.0, step_mm / GROOVE_MM) * sight


def together(parts: list[float]) -> float:
    """Differences that have nothing to do with each other: the root of their squares' sum."""
    return sqrt(sum(one * one for one in parts))
