"""What a GLB file says it holds, counted before any of it is unpacked."""

from __future__ import annotations

import json
import struct
from typing import Any

from ...errors import GondolaError

MOST_TRIANGLES = 1_000_000
"""Of one mesh file; more are neither mended nor computed in a time that anybody waits."""
MOST_CORNERS = 6_000_000
"""Numbers that one accessor may hold: three corners each of so many triangles, twice over. Source: assumed"""
MOST_NODES = 20_000
JSON_CHUNK = 0x4E4F534A
TRIANGLES = 4
"""Mode of a primitive that is made of plain triangles, which is also what is meant where none is told."""


def count_glb(content: bytes) -> None:
    """GondolaError where a GLB holds more than is read, however small its file: instances count each time.

    What cannot be understood here is left to whoever reads the file.
    """
    told = _json_of(content)
    if told is None:
        return
    accessors, meshes = _list(told, "accessors"), _list(told, "meshes")
    for one in accessors:
        count = one.get("count", 0)
        if not isinstance(count, int) or not 0 <= count <= MOST_CORNERS:
            raise GondolaError(f"This GLB says that it holds {count} corners in one list; {MOST_CORNERS:,} at most.")
        if count and "bufferView" not in one and "sparse" not in one:
            raise GondolaError("This GLB holds a list of corners without any content: export the mesh again.")
    nodes = _list(told, "nodes")
    if len(nodes) > MOST_NODES:
        raise GondolaError(f"This GLB has {len(nodes):,} parts; {MOST_NODES:,} at most: join them before exporting.")
    weights = [sum(_triangles(part, accessors) for part in _list(mesh, "primitives")) for mesh in meshes]
    placed = [one["mesh"] for one in nodes if isinstance(one.get("mesh"), int)]
    total = sum(weights[one] for one in placed if 0 <= one < len(weights))
    if total > MOST_TRIANGLES:
        raise GondolaError(
            f"This GLB makes {total:,} triangles, each repeated part counted: reduce it to under {MOST_TRIANGLES:,}."
        )


def _json_of(content: bytes) -> dict[str, Any] | None:
    if len(content) < 20 or content[:4] != b"glTF":
        return None
    length, kind = struct.unpack_from("<II", content, 12)
    try:
        told = json.loads(content[20:20 + length]) if kind == JSON_CHUNK else None
    except (ValueError, RecursionError):
        return None
    return told if isinstance(told, dict) else None


def _list(told: dict[str, Any], name: str) -> list[dict[str, Any]]:
    found = told.get(name)
    return [one for one in found if isinstance(one, dict)] if isinstance(found, list) else []


def _triangles(part: dict[str, Any], accessors: list[dict[str, Any]]) -> int:
    attributes = part.get("attributes")
    corners = part.get("indices", attributes.get("POSITION") if isinstance(attributes, dict) else None)
    if not isinstance(corners, int) or not 0 <= corners < len(accessors):
        return 0
    count = int(accessors[corners].get("count", 0))
    return count // 3 if part.get("mode", TRIANGLES) == TRIANGLES else count
