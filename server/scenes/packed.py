"""A scene document as it is stored; without the database, for whoever reads one apart."""

from __future__ import annotations

import zlib

from gondola_core.scene import Scene, read_scene


def pack(document: Scene) -> bytes:
    """A document as stored."""
    return zlib.compress(document.model_dump_json().encode())


def unpacked(packed: bytes) -> Scene:
    """A stored document, brought up to the newest version."""
    return read_scene(zlib.decompress(packed))
