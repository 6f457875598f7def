"""The made-up history of the Ferry Landing as it was first cast: what the bench recorded, and how it looked after."""

from __future__ import annotations

import io
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import accumulate
from typing import Any

import numpy as np
from PIL import Image, ImageDraw

from ..answers.kept import Keeper
from ..bench.mixing import mass_ratio
from ..scene import Scene
from ..views.picture import picture

MASS_A_G = 400.0
WARM = ((0.2, 24.5), (0.5, 31.0), (0.8, 47.0), (1.0, 78.0), (1.2, 121.0), (1.6, 134.0), (2.5, 118.0), (5.0, 74.0))
"""What a thermometer in pour 2 read: hours from the pour, degrees C."""
WIDE_PX, BUBBLES = 1000, 90
YELLOW = np.array([1.02, 0.93, 0.62])
CRACK = ((0.22, 0.44), (0.30, 0.47), (0.36, 0.43), (0.44, 0.50), (0.52, 0.47), (0.61, 0.53))
"""Places as shares of the picture."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Told:
    """A note, a fault or a lesson: hours from the first pour, and where."""

    kind: str
    at_h: float
    text: str
    x_mm: float | None = None
    depth_mm: float | None = None
    fault: dict[str, Any] | None = None
    pins: tuple[dict[str, str], ...] = ()


TOLD = (
    Told(kind="note", at_h=24.9, text="Pour 2 is warm through the glass after three quarters of an hour.",
         x_mm=120.0, depth_mm=110.0),
    Told(kind="note", at_h=25.3, text="It smokes. Window open, out of the room. The wall has bent outward.",
         x_mm=120.0, depth_mm=110.0),
    Told(kind="fault", at_h=100.0, text="Amber where it was thickest.", x_mm=130.0, depth_mm=112.0,
         fault={"kind": "yellow", "size_mm": 70.0, "figure_id": None}),
    Told(kind="fault", at_h=100.0, text="One long crack, and two short ones behind it.", x_mm=96.0, depth_mm=96.0,
         fault={"kind": "crack", "size_mm": 90.0, "figure_id": None}),
    Told(kind="fault", at_h=100.1, text="A cloud of bubbles in the middle of pour 2.", x_mm=150.0, depth_mm=104.0,
         fault={"kind": "bubbles", "size_mm": 2.5, "figure_id": None}),
    Told(kind="lesson", at_h=101.0, text="Coating resin is for coats: never again deeper than its label says.",
         pins=({"kind": "resin", "key": "coating"},)),
)


def ferry_events(scene: Scene, first: datetime) -> list[dict[str, Any]]:
    """What the bench recorded, as events; `first` is the moment of the first pour, with its zone."""
    found: list[dict[str, Any]] = []

    def tell(hours: float, kind: str, **fields: Any) -> None:
        moment = (first + timedelta(hours=hours)).isoformat()
        found.append({"id": f"ferry-{len(found):05d}", "at": moment, "kind": kind, **fields})

    starts = list(accumulate(pour.wait_h for pour in scene.pours))
    tell(-24.0, "sealed", sealed=True)
    for hours in range(0, int(starts[-1]) + 30, 3):
        tell(hours, "measured", what="room", measured_c=21.5 if hours % 24 < 12 else 19.5)
    for pour, start in zip(scene.pours, starts, strict=True):
        share = mass_ratio(scene.resin_of(pour))
        tell(start - 0.4, "weighed", pour_id=pour.id, cup=1, part="a", mass_g=MASS_A_G)
        for dose in pour.doses:
            drops = dose.dose_drops_per_100g * MASS_A_G * (1 + share) / 100
            tell(start - 0.35, "dropped", pour_id=pour.id, cup=1, colourant_id=dose.colourant_id,
                 neat_drops=round(drops, 1))
        tell(start - 0.3, "weighed", pour_id=pour.id, cup=1, part="b", mass_g=round(MASS_A_G * share, 1))
        tell(start - 0.25, "met", pour_id=pour.id, cup=1)
        tell(start, "pouring", pour_id=pour.id)
        tell(start + 0.15, "poured", pour_id=pour.id)
    for after, warm in WARM:
        tell(starts[1] + after, "measured", what="resin", pour_id=scene.pours[1].id, measured_c=warm)
    for below, start in zip(scene.pours, starts[1:], strict=False):
        tell(start - 1.0, "abraded", pour_id=below.id)
    tell(starts[-1] + 26.0, "demoulded")
    return found


def ferry_photograph(scene: Scene, keeper: Keeper) -> bytes:
    """The piece from the front as it came out, a JPEG: its picture with the faults drawn in."""
    seen = picture(scene, "front", WIDE_PX, {}, keeper).astype(float)
    rows, columns = seen.shape[:2]
    down, across = np.mgrid[0:rows, 0:columns] / np.array([rows, columns]).reshape(2, 1, 1)
    amber = np.exp(-(((across - 0.55) / 0.34) ** 2 + ((down - 0.55) / 0.22) ** 2))[..., None]
    stained = seen * (1 - amber) + seen * YELLOW * amber
    image = Image.fromarray(np.clip(stained, 0, 255).astype(np.uint8))
    pen = ImageDraw.Draw(image, "RGBA")
    line = [(x * columns, y * rows) for x, y in CRACK]
    pen.line(line, fill=(250, 250, 245, 190), width=3)
    pen.line([(x + 2, y + 3) for x, y in line], fill=(40, 50, 55, 150), width=2)
    draw = np.random.default_rng(8)
    places = draw.normal((0.62, 0.52), (0.07, 0.06), (BUBBLES, 2))
    for (x, y), size in zip(places, draw.uniform(1, 5, BUBBLES), strict=True):
        box = (x * columns - size, y * rows - size, x * columns + size, y * rows + size)
        pen.ellipse(box, outline=(255, 255, 255, 170), fill=(255, 255, 255, 60))
    out = io.BytesIO()
    image.save(out, "JPEG", quality=88)
    return out.getvalue()
