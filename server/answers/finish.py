"""The finish over HTTP: what follows the last pour, and strips for the edge of the bed."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router
from shapes.actions import meshes_for
from studio.bodies import download
from studio.said import said
from studio.schemas import Refusal

from gondola_core.finish.strips import edge_strips, strips_dxf, strips_pdf, strips_svg
from gondola_core.scene import Scene
from gondola_core.studies.finishing import Finishing, finishing

router = Router(tags=["finish"])


@router.post("/finish", response={200: Finishing, 422: Refusal}, operation_id="finish")
def finish(request: HttpRequest, scene: Scene) -> HttpResponse:
    """Letting go, faces by both schools, the top, cavities, and all of it as steps."""
    return said(request, finishing(scene, meshes_for(owner=request.user, document=scene)))


@router.post("/strips/svg", operation_id="strips_svg")
def svg(request: HttpRequest, scene: Scene) -> HttpResponse:
    return download(strips_svg(edge_strips(scene), scene.name).encode(), "image/svg+xml", "edge-strips.svg")


@router.post("/strips/dxf", operation_id="strips_dxf")
def dxf(request: HttpRequest, scene: Scene) -> HttpResponse:
    return download(strips_dxf(edge_strips(scene)).encode(), "image/vnd.dxf", "edge-strips.dxf")


@router.post("/strips/pdf", operation_id="strips_pdf")
def pdf(request: HttpRequest, scene: Scene) -> HttpResponse:
    return download(strips_pdf(edge_strips(scene), scene.name), "application/pdf", "edge-strips.pdf")
