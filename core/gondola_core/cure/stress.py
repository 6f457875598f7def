"""Shrinkage after gel, the stress that it leaves, and what lets go because of it."""

from __future__ import annotations

from dataclasses import dataclass

from ..materials import Resin
from ..units import GPA, MPA

POISSON = 0.35
"""Of set resin. Source: own_march"""
HELD_SHARE = 0.45
"""Share of a cast's shrinkage that its walls and the layer below hold. Source: own_march"""
CRACKS_AT = 1.0
"""Stress over strength from which a crack is likely. Source: own_march"""


@dataclass(frozen=True, slots=True, kw_only=True)
class PourStress:
    """What one pour leaves behind when it is cold.

    after_gel_fraction   linear shrinkage from gel on, by reaction and by cooling
    stress_index         stress over strength; near 1 a crack is likely
    gap_mm               at either side if it lets go of the walls; sink_mm if it holds
    """

    after_gel_fraction: float
    stress_mpa: float
    stress_index: float
    gap_mm: float
    sink_mm: float


def thermal_stress(strain: float, stiffness: float, poisson: float = POISSON) -> float:
    """Stress of a layer held in its plane: E e / (1 - nu) [Pa]. Source: timoshenko1959

    >>> round(thermal_stress(0.002, 2.5e9) / 1e6, 2)
    7.69
    """
    return stiffness * strain / (1.0 - poisson)


def pour_stress(
    resin: Resin, peak_c: float, skin_c: float, room_c: float, degree: float,
    width_mm: float, depth_mm: float,
) -> PourStress:
    """Shrinkage and stress of one pour from its peak, its coolest skin, and its degree of cure.

    What reacts after gel shrinks as a solid; what is locked in above the room contracts on cooling,
    from the glass temperature or the peak, whichever is lower, and more in the core than in the
    skin.
    Source: own_march
    """
    left = max(0.0, degree - resin.gel_degree) / max(degree, 1e-6)
    reacted = resin.shrink_fraction / 3.0 * left
    lock_c = min(peak_c, resin.tg_full_c)
    cooled = resin.expansion_ppm_k * 1e-6 * max(0.0, lock_c - room_c)
    core = resin.expansion_ppm_k * 1e-6 * max(0.0, peak_c - skin_c)
    linear = reacted + cooled
    strain = HELD_SHARE * linear + core
    stress = thermal_stress(strain, resin.stiffness_gpa * GPA)
    return PourStress(
        after_gel_fraction=round(linear, 5),
        stress_mpa=round(stress / MPA, 1),
        stress_index=round(stress / MPA / resin.strength_mpa, 2),
        gap_mm=round(0.5 * width_mm * linear, 2),
        sink_mm=round(3 * linear * depth_mm, 2),
    )
