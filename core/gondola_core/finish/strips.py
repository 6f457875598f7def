"""Strips that hide the edge of the bed, cut to its profile along each face, at true size."""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import Any

import numpy as np
from reportlab.lib.units import mm
from reportlab.pdfgen.canvas import Canvas

from ..markup import as_xml, printable
from ..scene import Scene

OVER_MM = 2.0
"""By how much a strip covers the line of the bed. Source: assumed"""
GAP_MM = 8.0
LEAST_MM = 1.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Strip:
    """One strip: its outline from its lower left corner [mm], lying on its lower edge."""

    face: str
    length_mm: float
    outline_mm: list[list[float]]


def edge_strips(scene: Scene) -> list[Strip]:
    """The strips of the four faces of a box, as seen from outside; none where the walls are no box.

    Source: definition
    """
    heights = np.array(scene.bed.heights_mm, dtype=float)
    width, behind = scene.tank.inner_width_mm, scene.tank.inner_behind_mm
    lines = {
        "front": (width, heights[0]), "back": (width, heights[-1][::-1]), "left": (behind, heights[::-1, 0]),
        "right": (behind, heights[:, -1]),
    }
    found = []
    for face, (length, line) in lines.items():
        if scene.tank.shape.kind != "box" or float(line.max()) < LEAST_MM:
            continue
        across = np.linspace(0.0, length, len(line))
        top = np.minimum(line + OVER_MM, scene.tank.fill_height_mm)
        profile = [[float(x), float(y)] for x, y in zip(across[::-1], top[::-1], strict=True)]
        outline = [[0.0, 0.0], [length, 0.0], *profile]
        found.append(Strip(face=face, length_mm=length, outline_mm=[[round(x, 2), round(y, 2)] for x, y in outline]))
    return found


def _placed(strips: list[Strip]) -> list[tuple[Strip, float]]:
    """Each strip with how far up it is laid on one sheet."""
    at, found = GAP_MM, []
    for one in strips:
        found.append((one, at))
        at += max(y for _, y in one.outline_mm) + GAP_MM
    return found


def _sheet_mm(strips: list[Strip]) -> tuple[float, float]:
    wide = max((one.length_mm for one in strips), default=10.0) + 2 * GAP_MM
    tall = sum(max(y for _, y in one.outline_mm) + GAP_MM for one in strips) + GAP_MM
    return wide, tall


def strips_svg(strips: list[Strip], title: str) -> str:
    """All strips as SVG in millimetres."""
    wide, tall = _sheet_mm(strips)
    parts = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide:g}mm" height="{tall:g}mm" '
        f'viewBox="0 0 {wide:g} {tall:g}"><title>{as_xml(title)}</title>'
    ]
    for one, up in _placed(strips):
        path = " ".join(f"{GAP_MM + x:.2f},{tall - up - y:.2f}" for x, y in one.outline_mm)
        parts.append(f'<polygon points="{path}" fill="none" stroke="#000" stroke-width="0.2"/>')
        parts.append(f'<text x="{GAP_MM + 2:g}" y="{tall - up - 2:.2f}" font-size="4">{one.face}</text>')
    return "".join([*parts, "</svg>"])


def strips_dxf(strips: list[Strip]) -> str:
    """All strips as DXF in millimetres."""
    import ezdxf  # a second of every start, which only what is drawn needs

    document: Any = ezdxf.new("R2010", setup=False)
    document.header["$INSUNITS"] = 4
    space = document.modelspace()
    for one, up in _placed(strips):
        space.add_lwpolyline([(GAP_MM + x, up + y) for x, y in one.outline_mm], close=True)
        space.add_text(one.face, height=4).set_placement((GAP_MM + 2, up + 2))
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


def strips_pdf(strips: list[Strip], title: str) -> bytes:
    """All strips as one page of their own size, to print at 100 %."""
    wide, tall = _sheet_mm(strips)
    out = io.BytesIO()
    canvas = Canvas(out, pagesize=(wide * mm, tall * mm), invariant=1)
    canvas.setTitle(printable(title))
    canvas.setLineWidth(0.2 * mm)
    for one, up in _placed(strips):
        path = canvas.beginPath()
        for at, (x, y) in enumerate(one.outline_mm):
            (path.lineTo if at else path.moveTo)((GAP_MM + x) * mm, (up + y) * mm)
        path.close()
        canvas.drawPath(path)
        canvas.drawString((GAP_MM + 2) * mm, (up + 2) * mm, one.face)
    canvas.save()
    return out.getvalue()
