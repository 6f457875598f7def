"""The dam: panels and how they are cut, how far they bulge, and what a floor off level costs."""

from .facts import DamFacts, PanelLoad, dam_facts, level_error_mm, self_covering_mm
from .nest import NestedSheet, nest
from .panels import CutList, Panel, cut_list
from .plates import bulge, least_thickness, plate_coefficients

__all__ = [
    "CutList",
    "DamFacts",
    "NestedSheet",
    "Panel",
    "PanelLoad",
    "bulge",
    "cut_list",
    "dam_facts",
    "least_thickness",
    "level_error_mm",
    "nest",
    "plate_coefficients",
    "self_covering_mm",
]
