"""Meshes, beds, figures and cut lists over HTTP."""

from __future__ import annotations

import numpy as np
from django.http import HttpRequest
from ninja import Router
from studio.bodies import BINARY_BODY, read_body
from studio.schemas import Refusal
from studio.turns import turn_of
from studio.units import reader_of

from gondola_core.shape.bedform import measured_heights, starter_heights
from gondola_core.shape.bodies.bringing import LARGEST_MESH_FILE
from gondola_core.shape.photographed import photographed_depths
from gondola_core.shape.templates import mesh_figure, new_figure
from gondola_core.studies.placing import ANYWHERE, Spot, place_figure
from gondola_core.views.surface_paint import mean_colour

from . import actions
from .schemas import Heights, Made, Measuring, MeshState, NewFigure, Photographed, Places, Starting

router = Router(tags=["shapes"])


@router.post(
    "/meshes", response={201: MeshState, 413: Refusal, 422: Refusal}, operation_id="bring_mesh",
    openapi_extra=BINARY_BODY,
)
def bring_mesh(
    request: HttpRequest, kind: str, name: str = "mesh", unit: str | None = None,
    upright: str | None = None,
) -> tuple[int, MeshState]:
    """A mesh file: stl, obj, glb or ply."""
    content = read_body(request, LARGEST_MESH_FILE, "a mesh file")
    key, brought = actions.bring(
        owner=request.user, content=content, kind=kind, unit=unit, upright=upright, name=name
    )
    return 201, MeshState(
        mesh_id=key, name=name, volume_ml=round(brought.volume_ml, 3), size_mm=brought.size_mm,
        spread_ml=round(brought.estimate.spread_ml, 3) if brought.estimate else 0.0,
        triangles_count=brought.triangles_count, coloured=brought.mesh.colours is not None,
        words=[one.said(reader_of(request)) for one in brought.words],
    )


@router.post("/beds/start", response={200: Heights, 422: Refusal}, operation_id="start_bed")
def start_bed(request: HttpRequest, payload: Starting) -> Heights:
    return Heights(heights_mm=starter_heights(payload.kind, payload.tank))


@router.post("/beds/measured", response={200: Heights, 422: Refusal}, operation_id="measure_bed")
def measure_bed(request: HttpRequest, payload: Measuring) -> Heights:
    return Heights(heights_mm=measured_heights(payload.points, payload.tank))


@router.post("/beds/photographed", response={200: Places, 422: Refusal}, operation_id="photograph_bed")
def photograph_bed(request: HttpRequest, payload: Photographed) -> Places:
    """Where depths were clicked on a photograph; the photograph itself stays with the person."""
    depths = [(one.at_px[0], one.at_px[1], one.depth_mm) for one in payload.depths]
    return Places(measured=photographed_depths((payload.width_mm, payload.behind_mm), payload.corners_px, depths))


@router.post("/figures/new", response={200: Made, 422: Refusal}, operation_id="make_figure")
def make_figure(request: HttpRequest, payload: NewFigure) -> Made:
    if payload.mesh_id is not None:
        mesh = actions.kept_mesh(owner=request.user, key=payload.mesh_id)
        size_mm = np.ptp(mesh.vertices, axis=0).tolist()
        figure = mesh_figure(
            payload.scene, payload.mesh_id, payload.name or "mesh", size_mm, mean_colour(mesh),
            actions.spread_of(owner=request.user, key=payload.mesh_id),
        )
    else:
        figure = new_figure(payload.scene, payload.kind, payload.size_mm)
    meshes = actions.meshes_for(owner=request.user, document=payload.scene)
    if payload.mesh_id is not None:
        meshes = {**meshes, payload.mesh_id: mesh}
    spot = ANYWHERE if payload.spot is None else Spot(**payload.spot.dict())
    with turn_of(request):
        return Made(figure=place_figure(payload.scene, figure, spot, meshes))
