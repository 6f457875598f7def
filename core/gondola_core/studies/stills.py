"""Stills of the finished block, drawn with all care: one picture, or a turn about the piece."""

from __future__ import annotations

import base64
import io
from collections.abc import Callable
from dataclasses import dataclass

from PIL import Image

from ..answers.book import Book
from ..answers.kept import Keeper
from ..errors import GondolaError
from ..scene import Scene
from ..shape import meshes_held
from ..views.bubbles import seen_bubbles
from ..views.look.look import CLEARER, STILL, Asked, look
from ..views.look.stand import Stand
from ..views.picture import png_of
from ..words import words

MOST_PIXELS = 8_000_000
"""Of a still: some three minutes of work. Source: assumed"""
FRAMES = 24
"""Of a turn about the piece."""
FRAME_PX, FRAME_MS = (560, 350), 110
WEBP_QUALITY = 82


@dataclass(frozen=True, slots=True, kw_only=True)
class StillPicture:
    """A still as a PNG file, in base64, and the eye that saw it."""

    stand: Stand
    width_px: int
    height_px: int
    png_base64: str


@dataclass(frozen=True, slots=True, kw_only=True)
class Turntable:
    """The piece turned once about, as an animated WebP file in base64."""

    frames_count: int
    webp_base64: str


def still_png(scene: Scene, stand: Stand, size_px: tuple[int, int], told: Callable[[float], None]) -> bytes:
    """A still in 31 bands with its bubbles, as a PNG file.

    Raises GondolaError where it has too many dots or the eye cannot stand so.
    """
    width, height = size_px
    if width * height > MOST_PIXELS:
        raise GondolaError(words("look.too_large", width=width, height=height, most=MOST_PIXELS / 1e6))
    meshes, keeper = meshes_held(scene), Keeper()
    bubbles = seen_bubbles(Book(scene, meshes=meshes)) if stand.bubbles else None
    return png_of(look(scene, Asked(stand, width, height, STILL, told, bubbles), meshes, keeper))


def still(scene: Scene, stand: Stand, size_px: tuple[int, int], told: Callable[[float], None]) -> StillPicture:
    """The same, to be kept."""
    png = still_png(scene, stand, size_px, told)
    return StillPicture(
        stand=stand, width_px=size_px[0], height_px=size_px[1], png_base64=base64.b64encode(png).decode()
    )


def turntable(scene: Scene, stand: Stand, told: Callable[[float], None], frames: int = FRAMES) -> Turntable:
    """The piece turned once about before an eye that stays at its height and distance."""
    meshes, keeper = meshes_held(scene), Keeper()
    pictures = []
    for number in range(frames):
        turned = (stand.azimuth_deg + 360.0 * number / frames + 180.0) % 360.0 - 180.0
        asked = Asked(
            stand.model_copy(update={"azimuth_deg": turned}), *FRAME_PX, CLEARER,
            lambda share, number=number: told((number + share) / frames),  # type: ignore[misc]
        )
        pictures.append(Image.fromarray(look(scene, asked, meshes, keeper)))
    out = io.BytesIO()
    pictures[0].save(
        out, format="WEBP", save_all=True, append_images=pictures[1:], duration=FRAME_MS, loop=0, quality=WEBP_QUALITY
    )
    return Turntable(frames_count=frames, webp_base64=base64.b64encode(out.getvalue()).decode())
