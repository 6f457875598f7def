"""What stands around the liquid: sheet, base, and the air's films that carry its heat away."""

from __future__ import annotations

from dataclasses import dataclass

from ..materials import SolidMaterial

TOP_FILM = 9.0
"""W/(m2 K), convection and radiation from the open top. Source: own_march"""
WALL_FILM = 9.0
"""W/(m2 K), outside the walls. Source: own_march"""
BASE_FILM = 5.0
"""W/(m2 K), under the base. Source: own_march"""
FAN_FILM = 18.0
"""W/(m2 K), of faces that a fan blows over. Source: own_march"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Surroundings:
    """The sheet around the liquid and the slab under it [m], and the air's films [W/(m2 K)]."""

    wall: SolidMaterial
    wall_thickness: float
    base: SolidMaterial
    base_thickness: float
    top_film: float = TOP_FILM
    wall_film: float = WALL_FILM
    base_film: float = BASE_FILM

    @property
    def wall_resistance(self) -> float:
        """From the inner face of the wall to the room: sheet and film [m2 K/W]."""
        return self.wall_thickness / self.wall.conductivity_w_mk + 1.0 / self.wall_film
