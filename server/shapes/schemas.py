"""What the API takes and gives of meshes, beds and figures."""

from __future__ import annotations

from ninja import Schema

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
    spot: Dropped = Dropped()


class Made(Schema):
    """The figure, to be added to the scene."""

    figure: Figure
