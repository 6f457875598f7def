"""Heat over HTTP: pictures of the march, its causes, stagings, cups, resins from data sheets."""

from __future__ import annotations

from django.http import Http404, HttpRequest
from ninja import Router
from shapes.actions import meshes_for
from studio.schemas import Refusal

from gondola_core.cure.box import Surroundings
from gondola_core.cure.cup import CupAnswer, stand_cup
from gondola_core.learning.sheet import SheetFit, from_sheet
from gondola_core.materials import load_library
from gondola_core.studies.stager import Staging, stage_for
from gondola_core.studies.why import Why, why_hot
from gondola_core.units import MM
from gondola_core.views.heat_picture import HeatPlane, PlaceCurve, heat_plane, place_curve

from .schemas import CupAsked, Moment, PlaceInScene, SheetRead, StagingAsked, WhyAsked

router = Router(tags=["heat"])


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


@router.post(
    "/heat/stagings", response={200: list[Staging], 422: Refusal}, operation_id="stagings"
)
def stagings(request: HttpRequest, payload: StagingAsked) -> list[Staging]:
    """The fewest pours that stop nothing, by room, and on twice the footprint."""
    meshes = meshes_for(owner=request.user, document=payload.scene)
    return stage_for(payload.scene, payload.resin_id, payload.rooms_c, meshes)


@router.post("/heat/cup", response={200: CupAnswer, 422: Refusal}, operation_id="stand_cup")
def cup(request: HttpRequest, payload: CupAsked) -> CupAnswer:
    return stand_cup(
        payload.resin, payload.mass_g, payload.mix_c, payload.room_c, payload.vessel
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
