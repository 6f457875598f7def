"""A two-part resin: what its label says, and the parameters of its cure and heat."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from ..errors import Flaw
from ..part import Key, Name, Part, bounded
from ..words import words


class MixRatio(Part):
    """How much of each part, and by which measure: the same figures by mass spoil the mix."""

    by: Literal["volume", "mass"]
    part_a: float = bounded("part A in the mixing ratio", "parts", 0.1, 100)
    part_b: float = bounded("part B in the mixing ratio", "parts", 0.1, 100)


MOST_CONTRACTION = 0.01
"""How far the density of a mix may be from that of its parts side by side. Source: own_geometry"""


LEAST_RISE_K = 5.0
"""By how much curing raises the glass temperature at least; less is no resin that sets. Source: assumed"""
LABEL_G, LABEL_C = 100.0, 25.0
"""Mass [g] and temperature [degrees C] that a label's working time is for. Source: own_resin_classes"""


def mixed_density_g_ml(ratio: MixRatio, density_a: float, density_b: float) -> float:
    """Density of a mix whose parts keep their volumes.

        rho = (a rho_A + b rho_B)/(a + b) by volume,  (a + b)/(a/rho_A + b/rho_B) by mass

    Source: definition

    >>> round(mixed_density_g_ml(MixRatio(by="volume", part_a=2, part_b=1), 1.15, 0.98), 5)
    1.09333
    """
    a, b = ratio.part_a, ratio.part_b
    if ratio.by == "volume":
        return (a * density_a + b * density_b) / (a + b)
    return (a + b) / (a / density_a + b / density_b)


class LightCure(Part):
    """A resin that sets under a lamp: how deep light reaches, and what it takes. Simple model."""

    penetration_mm: float = bounded("depth at which its light falls to 37 %", "mm", 0.05, 50)
    critical_mj_cm2: float = bounded("light that just gels it", "mJ/cm²", 0.5, 2000)
    lamp_mw_cm2: float = bounded("lamp at the surface", "mW/cm²", 0.5, 500)


class Resin(Part):
    """A resin by value, so that a scene stands alone. Generic classes are fitted, not measured."""

    id: Key
    name: Name
    ratio: MixRatio
    density_a_g_ml: float = bounded("density of part A", "g/ml", 0.7, 2.0)
    density_b_g_ml: float = bounded("density of part B", "g/ml", 0.7, 2.0)
    measured_density_g_ml: Annotated[
        float | None,
        Field(title="measured density of the mix", ge=0.7, le=2.0, json_schema_extra={"unit": "g/ml"}),
    ] = None
    heat_capacity_j_kgk: float = bounded("heat capacity", "J/(kg K)", 800, 3500)
    conductivity_w_mk: float = bounded("thermal conductivity", "W/(m K)", 0.05, 1.0)
    heat_of_cure_j_g: float = bounded("heat of cure", "J/g", 20, 700)
    k1_per_s: float = bounded("uncatalysed rate at 25 °C", "1/s", 1e-9, 1e-1)
    k2_per_s: float = bounded("autocatalytic rate at 25 °C", "1/s", 0, 1e-1)
    activation_1_kj_mol: float = bounded("activation energy of the first rate", "kJ/mol", 20, 120)
    activation_2_kj_mol: float = bounded("activation energy of the second rate", "kJ/mol", 20, 120)
    order_m: float = bounded("autocatalytic order m", "", 0, 3)
    order_n: float = bounded("reaction order n", "", 0.5, 4)
    diffusion_sharpness: float = bounded("sharpness of the diffusion stop", "", 1, 200)
    diffusion_shift_k: float = bounded("shift of the diffusion stop", "K", -20, 40)
    tg_uncured_c: float = bounded("glass temperature of the fresh mix", "°C", -90, 20)
    tg_full_c: float = bounded("glass temperature at full cure", "°C", -90, 200)
    tg_lambda: float = bounded("curvature of the glass temperature", "", 0.1, 1)
    gel_degree: float = bounded("degree of cure at gel", "", 0.2, 0.9)
    tack_free_degree: float = bounded("degree of cure when no longer tacky", "", 0.25, 0.98)
    viscosity_mpa_s: float = bounded("viscosity of the fresh mix at 25 °C", "mPa s", 20, 50000)
    viscosity_activation_kj_mol: float = bounded("activation energy of viscosity", "kJ/mol", 5, 120)
    working_min: float = bounded(f"working time of {LABEL_G:g} g at {LABEL_C:g} °C", "min", 1, 2880)
    most_pour_mm: float = bounded("most depth of one pour by the label", "mm", 1, 500)
    most_mix_g: float = bounded("most mass mixed at once by the label", "g", 10, 50000)
    least_room_c: float = bounded("least room temperature by the label", "°C", 0, 40)
    limit_c: float = bounded("temperature at which it yellows or cracks", "°C", 40, 250)
    refractive_index: float = bounded("refractive index", "", 1.3, 1.8)
    shrink_fraction: float = bounded("shrinkage of volume, whole cure", "", 0, 0.15, default=0.03)
    expansion_ppm_k: float = bounded("expansion below its glass temperature", "ppm/K", 10, 300,
                                     default=65.0)
    stiffness_gpa: float = bounded("stiffness when cured and cold", "GPa", 0.05, 10, default=2.5)
    strength_mpa: float = bounded("bending strength when cured", "MPa", 2, 200, default=50.0)
    yellow_per_cm: float = bounded("own tint at 400 nm", "1/cm", 0, 2, default=0.0)
    yellowing_per_cm_year: float = bounded("own tint gained in a year", "1/cm", 0, 1, default=0.0)
    rate_spread_fraction: float = bounded("how far its rate may be off, a standard deviation", "", 0, 1, default=0.10)
    heat_spread_fraction: float = bounded("how far its heat may be off, a standard deviation", "", 0, 0.5, default=0.05)
    mixed_error_fraction: float = bounded("error of the ratio as it was mixed", "", -0.95, 20, default=0.0)
    light: LightCure | None = None
    derived: str = ""
    note: str = ""

    @property
    def density_g_ml(self) -> float:
        """Of the mix: as measured, else as its parts make it."""
        if self.measured_density_g_ml is not None:
            return self.measured_density_g_ml
        return mixed_density_g_ml(self.ratio, self.density_a_g_ml, self.density_b_g_ml)

    def scaled(self, rate: float, heat: float) -> Resin:
        """The same resin with factors on its rates and on its heat of cure."""
        return self.model_copy(update={
            "k1_per_s": self.k1_per_s * rate, "k2_per_s": self.k2_per_s * rate,
            "heat_of_cure_j_g": self.heat_of_cure_j_g * heat,
        })

    @model_validator(mode="after")
    def _parts_make_the_mix(self) -> Resin:
        measured = self.measured_density_g_ml
        parts = mixed_density_g_ml(self.ratio, self.density_a_g_ml, self.density_b_g_ml)
        if measured is not None and abs(measured / parts - 1) > MOST_CONTRACTION:
            raise Flaw(words(
                "refusals.density_off", name=self.name, measured=measured, parts=parts, by=MOST_CONTRACTION
            ))
        if self.tg_full_c - self.tg_uncured_c < LEAST_RISE_K:
            raise Flaw(words(
                "refusals.glass_order", name=self.name, fresh=self.tg_uncured_c, cured=self.tg_full_c,
                least=LEAST_RISE_K,
            ))
        return self
