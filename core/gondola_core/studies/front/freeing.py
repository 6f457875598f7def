"""Where no way clears every stop: changes of the scene that might, each computed."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from ...answers.book import Book
from ...checks import Remedy, reader_units, told_remedy
from ...materials import load_library
from ...scene import Scene
from ...scene.edits import Edit, Operation, apply_edit, edit, instead
from ...words import words
from ..fill_line import fill_line
from ..laying import MOST_POURS, fewest_pours, usual_mix_c
from .screen import Screen, Screened
from .way import THINNEST_MM, Way, even_tops

NEARLY = 0.99
"""Share that is told while changes are tried."""
LOWER = (0.8, 0.6)
"""Fill lines that are tried, over the one that is planned. Source: assumed"""
MORE_POURS = 4
"""How many more pours than the label asks are tried with each change."""


@dataclass(frozen=True, slots=True, kw_only=True)
class Freed:
    """A change of the scene: whether some even way of pouring clears every stop with it, and what stops it still."""

    words: str
    clears: bool
    stops_count: int
    remedy: Remedy


def freeing(scene: Scene, base: Book, resin_ids: list[str], told: Callable[[float], None]) -> list[Freed]:
    """Changes that were tried, those that clear every stop first; `told` is called with each way, and may end it."""
    found = []
    for change, more in _changes(scene):
        changed = apply_edit(scene, change.operations, change.digest)
        best = _best(base.other(changed), [*resin_ids, *more], told)
        units = reader_units(scene.brief.units)
        found.append(Freed(
            words=change.words.said(units), clears=best is not None and not best.stops,
            stops_count=len(best.stops) if best else 0, remedy=told_remedy(change, units),
        ))
    return sorted(found, key=lambda one: (not one.clears, one.stops_count))


def _best(book: Book, resin_ids: list[str], told: Callable[[float], None]) -> Screened | None:
    """The even way with the fewest stops, the first that has none."""
    scene, best, screen = book.scene, None, Screen(book)
    fill = scene.tank.fill_height_mm
    for resin_id in resin_ids:
        least = fewest_pours(scene, resin_id)
        for count in range(least, min(MOST_POURS, least + MORE_POURS) + 1):
            if count > 1 and fill / count < THINNEST_MM:
                break
            way = Way(
                tops_mm=even_tops(fill, count), resin_ids=(resin_id,) * count, mix_c=round(usual_mix_c(scene), 1),
                fan=True, sealed=True, aim=0.3, box_c=scene.brief.room.warm_box_c,
            )
            told(NEARLY)
            made = screen(way)
            if best is None or len(made.stops) < len(best.stops):
                best = made
            if not made.stops:
                return made
    return best


def _changes(scene: Scene) -> Iterator[tuple[Edit, list[str]]]:
    """Each change, and the resins that it brings."""
    shelf = load_library()
    if scene.tank.seal is not None:
        seal = max((shelf.solids[key] for key in shelf.uses["seal"]), key=lambda one: one.limit_c)
        was = scene.tank.seal.material
        if seal.limit_c > was.limit_c:
            yield edit(scene, words("front.free_seal", name=seal.name, limit_c=seal.limit_c), [], *instead(
                "/tank/seal/material", was.model_dump(mode="json"), seal.model_dump(mode="json")
            )), []
    base = scene.tank.base.material
    wood = shelf.solids["wood"]
    if base.id != wood.id:
        yield edit(scene, words("front.free_base", name=wood.name), [], *instead(
            "/tank/base/material", base.model_dump(mode="json"), wood.model_dump(mode="json")
        )), []
    held = {one.id for one in scene.resins}
    for resin in shelf.resins.values():
        if resin.id not in held and resin.light is None:
            add = Operation(op="add", path="/resins/-", value=resin.model_dump(mode="json"))
            yield edit(scene, words("front.free_resin", name=resin.name), [], add), [resin.id]
    for share in LOWER:
        lower = fill_line(scene, round(share * scene.tank.fill_height_mm))
        yield lower, []
