"""How the water looks, in 31 bands of light; nothing is computed in red, green and blue."""

from .sights import (
    FigureSight,
    Seam,
    Seen,
    WaterProfile,
    figure_sights,
    seam_seen,
    seam_steps,
    seams,
    water_of,
    water_of_doses,
    water_profile,
)

__all__ = [
    "FigureSight",
    "Seam",
    "Seen",
    "WaterProfile",
    "figure_sights",
    "seam_seen",
    "seam_steps",
    "seams",
    "water_of",
    "water_of_doses",
    "water_profile",
]
