"""Resin that sets under a lamp: how deep it cures, how long the lamp takes, what shades it."""

from __future__ import annotations

from dataclasses import dataclass
from math import exp, log

from ..materials import LightCure

MARGIN = 1.5
"""Light over what just gels the bottom of a layer. Source: own_light"""


@dataclass(frozen=True, slots=True, kw_only=True)
class LightAnswer:
    """One layer under the lamp. A simple model: straight light, no scatter, no inhibition.

    shadow_fraction  of the layer's plan that lies under figures and gets none from above
    """

    lamp_min: float
    most_layer_mm: float
    cures_through: bool
    shadow_fraction: float


def cure_depth(exposure: float, penetration: float, critical: float) -> float:
    """Depth to which a dose of light gels a resin.

        C = Dp ln(E / Ec)

    exposure, critical  [J/m2], or any one unit
    penetration         [m]; the answer is in the same
    Source: jacobs1992

    >>> round(cure_depth(100.0, 2.0, 100.0 / 2.718281828), 3)
    2.0
    """
    return penetration * log(exposure / critical) if exposure > critical else 0.0


def lamp_time(depth: float, penetration: float, critical: float, lamp: float) -> float:
    """Time under a lamp until a depth gels, with the margin: Ec exp(C/Dp) / I. Source: jacobs1992

    >>> round(lamp_time(2.0, 2.0, 10.0, 10.0) / 1.5, 4)
    2.7183
    """
    return MARGIN * critical * exp(depth / penetration) / lamp


LONGEST_MIN = 20.0
"""Lamp time that one is ready to stand by for. Source: own_light"""


def light_answer(light: LightCure, depth_mm: float, shadow_fraction: float) -> LightAnswer:
    """How a layer of a light-cured resin sets."""
    seconds = lamp_time(
        depth_mm, light.penetration_mm, light.critical_mj_cm2, light.lamp_mw_cm2
    )
    most = cure_depth(
        LONGEST_MIN * 60 * light.lamp_mw_cm2 / MARGIN, light.penetration_mm, light.critical_mj_cm2
    )
    return LightAnswer(
        lamp_min=round(min(seconds / 60, 9999.0), 1),
        most_layer_mm=round(most, 1),
        cures_through=depth_mm <= most,
        shadow_fraction=round(shadow_fraction, 3),
    )
