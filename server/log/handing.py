"""A page to hand on: one folder that opens from disk, without a network and without a script."""

from __future__ import annotations

import io
import zipfile
from typing import Any

from django.template.loader import render_to_string
from scenes.actions import state_of
from scenes.models import Scene
from shapes.actions import meshes_for

from gondola_core.documents.card import doses_said
from gondola_core.evaluate import DRAFT, KEEPER, evaluate
from gondola_core.explain.fault import FAULT_NAMES
from gondola_core.outcome import Outcome
from gondola_core.scene import Scene as SceneDocument
from gondola_core.views.picture import jpeg_of, picture
from gondola_core.words import ReaderUnits
from gondola_core.words.quantities import said_quantity

from .actions import state_of as entry_state
from .models import Entry

WIDE, HIGH, LEFT, SOLE = 640.0, 240.0, 40.0, 24.0
PICTURE_PX = 1200
MOST_PICTURES = 200
"""Photographs in one folder."""


def folder_of(*, scene: Scene, units: ReaderUnits) -> bytes:
    """The folder as a ZIP."""
    document = state_of(scene).document
    meshes = meshes_for(owner=scene.owner, document=document)
    outcome = evaluate(document, DRAFT, KEEPER, None, meshes)
    rows = list(scene.entries.filter(taken_back_at=None).select_related("photograph").order_by("at", "pk"))
    pictures = [one for one in rows if one.kind == Entry.Kind.PHOTOGRAPH][:MOST_PICTURES]
    page = render_to_string("log/story.html", {
        "name": scene.name, "size": _size(document, units), "curve": _curve(outcome, units),
        "pours": [_pour(document, outcome, at, units) for at in range(len(document.pours))],
        "entries": [_entry(one, one in pictures, units) for one in rows],
    })
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as folder:
        folder.writestr("story/index.html", page)
        folder.writestr("story/front.jpg", jpeg_of(picture(document, "front", PICTURE_PX, meshes, KEEPER)))
        folder.writestr("story/scene.json", document.model_dump_json(indent=1))
        for one in pictures:
            folder.writestr(f"story/{_name(one)}", bytes(one.photograph.small))
    return out.getvalue()


def _name(entry: Entry) -> str:
    return f"photograph-{entry.pk}.jpg"


def _say(value: float, quantity: str, units: ReaderUnits) -> str:
    return said_quantity(value, quantity, units)


def _size(document: SceneDocument, units: ReaderUnits) -> str:
    tank = document.tank
    sides = (tank.inner_width_mm, tank.inner_behind_mm, tank.fill_height_mm)
    wide, behind, deep = (_say(side, "length", units) for side in sides)
    return f"{wide} wide, {behind} behind the glass, {deep} deep; 1 to {document.brief.scale:g}"


def _pour(document: SceneDocument, outcome: Outcome, at: int, units: ReaderUnits) -> dict[str, Any]:
    pour, told = document.pours[at], outcome.pours[at]
    doses = [f"{one} in 100 g" for one in doses_said(document, pour, units)]
    cure = told.heat.cure
    return {
        "number": told.number, "line": _say(pour.top_depth_mm, "length", units),
        "resin": document.resin_of(pour).name, "volume": _say(told.fill.resin_volume_ml, "volume", units),
        "part_a": _say(told.cup.mix.part_a_g, "mass", units), "part_b": _say(told.cup.mix.part_b_g, "mass", units),
        "colour": ", ".join(doses), "begins": told.clock.starts_at.replace("T", " "),
        "peak": "" if cure is None else _say(cure.peak_c, "temperature", units),
    }


def _curve(outcome: Outcome, units: ReaderUnits) -> dict[str, Any]:
    """Hottest resin anywhere over time, as a path."""
    pairs = [
        (hours, max(one for one in row if one is not None))
        for hours, row in zip(outcome.history.at_h, outcome.history.hottest_c, strict=True)
        if any(one is not None for one in row)
    ]
    if len(pairs) < 2:
        return {"path": "", "across": [], "up": []}
    end, low, high = pairs[-1][0], min(one for _, one in pairs), max(one for _, one in pairs)

    def x(hours: float) -> float:
        return LEFT + (WIDE - LEFT - 8) * hours / max(end, 1e-6)

    def y(celsius: float) -> float:
        return HIGH - SOLE - (HIGH - SOLE - 10) * (celsius - low) / max(high - low, 1e-6)

    path = "".join(f"{'L' if at else 'M'}{x(hours):.1f} {y(warm):.1f}" for at, (hours, warm) in enumerate(pairs))
    across = [{"x": f"{x(end * share):.0f}", "word": f"{end * share:.0f} h"} for share in (0.0, 0.25, 0.5, 0.75, 0.98)]
    up = [{"y": f"{y(one) + 4:.0f}", "word": _say(one, "temperature", units)}
          for one in (low, 0.5 * (low + high), high)]
    return {"path": path, "across": across, "up": up}


def _entry(entry: Entry, shown: bool, units: ReaderUnits) -> dict[str, Any]:
    told = entry_state(entry)
    size = told.fault.size_mm if told.fault else None
    fault = FAULT_NAMES[told.fault.kind] if told.fault else ""
    return {
        "when": told.at.strftime("%Y-%m-%d %H:%M"), "text": told.text,
        "depth": _say(told.place.depth_mm, "length", units) if told.place else "",
        "fault": f"{fault}, {_say(size, 'length', units)}" if size else fault,
        "name": told.photograph.name if told.photograph else "", "picture": _name(entry) if shown else "",
    }
