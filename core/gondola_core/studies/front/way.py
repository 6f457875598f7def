"""A way of pouring: lines, resins, temperature of the mix, air, seal, and where in the tack each pour is begun."""

from __future__ import annotations

from dataclasses import dataclass

from ...scene import Pour, Scene
from ...scene.edits import USUAL_WAIT_H
from ..laying import doses_between

AFTER_HARD = 2.0
"""Aim of whoever waits until a layer is hard."""
THINNEST_MM = 4.0
"""A pour this thin covers itself, twice over. Source: own_geometry"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """One way of pouring a scene.

    tops_mm     depth of each line from the bottom up; the last is the fill line, 0
    resin_ids   resin of each pour
    mix_c       temperature of every mix
    fan         air moved over the piece
    box_c       a warm box around it at this temperature; None for the room as it is
    sealed      the bed sealed before
    aim         share of the tack window at which the next pour is wished; over 1: once it is hard, and abraded
    """

    tops_mm: tuple[float, ...]
    resin_ids: tuple[str, ...]
    mix_c: float
    fan: bool
    sealed: bool
    aim: float
    box_c: float | None = None

    def depths_mm(self, fill_mm: float) -> list[float]:
        """Thickness of each pour from the bottom up."""
        lines = (fill_mm, *self.tops_mm)
        return [below - top for below, top in zip(lines, self.tops_mm, strict=False)]


def even_tops(fill_mm: float, count: int) -> tuple[float, ...]:
    """Lines of so many equal pours."""
    return (*(round(fill_mm * (1 - (n + 1) / count), 1) for n in range(count - 1)), 0.0)


def laid(scene: Scene, way: Way, waits_h: list[float] | None = None) -> Scene:
    """The scene poured in this way; the usual waits where none are given."""
    count = len(way.tops_mm)
    waits = waits_h if waits_h is not None and len(waits_h) == count else [0.0, *[USUAL_WAIT_H] * (count - 1)]
    pours = [
        Pour(
            id=f"pour-{n + 1}", top_depth_mm=top, resin_id=resin, mix_c=way.mix_c, wait_h=wait,
            doses=doses_between(scene, top, bottom),
        )
        for n, (top, bottom, resin, wait) in enumerate(
            zip(way.tops_mm, (scene.tank.fill_height_mm, *way.tops_mm[:-1]), way.resin_ids, waits, strict=True)
        )
    ]
    room = scene.brief.room.model_copy(update={"fan": way.fan, "warm_box_c": way.box_c})
    return scene.model_copy(update={
        "pours": pours, "brief": scene.brief.model_copy(update={"room": room}),
        "bed": scene.bed.model_copy(update={"sealed": way.sealed}),
    })


def way_of(scene: Scene) -> Way:
    """The way in which a scene is planned."""
    return Way(
        tops_mm=tuple(pour.top_depth_mm for pour in scene.pours),
        resin_ids=tuple(pour.resin_id for pour in scene.pours), mix_c=scene.pours[0].mix_c,
        fan=scene.brief.room.fan, sealed=scene.bed.sealed, aim=0.5,
        box_c=scene.brief.room.warm_box_c,
    )
