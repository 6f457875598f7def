"""The dam: panels and how they are cut, how far they bulge, and what a floor off level costs."""

from .facts import DamFacts, PanelLoad, PourOnDam, dam_facts, level_error_mm, self_covering_mm
from .nest import NestedSheet, nest
from .panels import CutList, Panel, cut_list
from .plates import bulge, least_thickness, plate_coefficients, top_load_share

__all__ = [
    "CutList",
    "DamFacts",
    "NestedSheet",
    "Panel",
    "PanelLoad",
    "PourOnDam",
    "bulge",
    "cut_list",
    "dam_facts",
    "least_thickness",
    "level_error_mm",
    "nest",
    "plate_coefficients",
    "self_covering_mm",
    "top_load_share",
]
