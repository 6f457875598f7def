"""Brings meshes in: reads a file of a mesh and has it mended."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from numpy.typing import NDArray

from ...errors import GondolaError
from .counted import MOST_TRIANGLES, count_glb
from .file_colours import file_colours
from .mending import UNITS_MM, Brought, mend
from .mesh import Colours, TriMesh, joined, pack_mesh

Array = NDArray[np.float64]

LARGEST_MESH_FILE = 120 * 1024 * 1024
"""bytes; a million triangles in STL are 50 MB"""
KINDS = ("stl", "obj", "glb", "ply")
BEGINS = {"glb": b"glTF", "ply": b"ply"}
"""By which a file is known whatever its name says."""
SMALLEST_SIDE_MM, LARGEST_SIDE_MM = 2.0, 1000.0
"""Sizes between which a file without a unit is taken as millimetres. Source: own_geometry"""


def bring_mesh(
    content: bytes, kind: str, unit: str | None = None, upright: str | None = None
) -> Brought:
    """A closed mesh from a file.

    kind      stl, obj, glb or ply, as its name says; GLB and PLY are known by how they begin
    unit      mm, cm, m or in; None: millimetres (metres in GLB, as that format says), if the size
              is then between 2 and 1000 mm
    upright   which axis of the file points up, z or y; None: y in GLB and OBJ, else z

    GondolaError with a sentence if it cannot be used.
    """
    kind = next((one for one, begins in BEGINS.items() if content.startswith(begins)), kind.lower().lstrip("."))
    if kind not in KINDS:
        raise GondolaError(f"A mesh file has to be {', '.join(KINDS)}; this one says '{kind}'.")
    if not content:
        raise GondolaError("This file is empty.")
    if len(content) > LARGEST_MESH_FILE:
        raise GondolaError(
            f"This mesh file is over {LARGEST_MESH_FILE // 2**20} MB: reduce it to under "
            f"{MOST_TRIANGLES:,} triangles first."
        )
    if unit is not None and unit not in UNITS_MM:
        raise GondolaError(f"The unit has to be {', '.join(UNITS_MM)}; it says '{unit}'.")
    vertices, faces, colours = _read(content, kind)
    if (upright or ("y" if kind in ("glb", "obj") else "z")) == "y":
        vertices = vertices @ np.array([[1.0, 0, 0], [0, 0, 1.0], [0, -1.0, 0]])
    span = float((vertices.max(axis=0) - vertices.min(axis=0)).max())
    if unit is None:
        unit = "m" if kind == "glb" else "mm"
        told = span * UNITS_MM[unit]
        if not SMALLEST_SIDE_MM <= told <= LARGEST_SIDE_MM:
            raise GondolaError(
                f"The largest side of this mesh would be {told:.3g} mm: say whether the file is "
                "in mm, cm, m or inches.",
                "unit",
            )
    return mend(vertices * UNITS_MM[unit], faces, colours, unit)


def bring_packed(
    content: bytes, kind: str, unit: str | None = None, upright: str | None = None
) -> tuple[bytes, Brought]:
    """The same, and the mesh as it is stored."""
    brought = bring_mesh(content, kind, unit, upright)
    return pack_mesh(brought.mesh), brought


def _read(content: bytes, kind: str) -> tuple[Array, NDArray[np.int64], Colours | None]:
    import trimesh

    if kind == "glb":
        count_glb(content)
    try:
        many = kind == "glb"
        loaded: Any = trimesh.load(
            io.BytesIO(content), file_type=kind, process=False, force="scene" if many else "mesh",
            skip_materials=not many,
        )
        parts = [
            TriMesh(
                _in_threes(part.vertices).astype(float), _in_threes(part.faces).astype(np.int32),
                file_colours(part, linear=many),
            )
            for part in (loaded.dump(concatenate=False) if many else [loaded])
            if hasattr(part, "faces")
        ]
        whole = joined(parts) if parts else TriMesh(np.zeros((0, 3)), np.zeros((0, 3), np.int32))
    except MemoryError:
        raise
    except Exception:
        raise GondolaError(
            f"This file cannot be read as {kind.upper()}: export the mesh again."
        ) from None
    vertices, faces = whole.vertices, whole.faces.astype(np.int64)
    if len(faces) == 0:
        raise GondolaError("This file holds no triangles: export it as a mesh, not as points.")
    if len(faces) > MOST_TRIANGLES:
        raise GondolaError(
            f"This mesh has {len(faces):,} triangles: reduce it to under {MOST_TRIANGLES:,} first."
        )
    if faces.min() < 0 or faces.max() >= len(vertices):
        raise GondolaError("This mesh has triangles whose corners are not in the file: export it again.")
    if not np.isfinite(vertices).all():
        raise GondolaError("This mesh has corners that are no numbers: export it again.")
    return vertices, faces, whole.colours


def _in_threes(rows: Any) -> NDArray[Any]:
    """Rows as they are; ValueError where a file gave corners or triangles of more or fewer numbers."""
    found = np.asarray(rows)
    if found.shape[1:] != (3,):
        raise ValueError(found.shape)
    return found
