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
    note: str = ""
