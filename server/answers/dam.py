"""The dam over HTTP: panels laid out on stock sheets, and as files to cut by."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router
from studio.bodies import download
from studio.schemas import Refusal

from gondola_core.dam import cut_list, nest
from gondola_core.dam.nest import NestedSheet, dxf_of, svg_of
from gondola_core.scene import Scene

router = Router(tags=["dam"])


@router.post(
    "/cut-list/sheets", response={200: list[NestedSheet], 422: Refusal}, operation_id="nest_sheets"
)
def nest_sheets(request: HttpRequest, scene: Scene) -> list[NestedSheet]:
    """The panels laid out on stock sheets."""
    return nest(cut_list(scene.tank), scene.tank)


@router.post("/cut-list/svg", operation_id="cut_list_svg")
def cut_list_svg(request: HttpRequest, scene: Scene) -> HttpResponse:
    sheets = nest(cut_list(scene.tank), scene.tank)
    return download(svg_of(sheets, scene.name), "image/svg+xml", "cut-list.svg")


@router.post("/cut-list/dxf", operation_id="cut_list_dxf")
def cut_list_dxf(request: HttpRequest, scene: Scene) -> HttpResponse:
    cuts = cut_list(scene.tank)
    return download(dxf_of(cuts, nest(cuts, scene.tank)), "image/vnd.dxf", "cut-list.dxf")
