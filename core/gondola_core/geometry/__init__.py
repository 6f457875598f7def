"""Shapes: the tank's outline, bodies and their meshes, what lines meet, and how views show them."""

from .bed import bed_area_cm2, bed_heights
from .body import Bulk, extent_mm, figure_bulk, figure_mesh, figure_spans, flat_underside_cm2
from .chords import figure_chords, solid_volume
from .mesh import Meshes, TriMesh, mesh_area, mesh_spans, mesh_volume, meshes_in
from .outline import VIEWS, Outline, outlines
from .plan import plan_box, polygon_area, polygon_perimeter, pushed_out, tank_plan, wall_heights
from .shapes import solid_mesh

__all__ = [
    "VIEWS",
    "Bulk",
    "Meshes",
    "Outline",
    "TriMesh",
    "bed_area_cm2",
    "bed_heights",
    "extent_mm",
    "figure_bulk",
    "figure_chords",
    "figure_mesh",
    "figure_spans",
    "flat_underside_cm2",
    "mesh_area",
    "mesh_spans",
    "mesh_volume",
    "meshes_in",
    "outlines",
    "plan_box",
    "polygon_area",
    "polygon_perimeter",
    "pushed_out",
    "solid_mesh",
    "solid_volume",
    "tank_plan",
    "wall_heights",
]
