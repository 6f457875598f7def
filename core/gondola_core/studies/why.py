"""Why a pour gets so hot: the share of each cause, found by taking it away and marching again."""

from __future__ import annotations

from dataclasses import dataclass

from ..answers.book import KEEPER, Book
from ..answers.grades import DRAFT
from ..answers.heat import HEAT
from ..answers.kept import Keeper
from ..checks import reader_units
from ..errors import GondolaError
from ..materials import load_library
from ..scene import Pour, Scene
from ..shape import Meshes
from ..words import Words, words

GENTLE = "deep"
"""Class of resin that warms least."""
COOL_ROOM_C = 18.0
"""Source: assumed"""
TEN_DAYS_H = 240.0
FOAM_W_MK = 0.08
"""Conductivity below which a base or bed counts as foam. Source: assumed"""
TOLD_K = 1.0
"""Causes that add less are not told. Source: assumed"""
MOST_TOLD = 4
LEAST_HALVED_MM = 4.0


@dataclass(frozen=True, slots=True, kw_only=True)
class Cause:
    """One cause taken away: the peak without it, and what it adds. Causes overlap."""

    name: str
    without: str
    peak_c: float
    adds_k: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Why:
    """A pour's peak and its causes, the largest first."""

    pour_number: int
    peak_c: float
    causes: list[Cause]
    sentence: str


def why_hot(
    scene: Scene, pour_number: int, meshes: Meshes | None = None, keeper: Keeper = KEEPER
) -> Why:
    """March the plan once as it is and once without each cause, on the draft grid.

    GondolaError if there is no such pour.
    """
    if not 1 <= pour_number <= len(scene.pours):
        raise GondolaError(words("refusals.no_pour", most=len(scene.pours), number=pour_number), "pour_number")
    book, units = Book(scene, DRAFT, keeper, meshes), reader_units(scene.brief.units)
    now = _peak_c(book, pour_number)
    causes = []
    for without in _without(scene, pour_number):
        there = _peak_c(book.other(without.scene), pour_number)
        causes.append(Cause(
            name=words(f"why.{without.cause}.name").said(units), peak_c=round(there, 1), adds_k=round(now - there, 1),
            without=without.told.said(units),
        ))
    causes.sort(key=lambda cause: -cause.adds_k)
    told = [words("why.cause", name=one.name, adds=one.adds_k) for one in causes if one.adds_k >= TOLD_K]
    sentence = words("why.of", peak=now, causes=told[:MOST_TOLD]) if told else words("why.cool", peak=now)
    return Why(pour_number=pour_number, peak_c=round(now, 1), causes=causes, sentence=sentence.said(units))


def _peak_c(book: Book, number: int) -> float:
    cure = book.ask(HEAT).cures[number - 1]
    return cure.peak_c if cure is not None else float("nan")


@dataclass(frozen=True, slots=True)
class _Without:
    """A scene without one cause, and how that is told."""

    cause: str
    scene: Scene
    told: Words


def _without(scene: Scene, number: int) -> list[_Without]:
    """The scene without each cause that it has."""
    tries = (_half_as_deep, _gentle_resin, _cool_room, _wooden_base, _plaster_bed, _cold_below, _with_fan)
    found = []
    for one in tries:
        made = one(scene, number)
        if made is not None:
            found.append(made)
    return found


def _half_as_deep(scene: Scene, number: int) -> _Without | None:
    pour = scene.pours[number - 1]
    below = scene.pours[number - 2].top_depth_mm if number > 1 else scene.tank.fill_height_mm
    if below - pour.top_depth_mm < LEAST_HALVED_MM:
        return None
    half = pour.model_copy(update={"id": "half", "top_depth_mm": round((pour.top_depth_mm + below) / 2, 2)})
    upper = pour.model_copy(update={"wait_h": TEN_DAYS_H})
    pours = [*scene.pours[: number - 1], half, upper, *_later(scene, number)]
    return _Without("depth", _with_pours(scene, pours), words("why.depth.without"))


def _gentle_resin(scene: Scene, number: int) -> _Without | None:
    pour = scene.pours[number - 1]
    gentle = next((one for one in scene.resins if one.id == GENTLE), load_library().resins[GENTLE])
    if pour.resin_id == gentle.id:
        return None
    resins = [*(one for one in scene.resins if one.id != gentle.id), gentle]
    changed = pour.model_copy(update={"resin_id": gentle.id})
    pours = [*scene.pours[: number - 1], changed, *scene.pours[number:]]
    without = scene.model_copy(update={"resins": resins, "pours": pours})
    return _Without("resin", without, words("why.resin.without", resin=gentle.name))


def _cool_room(scene: Scene, _: int) -> _Without | None:
    room = scene.brief.room
    if max(room.day_c, room.night_c) <= COOL_ROOM_C and room.warm_box_c is None:
        return None
    cooler: dict[str, object] = {
        "day_c": min(room.day_c, COOL_ROOM_C), "night_c": min(room.night_c, COOL_ROOM_C), "warm_box_c": None,
    }
    pours = [one.model_copy(update={"mix_c": min(one.mix_c, COOL_ROOM_C)}) for one in scene.pours]
    cool = _with_pours(_with_room(scene, cooler), pours)
    return _Without("room", cool, words("why.room.without", room_c=COOL_ROOM_C))


def _wooden_base(scene: Scene, _: int) -> _Without | None:
    base = scene.tank.base
    if base.material.conductivity_w_mk >= FOAM_W_MK:
        return None
    wooden = base.model_copy(update={"material": load_library().solids["wood"]})
    tank = scene.tank.model_copy(update={"base": wooden})
    return _Without("foam_base", scene.model_copy(update={"tank": tank}), words("why.foam_base.without"))


def _plaster_bed(scene: Scene, _: int) -> _Without | None:
    if scene.bed.material.conductivity_w_mk >= FOAM_W_MK:
        return None
    bed = scene.bed.model_copy(update={"material": load_library().solids["plaster"]})
    return _Without("foam_bed", scene.model_copy(update={"bed": bed}), words("why.foam_bed.without"))


def _cold_below(scene: Scene, number: int) -> _Without | None:
    if number == 1:
        return None
    cold = [
        one.model_copy(update={"wait_h": TEN_DAYS_H if at == number - 1 else one.wait_h})
        for at, one in enumerate(scene.pours)
    ]
    return _Without("below", _with_pours(scene, cold), words("why.below.without"))


def _with_fan(scene: Scene, _: int) -> _Without | None:
    if scene.brief.room.fan:
        return None
    return _Without("still_air", _with_room(scene, {"fan": True}), words("why.still_air.without"))


def _later(scene: Scene, number: int) -> list[Pour]:
    return [pour.model_copy(update={"wait_h": max(pour.wait_h, 1.0)}) for pour in scene.pours[number:]]


def _with_pours(scene: Scene, pours: list[Pour]) -> Scene:
    return scene.model_copy(update={"pours": pours})


def _with_room(scene: Scene, changes: dict[str, object]) -> Scene:
    room = scene.brief.room.model_copy(update=changes)
    return scene.model_copy(update={"brief": scene.brief.model_copy(update={"room": room})})
