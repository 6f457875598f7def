"""What things are made of: resins, colourants, solids, and the library of generic ones."""

from .colourant import AbsorptionBand, Colourant
from .library import Library, load_library
from .resin import LightCure, MixRatio, Resin
from .solid import SolidMaterial

__all__ = [
    "AbsorptionBand",
    "Colourant",
    "Library",
    "LightCure",
    "MixRatio",
    "Resin",
    "SolidMaterial",
    "load_library",
]
