"""Stock over HTTP."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import Router
from people.ways import scene_asked
from scenes.actions import state_of
from studio.said import said
from studio.schemas import Refusal
from studio.turns import turn_of

from gondola_core.checks import reader_units

from . import actions
from .schemas import ShoppingList, StockState, StockWritten

router = Router(tags=["stock"])


@router.get("/stock", response=StockState, operation_id="read_stock")
def read(request: HttpRequest) -> StockState:
    return actions.state(request.user)


@router.put("/stock", response={200: StockState, 422: Refusal}, operation_id="count_stock")
def count(request: HttpRequest, payload: StockWritten) -> StockState:
    """Everything on the shelf as it is counted now."""
    actions.count(owner=request.user, stock=payload)
    return actions.state(request.user)


@router.get(
    "/scenes/{int:scene_id}/shopping", response={200: ShoppingList, 404: Refusal}, operation_id="shopping"
)
def shopping(request: HttpRequest, scene_id: int) -> HttpResponse:
    """What the plan needs against the shelf, the kits that cost least, and what that comes to."""
    scene = state_of(scene_asked(request, scene_id)).document
    with turn_of(request, "stock"):
        return said(request, actions.list_of(owner=request.user, scene=scene))


@router.get("/scenes/{int:scene_id}/shopping.csv", response={404: Refusal}, operation_id="shopping_csv")
def table(request: HttpRequest, scene_id: int) -> HttpResponse:
    """The same as a table."""
    scene = state_of(scene_asked(request, scene_id)).document
    with turn_of(request, "stock"):
        told = actions.list_of(owner=request.user, scene=scene)
    return HttpResponse(
        actions.as_csv(told, reader_units(scene.brief.units)), content_type="text/csv",
        headers={"Content-Disposition": 'attachment; filename="shopping.csv"'},
    )
