"""Photographs as they come: read with care, stripped of where they were taken, and made small to look at."""

from __future__ import annotations

import io
import re
from dataclasses import dataclass
from datetime import UTC, datetime

from PIL import ExifTags, Image, ImageOps, UnidentifiedImageError

from gondola_core.errors import GondolaError

LARGEST_PHOTOGRAPH = 40 * 2**20
MOST_PIXELS = {"JPEG": 120_000_000, "PNG": 40_000_000, "WEBP": 40_000_000}
"""Of a form; a JPEG is made small while it is read, the others are not."""
SMALL_PX = 1280
UNREADABLE = (
    "This file is no photograph that can be read, or a part of it is missing: bring a whole JPEG, PNG or WebP."
)
HEIF = re.compile(rb"^.{4}ftyp(heic|heix|hevc|mif1|msf1|heim|heis|avif)", re.DOTALL)


@dataclass(frozen=True, slots=True)
class Picture:
    """What a file holds: its form, sizes, the moment on it, a small JPEG, and the original without its place."""

    form: str
    width_px: int
    height_px: int
    taken_at: datetime | None
    small: bytes
    original: bytes
    located: bool


def read_picture(content: bytes) -> Picture:
    """A photograph from its bytes; GondolaError says what to bring instead."""
    if HEIF.match(content[:32]):
        raise GondolaError("This is a HEIC or AVIF photograph, which is not read here: save it as JPEG.", "file")
    try:
        return _read(content)
    except GondolaError:
        raise
    except Image.DecompressionBombError:
        raise GondolaError("This picture has far too many pixels: make it smaller.", "file") from None
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, EOFError, OverflowError, MemoryError, KeyError,
            TypeError, IndexError):
        raise GondolaError(UNREADABLE, "file") from None


def _read(content: bytes) -> Picture:
    with Image.open(io.BytesIO(content), formats=list(MOST_PIXELS)) as opened:
        form, (width, height) = str(opened.format), opened.size
        if width * height > MOST_PIXELS[form]:
            has, most = width * height / 1e6, MOST_PIXELS[form] / 1e6
            raise GondolaError(f"This has {has:.0f} megapixels; a {form} may have {most:.0f}: make it smaller.", "file")
        if getattr(opened, "n_frames", 1) > 1:
            raise GondolaError("This is a moving picture: bring a still one.", "file")
        exif = opened.getexif()
        taken, located = _taken_at(exif), bool(exif.get_ifd(ExifTags.IFD.GPSInfo))
        opened.draft("RGB", (SMALL_PX, SMALL_PX))
        upright = ImageOps.exif_transpose(opened)
        small = upright.convert("RGB")
        small.thumbnail((SMALL_PX, SMALL_PX))
        out = io.BytesIO()
        small.save(out, "JPEG", quality=82)
    turned = exif.get(ExifTags.Base.Orientation, 1) in (5, 6, 7, 8)
    return Picture(
        form=form, width_px=height if turned else width, height_px=width if turned else height, taken_at=taken,
        small=out.getvalue(), original=STRIPS[form](content), located=located,
    )


def _taken_at(exif: Image.Exif) -> datetime | None:
    """The moment that the camera wrote; by the clock of the person, so its zone is not told."""
    inner = exif.get_ifd(ExifTags.IFD.Exif)
    said = inner.get(ExifTags.Base.DateTimeOriginal) or exif.get(ExifTags.Base.DateTime)
    try:
        return datetime.strptime(str(said).strip("\x00 "), "%Y:%m:%d %H:%M:%S").replace(tzinfo=UTC) if said else None
    except ValueError:
        return None


def _jpeg_without_place(content: bytes) -> bytes:
    """All segments but those of EXIF, XMP and comments; what comes after the picture's end is left off."""
    out, at = bytearray(b"\xff\xd8"), 2
    while at + 4 <= len(content) and content[at] == 0xFF:
        marker, size = content[at + 1], int.from_bytes(content[at + 2:at + 4], "big")
        if marker == 0xDA:
            end = content.rfind(b"\xff\xd9")
            return bytes(out + content[at:end + 2 if end > at else len(content)])
        if marker not in (0xE1, 0xED, 0xFE):
            out += content[at:at + 2 + size]
        at += 2 + size
    raise ValueError("no picture in it")


def _png_without_place(content: bytes) -> bytes:
    """All chunks but those of EXIF and text; nothing after its end."""
    out, at = bytearray(content[:8]), 8
    while at + 12 <= len(content):
        size, name = int.from_bytes(content[at:at + 4], "big"), content[at + 4:at + 8]
        if name not in (b"eXIf", b"tEXt", b"iTXt", b"zTXt"):
            out += content[at:at + 12 + size]
        at += 12 + size
        if name == b"IEND":
            return bytes(out)
    raise ValueError("no end to it")


def _webp_without_place(content: bytes) -> bytes:
    """All chunks but EXIF and XMP."""
    out, at, end = bytearray(), 12, min(len(content), 8 + int.from_bytes(content[4:8], "little"))
    while at + 8 <= end:
        size = int.from_bytes(content[at + 4:at + 8], "little")
        whole = 8 + size + size % 2
        if content[at:at + 4] not in (b"EXIF", b"XMP "):
            out += content[at:at + whole]
        at += whole
    return b"RIFF" + (len(out) + 4).to_bytes(4, "little") + b"WEBP" + bytes(out)


STRIPS = {"JPEG": _jpeg_without_place, "PNG": _png_without_place, "WEBP": _webp_without_place}
"""By its form: the same picture, bit for bit, without where it was taken."""


def safe_name(name: str) -> str:
    """A file's name as it is shown: its last part, without what a terminal or a path would take for a command."""
    last = re.split(r"[/\\]", name)[-1]
    return re.sub(r"[^\w .()\-]", "_", last).strip(" .")[:100] or "photograph"
