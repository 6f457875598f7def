"""Tries tilts of a figure until the air under it is gone: what helps, found by trying."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from ..answers.book import KEEPER, Book
from ..answers.flood import TRAPS
from ..answers.kept import Keeper
from ..checks import Remedy, reader_units, told_remedy
from ..checks.air import vent_at
from ..errors import GondolaError
from ..scene import Figure, Scene
from ..scene.edits import prefill_figure, tilt_figure
from ..shape import Meshes
from ..shape.pockets import AirTrap
from ..words import words

ANGLES_DEG = (3.0, 6.0, 10.0, 15.0, 20.0, 30.0, 45.0)
"""Tilts that are tried. Source: assumed"""
GONE_SHARE = 0.05
"""A tilt helps if it leaves at most this share of the air. Source: own_geometry"""

Kept = Callable[[Figure], list[AirTrap]]
"""Pockets under the figure if it stood so."""


def air_remedies(scene: Scene, figure_id: str, meshes: Meshes, keeper: Keeper = KEEPER) -> list[Remedy]:
    """What empties the pockets under a figure, each tried on its own; the least tilt first.

    Tilts are of the figure, about its own length and across it, both ways; each is flooded anew.
    GondolaError if there is no such figure.
    """
    at = next((i for i, one in enumerate(scene.figures) if one.id == figure_id), None)
    if at is None:
        raise GondolaError(words("refusals.no_figure", id=figure_id), "figure_id")
    book = Book(scene, keeper=keeper, meshes=meshes)

    def pockets(figure: Figure) -> list[AirTrap]:
        others = [*scene.figures[:at], figure, *scene.figures[at + 1 :]]
        traps = book.other(scene.model_copy(update={"figures": others})).ask(TRAPS)
        return [trap for trap in traps if trap.figure_id == figure_id]

    figure = scene.figures[at]
    now = pockets(figure)
    if not now:
        return []
    tilts = []
    for field in ("tilt_deg", "roll_deg"):
        found = _least_tilt(figure, field, pockets, sum(trap.volume_ml for trap in now))
        if found is not None:
            by, left = found
            whole = float(getattr(figure, field)) + by
            tilts.append((abs(by), tilt_figure(scene, figure_id, field, whole, by, left)))
    edits = [one for _, one in sorted(tilts, key=lambda pair: pair[0])]
    edits += [vent_at(scene, now[0]), prefill_figure(scene, figure_id)]
    return [told_remedy(one, reader_units(scene.brief.units)) for one in edits]


def _least_tilt(figure: Figure, field: str, pockets: Kept, now_ml: float) -> tuple[float, float] | None:
    """By how much to turn it, and what stays then [ml]; None if no angle that is tried helps."""
    start = float(getattr(figure, field))
    for angle in ANGLES_DEG:
        for way in (1.0, -1.0):
            turned = float(np.clip(start + way * angle, -180, 180))
            left = sum(trap.volume_ml for trap in pockets(figure.model_copy(update={field: turned})))
            if left <= GONE_SHARE * now_ml:
                return turned - start, left
    return None
