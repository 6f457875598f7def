"""What walls, base, bed and figures are made of: heat data, density, and where it gives way."""

from __future__ import annotations

from ..part import Key, Name, Part, bounded


class SolidMaterial(Part):
    """A solid by value. `limit_c` is where it softens, lets go or is spoiled."""

    id: Key
    name: Name
    density_g_ml: float = bounded("density", "g/ml", 0.01, 20)
    heat_capacity_j_kgk: float = bounded("heat capacity", "J/(kg K)", 100, 4500)
    conductivity_w_mk: float = bounded("thermal conductivity", "W/(m K)", 0.01, 400)
    limit_c: float = bounded("temperature it stands", "°C", 30, 1500)
    porosity_fraction: float = bounded("share of pores", "", 0, 0.98)
    stiffness_gpa: float | None = bounded("stiffness (Young)", "GPa", 1e-4, 500, default=None)
    creep_fraction: float | None = bounded(
        "share of its stiffness left after a day under load", "", 0.05, 1, default=None
    )
    warm_40_fraction: float | None = bounded(
        "share of its stiffness left at 40 °C", "", 0.02, 1, default=None
    )
    warm_60_fraction: float | None = bounded(
        "share of its stiffness left at 60 °C", "", 0.02, 1, default=None
    )
    warm_80_fraction: float | None = bounded(
        "share of its stiffness left at 80 °C", "", 0.02, 1, default=None
    )
    strength_mpa: float | None = bounded("bending strength", "MPa", 0.1, 2000, default=None)
    note: str = ""
