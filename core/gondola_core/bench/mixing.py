"""What goes into the cup: part A and part B, by mass and by volume."""

from __future__ import annotations

from dataclasses import dataclass
from math import pi, sqrt

from ..materials import Resin
from ..units import G_PER_ML, GRAVITY, ML, MPA_S


@dataclass(frozen=True, slots=True, kw_only=True)
class Mix:
    """The two parts of one pour and how many cups they make."""

    mix_g: float
    mix_ml: float
    part_a_g: float
    part_b_g: float
    part_a_ml: float
    part_b_ml: float
    cups_count: int
    cup_part_a_g: float
    cup_part_b_g: float
    cup_part_a_ml: float
    cup_part_b_ml: float


def mass_ratio(resin: Resin) -> float:
    """Mass of part B for each mass of part A, whichever way the label states the ratio.

        b/a = ratio_b / ratio_a,  times rho_B / rho_A if the label speaks of volumes

    Source: definition
    """
    ratio = resin.ratio.part_b / resin.ratio.part_a
    if resin.ratio.by == "volume":
        ratio *= resin.density_b_g_ml / resin.density_a_g_ml
    return ratio


DRAIN = 60.0
"""s that a cup is held upside down. Source: assumed"""


def cup_film_ml(cup_ml: float, viscosity: float, density: float) -> float:
    """Resin that stays on the wall of a cup after it has drained, unscraped [ml].

        mean film = 2/3 sqrt(mu z / (rho g t)),  over 4 pi r^2 of a cup twice as high as wide

    cup_ml      what the cup held [ml]
    viscosity   [Pa s]
    density     [kg/m3]

    Source: jeffreys1930

    >>> round(cup_film_ml(500.0, 0.7, 1100.0), 1)
    6.8
    """
    radius = float((cup_ml * ML / (2 * pi)) ** (1 / 3))
    film = 2 / 3 * sqrt(viscosity * 2 * radius / (density * GRAVITY * DRAIN))
    return 4 * pi * radius**2 * film / ML


def allowance_ml(volume_ml: float, resin: Resin, cups: int) -> float:
    """What all cups of a volume keep on their walls, mixed at 25 degrees [ml]."""
    if volume_ml <= 0:
        return 0.0
    return cups * cup_film_ml(
        volume_ml / cups, resin.viscosity_mpa_s * MPA_S, resin.density_g_ml * G_PER_ML
    )


def mix_for(volume_ml: float, resin: Resin, cups: int = 1) -> Mix:
    """Parts for a volume of mixed resin.

    volume_ml  of the mix at the density of the mix
    cups       of equal size
    """
    mix_g = volume_ml * resin.density_g_ml
    ratio = mass_ratio(resin)
    part_a_g = mix_g / (1.0 + ratio)
    part_b_g = mix_g - part_a_g
    return Mix(
        mix_g=mix_g,
        mix_ml=volume_ml,
        part_a_g=part_a_g,
        part_b_g=part_b_g,
        part_a_ml=part_a_g / resin.density_a_g_ml,
        part_b_ml=part_b_g / resin.density_b_g_ml,
        cups_count=cups,
        cup_part_a_g=part_a_g / cups,
        cup_part_b_g=part_b_g / cups,
        cup_part_a_ml=part_a_g / resin.density_a_g_ml / cups,
        cup_part_b_ml=part_b_g / resin.density_b_g_ml / cups,
    )
