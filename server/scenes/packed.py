"""A scene document as it is stored; without the database, for whoever reads one apart."""

from __future__ import annotations

import re
import zlib

from gondola_core.errors import SceneError
from gondola_core.parsed import parsed
from gondola_core.scene import FORMAT, LARGEST_FILE, Scene, read_scene

DAMAGED = (
    "What is kept of this state is damaged: bring an earlier state back, or ask whoever keeps this studio to restore a "
    "backup."
)
_MESH_IDS = re.compile(rb'"mesh_id":\s*"([^"]+)"')


def pack(document: Scene) -> bytes:
    """A document as stored."""
    return zlib.compress(document.model_dump_json().encode())


def unpacked(packed: bytes, damaged: str = DAMAGED) -> Scene:
    """A stored document, brought up to the newest version. SceneError where it is damaged, or no longer taken.

    damaged  the sentence where it is
    """
    return read_scene(text_of(packed, damaged))


def text_of(packed: bytes, damaged: str = DAMAGED) -> bytes:
    """A stored document as it stands, whether it would be taken today or not. SceneError where it is damaged."""
    try:
        return zlib.decompress(packed)
    except zlib.error:
        raise SceneError([("", damaged)]) from None


def pack_text(text: bytes) -> bytes:
    """A document from elsewhere, as stored: a scene that is no longer taken is kept as it stands, to be opened by who
    can. SceneError where it is no scene."""
    try:
        return pack(read_scene(text))
    except SceneError:
        document = parsed(text)
        if not isinstance(document, dict) or document.get("format") != FORMAT:
            raise
        return zlib.compress(text)


def damaged_bytes(packed: bytes) -> bytes:
    """What is kept of a document that was damaged elsewhere, as it is. ValueError where it is not damaged."""
    opened = zlib.decompressobj()
    try:
        text = opened.decompress(packed, LARGEST_FILE)
    except zlib.error:
        return packed
    if opened.eof or len(text) >= LARGEST_FILE:
        raise ValueError("a state that is said to be damaged is not")
    return packed


def mesh_ids_of(packed: bytes) -> set[str]:
    """The shapes that a stored document points at, whether it would be taken today or not. SceneError where it is
    damaged."""
    return {found.decode() for found in _MESH_IDS.findall(text_of(packed))}
