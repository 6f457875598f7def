"""Shapes: the tank's outline, bodies and their meshes, what lines meet, and how views show them."""

from .bed import bed_area_cm2, bed_heights
from .bodies.body import Bulk, above_ml, figure_bulk, figure_mesh, figure_spans
from .bodies.chords import figure_chords, solid_volume
from .bodies.mesh import Meshes, TriMesh, mesh_area, mesh_spans, mesh_volume, meshes_held
from .bodies.outline import VIEWS, Outline, outlines, put_in_place, silhouette_of
from .bodies.shapes import solid_mesh
from .tanks import plan_box, tank_plan, wall_heights

__all__ = [
    "VIEWS",
    "Bulk",
    "Meshes",
    "Outline",
    "TriMesh",
    "above_ml",
    "bed_area_cm2",
    "bed_heights",
    "figure_bulk",
    "figure_chords",
    "figure_mesh",
    "figure_spans",
    "mesh_area",
    "mesh_spans",
    "mesh_volume",
    "meshes_held",
    "outlines",
    "plan_box",
    "put_in_place",
    "silhouette_of",
    "solid_mesh",
    "solid_volume",
    "tank_plan",
    "wall_heights",
]
