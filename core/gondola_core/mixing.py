"""What goes into the cup: part A and part B, by mass and by volume."""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil

from .materials import Resin


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


def mass_ratio(resin: Resin) -> float:
    """Mass of part B for each mass of part A, whichever way the label states the ratio.

        b/a = ratio_b / ratio_a,  times rho_B / rho_A if the label speaks of volumes

    Source: definition
    """
    ratio = resin.ratio.part_b / resin.ratio.part_a
    if resin.ratio.by == "volume":
        ratio *= resin.density_b_g_ml / resin.density_a_g_ml
    return ratio


def mix_for(volume_ml: float, resin: Resin) -> Mix:
    """Parts for a volume of mixed resin.

    volume_ml  of the mix at the density of the mix

    Cups are of equal size, none above the most mass that the label allows to be mixed at once.
    """
    mix_g = volume_ml * resin.density_g_ml
    ratio = mass_ratio(resin)
    part_a_g = mix_g / (1.0 + ratio)
    part_b_g = mix_g - part_a_g
    cups = max(1, ceil(mix_g / resin.most_mix_g - 1e-9))
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
    )
