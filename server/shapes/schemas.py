"""What the API takes and gives of meshes, beds and figures."""

from __future__ import annotations

from typing import Annotated

from ninja import Schema
from pydantic import Field

from gondola_core.scene import Figure, MeasuredDepth, Scene, Tank


class MeshState(Schema):
    """A mesh that was brought in, and the sentences of what was mended."""

    mesh_id: str
    name: str
    volume_ml: float
    spread_ml: float
    size_mm: list[float]
    triangles_count: int
    coloured: bool
    words: list[str]


class Starting(Schema):
    """A simple bed for a tank."""

    kind: str
    tank: Tank


class Measuring(Schema):
    """Depths read off with ruler and skewer."""

    points: list[MeasuredDepth]
    tank: Tank


Pixel = Annotated[list[float], Field(min_length=2, max_length=2)]


class ClickedDepth(Schema):
    """A depth at a place of a photograph."""

    at_px: Pixel
    depth_mm: float


class Photographed(Schema):
    """Corners of the dam on a photograph (front left, front right, back right, back left), and depths."""

    width_mm: Annotated[float, Field(title="inner width of the tank", ge=15, le=1200)]
    behind_mm: Annotated[float, Field(title="inner size from the glass to the back", ge=15, le=1200)]
    corners_px: Annotated[list[Pixel], Field(min_length=4, max_length=4)]
    depths: Annotated[list[ClickedDepth], Field(max_length=400)]


class Places(Schema):
    """Depths where they were measured."""

    measured: list[MeasuredDepth]


class Heights(Schema):
    """Heights of a bed, rows from the glass to the back."""

    heights_mm: list[list[float]]


class Dropped(Schema):
    """Where a new figure was dropped; null: anywhere along that axis."""

    x_mm: float | None = None
    behind_mm: float | None = None
    depth_mm: float | None = None


class NewFigure(Schema):
    """A figure of a kind, or of a mesh that was brought in, for a scene."""

    scene: Scene
    kind: str
    size_mm: float | None = None
    mesh_id: str | None = None
    name: str | None = None
    spot: Dropped | None = None


class Made(Schema):
    """The figure, to be added to the scene."""

    figure: Figure
