"""The colours that a mesh file tells, as sRGB of each vertex."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from .mesh import Colours


def file_colours(part: Any, *, linear: bool) -> Colours | None:
    """sRGB of each vertex of a trimesh mesh, (n, 3); None where its file tells no colour.

    linear  vertex colours and plain materials are linear light, as GLB has them

    A texture is read at each vertex, a triangle's colour is given to its corners.
    """
    import trimesh

    visual = part.visual
    if not visual.defined:
        return None
    count = len(part.vertices)
    if visual.kind == "vertex":
        return _encoded(visual.vertex_colors, linear)
    if visual.kind == "face":
        corners = np.empty((count, 4), dtype=np.uint8)
        corners[part.faces] = visual.face_colors[:, None, :]
        return _encoded(corners, linear)
    material = visual.material
    image = getattr(material, "baseColorTexture", None) or getattr(material, "image", None)
    if image is not None and visual.uv is not None and len(visual.uv) == count:
        read = trimesh.visual.color.uv_to_color(visual.uv, image)
        return None if read is None else _encoded(read, False)
    factor = getattr(material, "baseColorFactor", None)
    return None if factor is None else _encoded(np.tile(factor, (count, 1)), linear)


def _encoded(rgba: NDArray[np.uint8], linear: bool) -> Colours:
    import trimesh

    rgb = np.asarray(rgba)[:, :3]
    if linear:
        rgb = np.rint(255.0 * trimesh.visual.color.linear_to_srgb(rgb / 255.0))
    return np.ascontiguousarray(rgb, dtype=np.uint8)
