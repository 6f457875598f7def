"""Meshes, beds, figures and cut lists over HTTP."""

from __future__ import annotations

import numpy as np
from django.http import HttpRequest, HttpResponse
from ninja import Router
from studio.bodies import read_body
from studio.schemas import Refusal

from gondola_core.answers.scene_shape import scene_pockets, scene_shape
from gondola_core.checks import Remedy
from gondola_core.dam import cut_list, nest
from gondola_core.dam.nest import NestedSheet, dxf_of, svg_of
from gondola_core.evaluate import KEEPER
from gondola_core.scene import Scene
from gondola_core.shape.bedform import measured_heights, starter_heights
from gondola_core.shape.bodies.bringing import LARGEST_MESH_FILE
from gondola_core.shape.templates import mesh_figure, new_figure
from gondola_core.studies.schools import School, schools
from gondola_core.studies.tilts import air_remedies
from gondola_core.views.looks import scene_looks
from gondola_core.views.model import scene_glb
from gondola_core.views.surface_paint import mean_colour

from . import actions
from .schemas import AirUnder, Heights, Made, Measuring, MeshState, NewFigure, Starting

router = Router(tags=["shapes"])
_FILE = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}


@router.post(
    "/meshes", response={201: MeshState, 413: Refusal, 422: Refusal}, operation_id="bring_mesh",
    openapi_extra=_FILE,
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
        words=brought.words,
    )


@router.post("/beds/start", response={200: Heights, 422: Refusal}, operation_id="start_bed")
def start_bed(request: HttpRequest, payload: Starting) -> Heights:
    return Heights(heights_mm=starter_heights(payload.kind, payload.tank))


@router.post("/beds/measured", response={200: Heights, 422: Refusal}, operation_id="measure_bed")
def measure_bed(request: HttpRequest, payload: Measuring) -> Heights:
    return Heights(heights_mm=measured_heights(payload.points, payload.tank))


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
    return Made(figure=figure)


@router.post(
    "/air-remedies", response={200: list[Remedy], 422: Refusal}, operation_id="air_remedies"
)
def help_air(request: HttpRequest, payload: AirUnder) -> list[Remedy]:
    """What empties the pockets under a figure, found by trying."""
    meshes = actions.meshes_for(owner=request.user, document=payload.scene)
    return air_remedies(payload.scene, payload.figure_id, meshes)


@router.post("/schools", response={200: list[School], 422: Refusal}, operation_id="schools")
def both_schools(request: HttpRequest, scene: Scene) -> list[School]:
    """Staged as planned, and held in one pour."""
    return schools(scene, actions.meshes_for(owner=request.user, document=scene))


@router.post("/model", operation_id="model")
def model(request: HttpRequest, scene: Scene) -> HttpResponse:
    """The scene in 3-D, as a GLB file; nothing is stored."""
    meshes = actions.meshes_for(owner=request.user, document=scene)
    pockets = scene_pockets(scene, scene_shape(scene, meshes, KEEPER))
    body = scene_glb(scene, meshes, scene_looks(scene, meshes), pockets)
    return HttpResponse(body, content_type="model/gltf-binary")


@router.post(
    "/cut-list/sheets", response={200: list[NestedSheet], 422: Refusal}, operation_id="nest_sheets"
)
def nest_sheets(request: HttpRequest, scene: Scene) -> list[NestedSheet]:
    """The panels laid out on stock sheets."""
    return nest(cut_list(scene.tank), scene.tank)


@router.post("/cut-list/svg", operation_id="cut_list_svg")
def cut_list_svg(request: HttpRequest, scene: Scene) -> HttpResponse:
    sheets = nest(cut_list(scene.tank), scene.tank)
    return _download(svg_of(sheets, scene.name), "image/svg+xml", "cut-list.svg")


@router.post("/cut-list/dxf", operation_id="cut_list_dxf")
def cut_list_dxf(request: HttpRequest, scene: Scene) -> HttpResponse:
    cuts = cut_list(scene.tank)
    return _download(dxf_of(cuts, nest(cuts, scene.tank)), "image/vnd.dxf", "cut-list.dxf")


def _download(text: str, kind: str, name: str) -> HttpResponse:
    return HttpResponse(
        text, content_type=kind, headers={"Content-Disposition": f'attachment; filename="{name}"'}
    )
