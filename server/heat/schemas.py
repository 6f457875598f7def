"""What the API takes of heat: a scene and a question."""

from __future__ import annotations

from typing import Annotated

from ninja import Schema
from pydantic import Field

from gondola_core.learning.sheet import DataSheet
from gondola_core.materials import Resin
from gondola_core.scene import Scene


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


class StagingAsked(Schema):
    """The resin to stage with, and the rooms."""

    scene: Scene
    resin_id: str
    rooms_c: Annotated[list[float], Field(min_length=1, max_length=4)]


class CupAsked(Schema):
    """A cup left standing."""

    resin: Resin
    mass_g: float
    mix_c: float
    room_c: float
    vessel: str = "cup"


class SheetRead(Schema):
    """A data sheet, and the class of resin that it belongs to."""

    sheet: DataSheet
    like_id: str
