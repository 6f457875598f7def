"""What a plan takes: resin, inks, sheet, cups, gloves, grits."""

from __future__ import annotations

from typing import Any

from ..bench.shopping import Need, needs_of
from ..bench.stocks import Stock
from ..dam import DamFacts
from .answer import Answer
from .cups import CUPS, STOCKS, Cup
from .dam import DAM
from .reading import Reading


def _needs(scene: Any, cups: list[Cup], stocks: list[Stock], dam: DamFacts) -> list[Need]:
    panels = dam.cuts.panels
    sheet_cm2 = sum(one.count * one.width_mm * one.height_mm for one in panels) / 100
    joints_mm = dam.perimeter_mm + sum(one.count for one in panels) * scene.tank.wall_height_mm
    return needs_of(scene, [cup.mix for cup in cups], stocks, sheet_cm2, joints_mm)


NEEDS = Answer(
    name="needs", needs=(CUPS, STOCKS, DAM), by=_needs,
    reads=Reading("pours.resin_id", "resins", "colourants", "brief.pieces_count", "tank.wall", "tank.seal",
                  "tank.walls_stay", "tank.wall_height_mm", "finish.sand_to_grit"),
)
