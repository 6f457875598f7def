"""Plain blocks to march: one resin, even cells, films that hold heat in or let it out at once."""

from __future__ import annotations

from ..cure.cells import CellGeometry, whole_box
from ..cure.losses import Surroundings
from ..materials import Resin, load_library
from ..units import G_PER_ML

SEALED, TIGHT = 1e-9, 1e7
"""W/(m2 K) of a film that lets nothing through, and of one that holds a face at the room's temperature."""


def inert() -> Resin:
    """A resin that does not react, of 1.1 g/ml."""
    return load_library().resins["deep"].model_copy(
        update={"k1_per_s": 1e-9, "k2_per_s": 0.0, "measured_density_g_ml": 1.1}
    )


def diffusivity(resin: Resin) -> float:
    """k / (rho cp) [m2/s]."""
    return resin.conductivity_w_mk / (resin.density_g_ml * G_PER_ML * resin.heat_capacity_j_kgk)


def tight_films(top: float = SEALED, wall: float = SEALED, base: float = SEALED) -> Surroundings:
    """Walls of no weight and a base that holds no heat, with films on them [W/(m2 K)]."""
    solids = load_library().solids
    nothing = solids["foam"].model_copy(
        update={"conductivity_w_mk": 0.01, "density_g_ml": 0.01, "heat_capacity_j_kgk": 100.0}
    )
    return Surroundings(
        wall=solids["steel"], wall_thickness=1e-6, base=nothing, base_thickness=0.02, top_film=top, wall_film=wall,
        base_film=base,
    )


def closed_box(side: float) -> CellGeometry:
    """A cube of one pour, side in metres."""
    return whole_box((side, side), [side], side / 5, 4)
