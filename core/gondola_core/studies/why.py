"""Why a pour gets so hot: the share of each cause, found by taking it away and marching again."""

from __future__ import annotations

from dataclasses import dataclass

from ..answers.kept import Keeper
from ..answers.scene_heat import DRAFT, scene_heat
from ..answers.scene_shape import scene_shape
from ..evaluate import KEEPER
from ..materials import load_library
from ..scene import Pour, Scene
from ..shape import Meshes, meshes_held

GENTLE = "deep"
"""Class of resin that warms least."""
COOL_ROOM_C = 18.0
"""Source: assumed"""
TEN_DAYS_H = 240.0
FOAM_W_MK = 0.08
"""Conductivity below which a base or bed counts as foam. Source: assumed"""


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
    """March the plan once as it is and once without each cause, on the draft grid."""
    shape = scene_shape(scene, meshes_held(scene, meshes), keeper)

    def peak(one: Scene, number: int = pour_number) -> float:
        cure = scene_heat(one, DRAFT, shape, keeper).cures[number - 1]
        return cure.peak_c if cure is not None else float("nan")

    now = peak(scene)
    causes = []
    for name, without, changed, number in _without(scene, pour_number):
        there = peak(changed, number)
        causes.append(
            Cause(name=name, without=without, peak_c=round(there, 1), adds_k=round(now - there, 1))
        )
    causes.sort(key=lambda cause: -cause.adds_k)
    told = [cause for cause in causes if cause.adds_k >= 1.0]
    if told:
        words = "; ".join(f"{cause.name} {cause.adds_k:.0f} K" for cause in told[:4])
        sentence = f"Of {now:.0f} °C: {words}. Taken away one at a time; they add up to more."
    else:
        sentence = f"At {now:.0f} °C it hardly warms itself."
    return Why(pour_number=pour_number, peak_c=round(now, 1), causes=causes, sentence=sentence)


def _without(scene: Scene, number: int) -> list[tuple[str, str, Scene, int]]:
    found = []
    pour = scene.pours[number - 1]
    below = scene.pours[number - 2].top_depth_mm if number > 1 else scene.tank.fill_height_mm
    middle = round((pour.top_depth_mm + below) / 2, 2)
    if below - pour.top_depth_mm >= 4:
        half = pour.model_copy(update={"id": "half", "top_depth_mm": middle})
        upper = pour.model_copy(update={"wait_h": TEN_DAYS_H})
        pours = [*scene.pours[: number - 1], half, upper, *_later(scene, number)]
        found.append(("its depth", "poured half as deep", _with_pours(scene, pours), number))
    resin = scene.resin_of(pour)
    gentle = next((one for one in scene.resins if one.id == GENTLE), load_library().resins[GENTLE])
    if resin.id != gentle.id:
        changed = pour.model_copy(update={"resin_id": gentle.id})
        resins = [*(one for one in scene.resins if one.id != gentle.id), gentle]
        pours = [*scene.pours[: number - 1], changed, *scene.pours[number:]]
        found.append(
            ("its resin", f"in {gentle.name}",
             scene.model_copy(update={"resins": resins, "pours": pours}), number)
        )
    room = scene.brief.room
    if max(room.day_c, room.night_c) > COOL_ROOM_C or room.warm_box_c is not None:
        cooler = room.model_copy(
            update={
                "day_c": min(room.day_c, COOL_ROOM_C), "night_c": min(room.night_c, COOL_ROOM_C),
                "warm_box_c": None,
            }
        )
        brief = scene.brief.model_copy(update={"room": cooler})
        cool = scene.model_copy(update={"brief": brief})
        pours = [one.model_copy(update={"mix_c": min(one.mix_c, COOL_ROOM_C)}) for one in scene.pours]
        found.append(
            ("the room and the mix", f"at {COOL_ROOM_C:g} °C", _with_pours(cool, pours), number)
        )
    if scene.tank.base.material.conductivity_w_mk < FOAM_W_MK:
        wood = load_library().solids["wood"]
        base = scene.tank.base.model_copy(update={"material": wood})
        tank = scene.tank.model_copy(update={"base": base})
        dry = scene.model_copy(update={"tank": tank})
        found.append(("the foam base", "on a wooden board", dry, number))
    if scene.bed.material.conductivity_w_mk < FOAM_W_MK:
        plaster = load_library().solids["plaster"]
        bed = scene.bed.model_copy(update={"material": plaster})
        found.append(("the foam bed", "on plaster", scene.model_copy(update={"bed": bed}), number))
    if number > 1:
        cold = [
            one.model_copy(update={"wait_h": TEN_DAYS_H if at == number - 1 else one.wait_h})
            for at, one in enumerate(scene.pours)
        ]
        later = _with_pours(scene, cold)
        found.append(("the warm pour below", "after ten days of waiting", later, number))
    if not scene.brief.room.fan:
        fan = scene.brief.model_copy(update={"room": room.model_copy(update={"fan": True})})
        found.append(("still air", "with a fan on it", scene.model_copy(update={"brief": fan}), number))
    return found


def _later(scene: Scene, number: int) -> list[Pour]:
    return [pour.model_copy(update={"wait_h": max(pour.wait_h, 1.0)}) for pour in scene.pours[number:]]


def _with_pours(scene: Scene, pours: list[Pour]) -> Scene:
    return scene.model_copy(update={"pours": pours})
