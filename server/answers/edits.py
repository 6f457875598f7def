"""Edits over HTTP: made by the core for a document, and applied to one."""

from __future__ import annotations

from typing import Annotated, Literal

from django.http import HttpRequest
from ninja import Router, Schema
from pydantic import Field
from shapes.actions import meshes_for
from studio.schemas import Refusal

from gondola_core.answers.book import Book
from gondola_core.answers.fills import VOLUMES
from gondola_core.answers.heat import HEAT
from gondola_core.checks import Remedy, reader_units, told_remedy
from gondola_core.checks.recoat import window_middle_h
from gondola_core.scene import Scene
from gondola_core.scene import edits as core
from gondola_core.scene.document import MOST_FIGURES
from gondola_core.scene.edits import Edit, Operation
from gondola_core.shape import Meshes
from gondola_core.studies.fill_line import fill_line

router = Router(tags=["edits"])


class SplitPour(Schema):
    """A pour in two halves of depth, the second into the tack of the first."""

    kind: Literal["split_pour"]
    number: int


class TakePourOut(Schema):
    """A pour out of the plan."""

    kind: Literal["take_pour_out"]
    number: int


class Shoal(Schema):
    """Copies of a figure about it."""

    kind: Literal["shoal"]
    figure_id: str
    count: Annotated[int, Field(title="copies", ge=1, le=MOST_FIGURES)]
    spread_mm: Annotated[float, Field(title="spread", ge=1, le=400)] = 16.0


class TakeFigureOut(Schema):
    """A figure out of the scene."""

    kind: Literal["take_figure_out"]
    figure_id: str


class FillLine(Schema):
    """Another height of the water; walls, sheet and pours follow."""

    kind: Literal["fill_line"]
    fill_mm: float


class EditAsked(Schema):
    """A change of a scene that takes more than one field."""

    scene: Scene
    change: Annotated[SplitPour | TakePourOut | Shoal | TakeFigureOut | FillLine, Field(discriminator="kind")]


class Application(Schema):
    """An edit to be made: its operations, the digest of the document that it was made from, and another."""

    scene: Scene
    operations: list[Operation]
    digest: str


@router.post("/edits/make", response={200: Remedy, 422: Refusal}, operation_id="make_edit")
def make(request: HttpRequest, payload: EditAsked) -> Remedy:
    """The edit for a change, bound to the scene."""
    meshes = meshes_for(owner=request.user, document=payload.scene)
    return told_remedy(_made(payload, meshes), reader_units(payload.scene.brief.units))


@router.post("/edits/apply", response={200: Scene, 422: Refusal}, operation_id="apply_edit")
def apply(request: HttpRequest, payload: Application) -> Scene:
    """The scene with an edit made; refused in a sentence where it no longer fits."""
    return core.apply_edit(payload.scene, payload.operations, payload.digest)


def _made(asked: EditAsked, meshes: Meshes) -> Edit:
    scene, change = asked.scene, asked.change
    if isinstance(change, FillLine):
        return fill_line(scene, change.fill_mm, meshes)
    if isinstance(change, Shoal):
        return core.shoal_of(scene, change.figure_id, change.count, change.spread_mm)
    if isinstance(change, TakeFigureOut):
        return core.take_figure_out(scene, change.figure_id)
    if isinstance(change, TakePourOut):
        return core.take_pour_out(scene, change.number)
    number = min(max(change.number, 1), len(scene.pours))  # what is out of range is refused by the edit
    book = Book(scene, meshes=meshes)
    depth_mm, cure = float(book.ask(VOLUMES).depth_mm[number - 1]), book.ask(HEAT).cures[number - 1]
    return core.split_pour(scene, change.number, depth_mm, window_middle_h(cure))
