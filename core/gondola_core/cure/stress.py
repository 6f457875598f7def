"""Shrinkage after gel, the stress that it leaves, and what lets go because of it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..materials import Resin
from ..units import GPA, MPA
from ..words import Words, words
from .cooling import PourCooling

POISSON = 0.35
"""Of set resin. Source: own_march"""
HELD_SHARE = 0.45
"""Share of a cast's shrinkage that its walls and the layer below hold. Source: own_march"""
SHELL_SHARE = 0.45
"""Share of what a core sheds that a skin of glass holds against it; the rest sinks the top. Source: assumed"""
RUBBER_OVER_GLASS = 2.3
"""Expansion above the glass temperature over that below. Source: own_geometry"""
BULK_GPA = 2.5
"""Stiffness of warm resin against change of volume. Source: assumed"""
RUBBER_GPA = 0.03
"""Stiffness of cured resin above its glass temperature. Source: own_holding"""
HARD_SOLID_PPM_K = 15.0
"""Expansion of plaster, clay and stone. Source: assumed"""
CRACKS_AT = 1.0
"""Stress over strength from which a crack is likely. Source: own_march"""


Cause = Literal["core_in_skin", "warm_core", "walls", "hard_bed"]


@dataclass(frozen=True, slots=True, kw_only=True)
class PourStress:
    """What one pour leaves behind when it is cold.

    after_gel_fraction   linear shrinkage from gel on, by reaction and by cooling
    stress_index         stress over what glass or rubber stands; near 1 a crack is likely
    cause, words         what most of it comes from, and how that is told
    gap_mm               at either side if it lets go of the walls; sink_mm if it holds
    """

    after_gel_fraction: float
    stress_mpa: float
    stress_index: float
    cause: Cause
    words: Words
    gap_mm: float
    sink_mm: float


def thermal_stress(strain: float, stiffness: float, poisson: float = POISSON) -> float:
    """Stress of a layer held in its plane: E e / (1 - nu) [Pa]. Source: timoshenko1959

    >>> round(thermal_stress(0.002, 2.5e9) / 1e6, 2)
    7.69
    """
    return stiffness * strain / (1.0 - poisson)


def tempering_stress(gap_k: float, expansion_per_k: float, stiffness: float) -> float:
    """Pull in the core of a block that turned to glass with a warmer core [Pa].

        s = E a dT / (3 (1 - nu)),  a parabola of dT from core to skin that freezes at once

    Source: bartenev1949
    """
    return thermal_stress(expansion_per_k * gap_k, stiffness) / 3.0


def shell_stress(shed_k: float, expansion_per_k: float) -> float:
    """Pull on a rubbery core that cools in a skin of glass, which keeps its volume from following [Pa].

        s = share K 3 a dT,  a above the glass temperature

    Rubber hardly gives in volume, so a few percent are enough to tear it.
    Source: own_march
    """
    return SHELL_SHARE * BULK_GPA * GPA * 3.0 * RUBBER_OVER_GLASS * expansion_per_k * shed_k


def cavity_stress(stiffness: float) -> float:
    """Pull from all sides at which a rubber tears open inside [Pa]: 5 E / 6. Source: gent_lindley1959

    >>> round(cavity_stress(0.03e9) / 1e6, 1)
    25.0
    """
    return 5.0 * stiffness / 6.0


def pour_stress(
    resin: Resin, peak_c: float, cooling: PourCooling, room_c: float, degree: float, width_mm: float,
    depth_mm: float, on_hard: bool,
) -> PourStress:
    """Shrinkage and stress of one pour.

    cooling   how it went through its glass temperature
    degree    degree of cure at the end
    on_hard   True where it bonds to a bed or figure that hardly shrinks with it

    What reacts after gel shrinks as a solid; above its glass temperature it contracts as a rubber,
    below as a glass. Three pulls are told, the largest leads: a core that cools in a hard skin, a
    core that froze warmer than its skin, and glass that walls, layer below, or hard bed and figures hold.
    Rubber is held against the pull at which it tears inside, glass against its bending strength.
    Source: own_march
    """
    expansion = resin.expansion_ppm_k * 1e-6
    left = max(0.0, degree - resin.gel_degree) / max(degree, 1e-6)
    frozen_c = min(cooling.frozen_at_c, resin.tg_full_c)
    as_glass = expansion * max(0.0, frozen_c - room_c)
    as_rubber = RUBBER_OVER_GLASS * expansion * max(0.0, peak_c - max(frozen_c, room_c))
    linear = resin.shrink_fraction / 3.0 * left + as_glass + as_rubber
    stiffness = resin.stiffness_gpa * GPA
    hard = thermal_stress(max(0.0, expansion - HARD_SOLID_PPM_K * 1e-6) * max(0.0, frozen_c - room_c), stiffness)
    glass = resin.strength_mpa * MPA
    pulls: list[tuple[Cause, float, float]] = [
        ("core_in_skin", shell_stress(cooling.shed_k, expansion),
         cavity_stress(RUBBER_GPA * GPA)),
        ("warm_core",
         tempering_stress(cooling.frozen_gap_k, expansion, stiffness), glass),
        ("walls", HELD_SHARE * thermal_stress(as_glass, stiffness), glass),
        ("hard_bed", hard if on_hard else 0.0, glass),
    ]
    cause, stress, stands = max(pulls, key=lambda pull: pull[1] / pull[2])
    return PourStress(
        after_gel_fraction=round(linear, 5),
        stress_mpa=round(stress / MPA, 1),
        stress_index=round(stress / stands, 2),
        cause=cause,
        words=words(f"stress.{cause}"),
        gap_mm=round(0.5 * width_mm * linear, 2),
        sink_mm=round(3 * linear * depth_mm, 2),
    )
