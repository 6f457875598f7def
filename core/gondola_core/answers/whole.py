"""The piece as a whole."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ..cure.spans import CureSpan
from ..dam import DamFacts
from ..scene.schedule import pour_starts_h
from .answer import Answer
from .cups import CUPS, Cup
from .dam import DAM
from .filling import BED_SLOPES, BedSlopes
from .fills import VOLUMES, Volumes
from .heat import HEAT, RUNAWAY_C, Heat
from .pours import clock, latest_span
from .reading import Reading


@dataclass(frozen=True, slots=True, kw_only=True)
class Whole:
    """The piece as a whole; `resin_volume_ml` is what all pours take up.

    runs_away   hotter than a march can tell
    demould_span, full_cure_span   hours from the first pour, if room and resin are not as said
    """

    free_volume_ml: float
    resin_volume_ml: float
    mix_g: float
    pieces_count: int
    all_pieces_mix_g: float
    all_pieces_ml: float
    outer_width_mm: float
    outer_behind_mm: float
    piece_kg: float
    bed_area_cm2: float
    bed_top_depth_mm: float
    headroom_mm: float
    demould_h: float | None
    demould_at: str | None
    demould_span: CureSpan | None
    full_cure_d: float | None
    full_cure_span: CureSpan | None
    hottest_c: float | None
    runs_away: bool


def _whole(scene: Any, volumes: Volumes, cups: list[Cup], heat: Heat, dam: DamFacts, slopes: BedSlopes) -> Whole:
    starts = pour_starts_h(scene.pours)
    poured = [
        (start, cure, spans) for start, cure, spans in zip(starts, heat.cures, heat.spans, strict=True)
        if cure is not None
    ]
    ready = [start + cure.demould_h for start, cure, _ in poured if cure.demould_h is not None]
    demould = round(max(ready), 2) if poured and len(ready) == len(poured) else None
    last, last_spans = heat.cures[-1], heat.spans[-1]
    fill = scene.tank.fill_height_mm
    mix_g = sum(cup.mix.mix_g for cup in cups)
    free = float(volumes.free_ml.sum())
    count = scene.brief.pieces_count
    solid_g = max(dam.floor_cm2 * fill / 10 - free, 0.0) * scene.bed.material.density_g_ml
    return Whole(
        free_volume_ml=round(free, 1),
        resin_volume_ml=round(float(volumes.resin_ml.sum()), 1),
        mix_g=round(mix_g, 1),
        pieces_count=count,
        all_pieces_mix_g=round(count * mix_g, 1),
        all_pieces_ml=round(count * sum(cup.mix.mix_ml for cup in cups), 1),
        outer_width_mm=dam.cuts.outer_width_mm,
        outer_behind_mm=dam.cuts.outer_behind_mm,
        piece_kg=round((mix_g + solid_g) / 1000, 2),
        bed_area_cm2=round(slopes.area_cm2, 1),
        bed_top_depth_mm=round(fill - max(map(max, scene.bed.heights_mm)), 1),
        headroom_mm=round(scene.tank.wall_height_mm - fill, 1),
        demould_h=demould,
        demould_at=clock(scene, demould) if demould is not None else None,
        demould_span=latest_span([(start, spans.demould if spans else None) for start, _, spans in poured]),
        full_cure_d=round(starts[-1] / 24 + last.full_cure_d, 1) if last else None,
        full_cure_span=latest_span([(starts[-1], last_spans.full_cure)]) if last_spans else None,
        hottest_c=max((cure.peak_c for _, cure, _ in poured), default=None),
        runs_away=any(cure.peak_c >= RUNAWAY_C for _, cure, _ in poured),
    )


WHOLE = Answer(
    name="whole", needs=(VOLUMES, CUPS, HEAT, DAM, BED_SLOPES), by=_whole,
    reads=Reading(
        "tank.fill_height_mm", "tank.wall_height_mm", "pours.wait_h", "brief.pieces_count", "brief.first_pour_at",
        "bed.material", "bed.heights_mm",
    ),
)
