"""What a wrong ratio makes of a resin: less of it reacts, its net is looser, and it stays softer."""

from __future__ import annotations

from math import sqrt

from ..cure.kinetics import glass_temperature_c
from ..materials import Resin
from .mixing import mass_ratio

ALRIGHT = 0.005
"""Errors of the ratio that are within the label's own tolerance. Source: assumed"""
MOST_GEL, MOST_TACK = 0.9, 0.98
"""As much as a document holds; what would need more never sets."""


def as_mixed(resin: Resin, error: float) -> Resin:
    """The resin with its parts in a ratio that is off by a share: (B/A)/(b/a) - 1.

        r = 1 + e,  s = min(r, 1/r)
        heat   H min(1, r)(1 + b/a)/(1 + r b/a)
        gel    a_gel/sqrt(s): with p_A p_B fixed at the gel and p_A = r p_B
        glass  Tg'(a) = Tg(s a): of the net that could form, only the share s does;
               so Tg_full' = Tg(s) and lambda' = 1 - (1 - lambda) s

    The degree of cure is that of the part that is short. Both parts are taken to react only with each other.
    Source: macosko1976, dibenedetto1987
    """
    if abs(error) < ALRIGHT:
        return resin
    ratio, by_mass = 1.0 + error, mass_ratio(resin)
    short = min(ratio, 1.0 / ratio)
    reacts = min(1.0, ratio) * (1.0 + by_mass) / (1.0 + ratio * by_mass)
    return resin.model_copy(update={
        "heat_of_cure_j_g": resin.heat_of_cure_j_g * reacts,
        "gel_degree": min(MOST_GEL, resin.gel_degree / sqrt(short)),
        "tack_free_degree": min(MOST_TACK, resin.tack_free_degree / sqrt(short)),
        "tg_full_c": float(glass_temperature_c(short, resin)),
        "tg_lambda": 1.0 - (1.0 - resin.tg_lambda) * short,
        "mixed_error_fraction": round(error, 5),
    })
