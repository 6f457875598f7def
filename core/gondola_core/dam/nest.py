"""Panels laid out on stock sheets, and the layout as SVG and DXF."""

from __future__ import annotations

import io
from dataclasses import dataclass

import rectpack

from ..errors import GondolaError
from ..markup import as_xml, printable
from ..scene import Tank
from ..words import words
from .panels import CutList, Panel


@dataclass(frozen=True, slots=True, kw_only=True)
class Laid:
    """A panel on a sheet, by its lower left corner; turned where that fits better."""

    name: str
    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float
    turned: bool
    bevels: str


@dataclass(frozen=True, slots=True, kw_only=True)
class NestedSheet:
    """One stock sheet with what is cut from it."""

    from_sheet: str
    number: int
    width_mm: float
    height_mm: float
    laid: list[Laid]
    used_fraction: float


def nest(cuts: CutList, tank: Tank) -> list[NestedSheet]:
    """Wall panels on wall sheets and the base on a base sheet, a saw cut between any two.

    GondolaError names a panel that is larger than the stock sheet.
    """
    kerf = tank.cutting.kerf_mm
    width, height = tank.cutting.sheet_mm
    sheets: list[NestedSheet] = []
    for kind in ("wall", "base"):
        pieces = [
            panel for panel in cuts.panels if panel.from_sheet == kind for _ in range(panel.count)
        ]
        for panel in pieces:
            sides = sorted((panel.width_mm, panel.height_mm))
            if sides[0] > min(width, height) or sides[1] > max(width, height):
                raise GondolaError(
                    words(
                        "refusals.panel_large", panel=panel.name, panel_width=panel.width_mm,
                        panel_height=panel.height_mm, width=width, height=height,
                    ),
                    "tank.cutting.sheet_mm",
                )
        sheets += _packed(pieces, kind, width, height, kerf)
    return sheets


def _packed(
    pieces: list[Panel], kind: str, width: float, height: float, kerf: float
) -> list[NestedSheet]:
    if not pieces:
        return []
    scale = 1000  # whole micrometres: the packer wants integers
    packer = rectpack.newPacker(rotation=True)
    for number, panel in enumerate(pieces):
        packer.add_rect(
            round((panel.width_mm + kerf) * scale), round((panel.height_mm + kerf) * scale), number
        )
    packer.add_bin(
        round((width + kerf) * scale), round((height + kerf) * scale), count=len(pieces)
    )
    packer.pack()
    sheets = []
    for number, used in enumerate(packer, start=1):
        laid = []
        for rect in used:
            panel = pieces[rect.rid]
            turned = abs(rect.width / scale - kerf - panel.width_mm) > 0.01
            laid.append(
                Laid(
                    name=panel.name, x_mm=rect.x / scale, y_mm=rect.y / scale,
                    width_mm=panel.height_mm if turned else panel.width_mm,
                    height_mm=panel.width_mm if turned else panel.height_mm, turned=turned,
                    bevels=_bevels(panel),
                )
            )
        area = sum(one.width_mm * one.height_mm for one in laid)
        sheets.append(
            NestedSheet(
                from_sheet=kind, number=number, width_mm=width, height_mm=height,
                laid=sorted(laid, key=lambda one: (one.y_mm, one.x_mm)),
                used_fraction=round(area / (width * height), 3),
            )
        )
    return sheets


def _bevels(panel: Panel) -> str:
    if not panel.bevel_left_deg and not panel.bevel_right_deg:
        return ""
    return f"{panel.bevel_left_deg:g}° / {panel.bevel_right_deg:g}°"


GAP_MM = 20.0
"""Between sheets on the drawing."""


def svg_of(sheets: list[NestedSheet], title: str) -> str:
    """All sheets one below the other, to scale in mm, with names and sizes."""
    width = max((sheet.width_mm for sheet in sheets), default=100.0)
    height = sum(sheet.height_mm + GAP_MM for sheet in sheets) or 100.0
    out = io.StringIO()
    out.write(
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width:g}mm" height="{height:g}mm" '
        f'viewBox="0 0 {width:g} {height:g}"><title>{as_xml(title)}</title>\n'
    )
    top = 0.0
    for sheet in sheets:
        base = top + GAP_MM * 0.6
        out.write(
            f'<text x="0" y="{base - 3:g}" font-size="7" font-family="sans-serif">'
            f"{sheet.from_sheet} sheet {sheet.number}, {sheet.width_mm:g} x {sheet.height_mm:g} mm"
            f'</text><rect x="0" y="{base:g}" width="{sheet.width_mm:g}" '
            f'height="{sheet.height_mm:g}" fill="none" stroke="#999999" stroke-width="0.4"/>\n'
        )
        for one in sheet.laid:
            y = base + sheet.height_mm - one.y_mm - one.height_mm
            out.write(
                f'<rect x="{one.x_mm:g}" y="{y:g}" width="{one.width_mm:g}" '
                f'height="{one.height_mm:g}" fill="none" stroke="#000000" stroke-width="0.3"/>'
                f'<text x="{one.x_mm + 4:g}" y="{y + 9:g}" font-size="6" font-family="sans-serif">'
                f"{as_xml(one.name)} {one.width_mm:g} x {one.height_mm:g} {as_xml(one.bevels)}"
                "</text>\n"
            )
        top += sheet.height_mm + GAP_MM
    out.write("</svg>\n")
    return out.getvalue()


def dxf_of(cuts: CutList, sheets: list[NestedSheet]) -> str:
    """The layout as DXF in mm: cut lines, sheet edges and words on layers of their own."""
    import ezdxf  # a second of every start, which only what is drawn needs

    document = ezdxf.new("R2010", setup=False)
    document.header["$INSUNITS"] = 4
    for name, colour in (("CUT", 1), ("SHEET", 8), ("WORDS", 3)):
        document.layers.add(name, color=colour)
    space = document.modelspace()
    outlines = {panel.name: panel.outline_mm for panel in cuts.panels}
    top = 0.0
    for sheet in sheets:
        space.add_lwpolyline(
            _corners(0, top, sheet.width_mm, sheet.height_mm), close=True,
            dxfattribs={"layer": "SHEET"},
        )
        for one in sheet.laid:
            outline = outlines.get(one.name)
            if outline is None:
                points = _corners(one.x_mm, top + one.y_mm, one.width_mm, one.height_mm)
            elif one.turned:
                points = [
                    (one.x_mm + one.width_mm - y, top + one.y_mm + x) for x, y in outline
                ]
            else:
                points = [(one.x_mm + x, top + one.y_mm + y) for x, y in outline]
            space.add_lwpolyline(points, close=True, dxfattribs={"layer": "CUT"})
            words = f"{one.name} {one.width_mm:g} x {one.height_mm:g} {one.bevels}".strip()
            space.add_text(printable(words), height=5, dxfattribs={"layer": "WORDS"}).set_placement(
                (one.x_mm + 4, top + one.y_mm + 4)
            )
        top += sheet.height_mm + GAP_MM
    out = io.StringIO()
    document.write(out)
    return out.getvalue()


def _corners(x: float, y: float, width: float, height: float) -> list[tuple[float, float]]:
    return [(x, y), (x + width, y), (x + width, y + height), (x, y + height)]
