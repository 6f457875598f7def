"""Tries tilts of a figure until the air under it is gone: what helps, found by trying."""

from __future__ import annotations

import numpy as np

from ..checks import Edit, Remedy
from ..checks.figures import prefill, vent_at
from ..errors import GondolaError
from ..scene import Figure, Scene
from ..shape import Meshes
from ..shape.columns import ground_spans, put_together, spans_of, tank_columns
from ..shape.floods import free_spans
from ..shape.pockets import air_traps

ANGLES_DEG = (3.0, 6.0, 10.0, 15.0, 20.0, 30.0, 45.0)
"""Tilts that are tried. Source: assumed"""
GONE_SHARE = 0.05
"""A tilt helps if it leaves at most this share of the air. Source: own_geometry"""


def air_remedies(scene: Scene, figure_id: str, meshes: Meshes) -> list[Remedy]:
    """What empties the pockets under a figure, each tried on its own; the least tilt first.

    Tilts are of the figure, about its own length and across it, both ways; each is flooded anew.
    GondolaError if there is no such figure.
    """
    at = next((i for i, one in enumerate(scene.figures) if one.id == figure_id), None)
    if at is None:
        raise GondolaError(f"There is no figure '{figure_id}' in this scene.", "figure_id")
    columns = tank_columns(scene.tank)
    outside, ground = ground_spans(scene.tank, scene.bed, columns, meshes)
    others = [spans_of(one, columns, meshes) for one in scene.figures]

    def kept_ml(figure: Figure) -> float:
        parts = [*others[:at], spans_of(figure, columns, meshes), *others[at + 1 :]]
        tried = scene.model_copy(
            update={"figures": [*scene.figures[:at], figure, *scene.figures[at + 1 :]]}
        )
        spans = put_together(columns, [outside, ground, *parts])
        traps = air_traps(tried, spans, free_spans(spans))
        return sum(trap.volume_ml for trap in traps if trap.figure_id == figure_id)

    figure = scene.figures[at]
    now = kept_ml(figure)
    if now <= 0:
        return []
    remedies = []
    ways = {"tilt_deg": ("nose up", "nose down"), "roll_deg": ("to the left", "to the right")}
    for field, words in ways.items():
        found = _least_tilt(figure, field, kept_ml, now)
        if found is None:
            continue
        angle, left = found
        whole = float(getattr(figure, field)) + angle
        way = words[0] if angle > 0 else words[1]
        remedies.append(
            (
                abs(angle),
                Remedy(
                    label=f"tilt it {abs(angle):g}° {way}, {left:.2g} ml stays",
                    edits=[
                        Edit(op="replace", path=f"/figures/{at}/{field}", value=round(whole, 2))
                    ],
                ),
            )
        )
    tilts = [remedy for _, remedy in sorted(remedies, key=lambda pair: pair[0])]
    spans = put_together(columns, [outside, ground, *others])
    largest = next(
        trap for trap in air_traps(scene, spans, free_spans(spans)) if trap.figure_id == figure_id
    )
    return [*tilts, vent_at(scene, largest), prefill(scene, figure_id)]


def _least_tilt(figure: Figure, field: str, kept_ml, now: float) -> tuple[float, float] | None:  # type: ignore[no-untyped-def]
    start = float(getattr(figure, field))
    for angle in ANGLES_DEG:
        for way in (1.0, -1.0):
            turned = float(np.clip(start + way * angle, -180, 180))
            left = kept_ml(figure.model_copy(update={field: turned}))
            if left <= GONE_SHARE * now:
                return turned - start, left
    return None
