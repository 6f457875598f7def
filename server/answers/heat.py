"""Heat over HTTP: pictures of the march, its causes, stagings, cups, resins from data sheets."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field
from shapes.actions import meshes_for
from studio.said import said
from studio.schemas import Refusal

from gondola_core.bench.correcting import Correction, Weighed, corrected, weighed
from gondola_core.bench.mixing import mass_ratio
from gondola_core.cure.box import Surroundings
from gondola_core.cure.cup import CupAnswer, stand_cup
from gondola_core.learning.sheet import DataSheet, SheetFit, from_sheet
from gondola_core.materials import Resin, load_library
from gondola_core.scene import Scene
from gondola_core.studies.why import Why, why_hot
from gondola_core.units import MM
from gondola_core.views.heat_picture import HeatPlane, PlaceCurve, heat_plane, place_curve

router = Router(tags=["heat"])


class Moment(Schema):
    """A moment of the plan, in hours from the first pour."""

    scene: Scene
    at_h: float


class PlaceInScene(Schema):
    """A place touched in the section."""

    scene: Scene
    x_mm: float
    depth_mm: float


class WhyAsked(Schema):
    """The pour that is so hot."""

    scene: Scene
    pour_number: int


class CupAsked(Schema):
    """A cup left standing."""

    resin: Resin
    mass_g: float
    mix_c: float
    room_c: float
    vessel: str = "cup"


class PouredAsked(Schema):
    """What a scale shows of a cup that was meant to be so much."""

    resin: Resin
    wanted_g: Annotated[float, Field(gt=0, le=50_000)]
    mix_c: Annotated[float, Field(ge=5, le=60)]
    scale_step_g: Annotated[float, Field(ge=0.001, le=10)]
    part_a_g: float | None = None
    part_b_g: float | None = None


@dataclass(frozen=True, slots=True, kw_only=True)
class AtTheScale:
    """The cup as it is weighed, and what is to be done with what was poured; None where nothing was told."""

    weighed: Weighed
    correction: Correction | None


class SheetRead(Schema):
    """A data sheet, and the class of resin that it belongs to."""

    sheet: DataSheet
    like_id: str


@router.post("/heat/plane", response={200: HeatPlane, 422: Refusal}, operation_id="heat_plane")
def plane(request: HttpRequest, payload: Moment) -> HeatPlane:
    meshes = meshes_for(owner=request.user, document=payload.scene)
    return heat_plane(payload.scene, payload.at_h, meshes)


@router.post("/heat/curve", response={200: PlaceCurve, 422: Refusal}, operation_id="heat_curve")
def curve(request: HttpRequest, payload: PlaceInScene) -> PlaceCurve:
    meshes = meshes_for(owner=request.user, document=payload.scene)
    return place_curve(payload.scene, payload.x_mm, payload.depth_mm, meshes)


@router.post("/heat/why", response={200: Why, 404: Refusal, 422: Refusal}, operation_id="why_hot")
def why(request: HttpRequest, payload: WhyAsked) -> Why:
    if not 1 <= payload.pour_number <= len(payload.scene.pours):
        raise Http404
    meshes = meshes_for(owner=request.user, document=payload.scene)
    return why_hot(payload.scene, payload.pour_number, meshes)


@router.post("/heat/cup", response={200: CupAnswer, 422: Refusal}, operation_id="stand_cup")
def cup(request: HttpRequest, payload: CupAsked) -> HttpResponse:
    return said(
        request, stand_cup(payload.resin, payload.mass_g, payload.mix_c, payload.room_c, payload.vessel)
    )


@router.post(
    "/heat/from-sheet", response={200: SheetFit, 404: Refusal, 422: Refusal},
    operation_id="from_sheet",
)
def sheet(request: HttpRequest, payload: SheetRead) -> SheetFit:
    """A resin that answers its data sheet."""
    library = load_library()
    like = library.resins.get(payload.like_id)
    if like is None:
        raise Http404
    around = Surroundings(
        wall=library.solids["acrylic"], wall_thickness=3 * MM, base=library.solids["wood"],
        base_thickness=18 * MM,
    )
    return from_sheet(payload.sheet, like, around)


@router.post("/cup/weigh", response={200: AtTheScale, 422: Refusal}, operation_id="at_the_scale")
def weigh(request: HttpRequest, payload: PouredAsked) -> HttpResponse:
    """What the scale is to show, and how an over-poured cup is put right."""
    wanted_a = payload.wanted_g / (1.0 + mass_ratio(payload.resin))
    correction = None
    if payload.part_a_g is not None:
        correction = corrected(
            payload.resin, payload.part_a_g, payload.part_b_g or 0.0, payload.wanted_g, payload.mix_c
        )
    return said(request, AtTheScale(
        weighed=weighed(payload.resin, wanted_a, payload.scale_step_g), correction=correction,
    ))
