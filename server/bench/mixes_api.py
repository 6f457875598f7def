"""Mixes of the bench over HTTP: the recipes, and one scaled to an area or an amount."""

from __future__ import annotations

from typing import Annotated

from django.http import Http404, HttpRequest
from ninja import Router, Schema
from pydantic import Field
from studio.schemas import Refusal

from gondola_core.bench.recipes import Mixture, Recipe, load_recipes, scaled, volume_over_ml
from gondola_core.materials import Resin

router = Router(tags=["bench"])


class MixtureAsked(Schema):
    """An amount, or an area at a thickness; the resin of those recipes that take one."""

    recipe_id: str
    resin: Resin
    volume_ml: Annotated[float | None, Field(ge=0, le=1e6)] = None
    area_cm2: Annotated[float, Field(ge=0, le=1e6)] = 0.0
    thickness_mm: Annotated[float, Field(ge=0, le=100)] = 0.0


@router.get("/recipes", response=list[Recipe], operation_id="list_recipes")
def recipes(request: HttpRequest) -> list[Recipe]:
    return list(load_recipes().values())


@router.post("/recipes/scaled", response={200: Mixture, 404: Refusal, 422: Refusal}, operation_id="scale_recipe")
def scale(request: HttpRequest, payload: MixtureAsked) -> Mixture:
    """What goes into a mix of so much."""
    recipe = load_recipes().get(payload.recipe_id)
    if recipe is None:
        raise Http404
    volume = payload.volume_ml
    if volume is None:
        volume = volume_over_ml(payload.area_cm2, payload.thickness_mm)
    return scaled(recipe, volume, payload.resin)
