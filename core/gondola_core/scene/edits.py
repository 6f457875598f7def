"""Every change of a scene that Gondola itself proposes or that takes more than one field: once, here.

An edit is a JSON Patch (RFC 6902) that begins with `test` operations on the ids it touches, and carries
the digest of the document it was made from. On another document it still fits by id, or it is refused.
"""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import jsonpatch

from ..digests import digest
from ..errors import GondolaError
from ..materials import Colourant
from ..part import Part
from ..words import Words, words
from . import Figure, Place, Pour, Scene, Tank
from .document import MOST_FIGURES
from .order import KeptStep
from .reading import scene_from

USUAL_WAIT_H = 30.0
"""Wait before a new pour where no tack window is known yet. Source: assumed"""
VENT_MM = 3.0
"""Hole through which resin and air pass each other. Source: own_geometry"""
WARMEST_ROOM_C = 45.0
"""degrees C; no room is asked to be warmer. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Operation:
    """One step of a JSON Patch."""

    op: str
    path: str
    value: Any


@dataclass(frozen=True, slots=True, kw_only=True)
class Edit:
    """A change of one document: its words, the patch, and the digest of that document."""

    words: Words
    operations: list[Operation]
    digest: str


def edit(scene: Scene, label: Words, touches: Sequence[str], *changes: Operation) -> Edit:
    """An edit of a scene.

    touches  paths of the list entries that it changes, such as "/pours/1": their ids are tested first
    """
    tests = [Operation(op="test", path=f"{path}/id", value=_id_at(scene, path)) for path in touches]
    return Edit(words=label, operations=[*tests, *changes], digest=digest(scene))


def _id_at(scene: Scene, path: str) -> Any:
    """The id of a list entry, without writing the whole document out."""
    part: Any = scene
    for step in path.strip("/").split("/"):
        part = part[int(step)] if isinstance(part, Sequence) else getattr(part, step)
    return part.id


def replaced(path: str, value: Any) -> Operation:
    """Put a value in the place of another."""
    return Operation(op="replace", path=path, value=value)


def instead(path: str, was: Any, value: Any) -> list[Operation]:
    """Put a value in the place of one that has to be there still: for lists that are replaced as a whole."""
    return [Operation(op="test", path=path, value=was), replaced(path, value)]


def apply_edit(scene: Scene, operations: Sequence[Operation], made_from: str) -> Scene:
    """The scene with an edit made; GondolaError where it no longer fits.

    made_from  digest of the document that the edit was made from

    On that document the patch runs as it is. On another its list places are found anew by the ids that
    it tests; what is gone, or was changed where the edit replaces the whole, refuses it.
    """
    document = scene.model_dump(mode="json")
    if digest(scene) != made_from:
        operations = _found_anew(document, operations)
    try:
        changed = jsonpatch.apply_patch(document, [_plain(one) for one in operations])
    except (jsonpatch.JsonPatchException, jsonpatch.JsonPointerException):
        raise GondolaError(words("refusals.edit_gone")) from None
    return scene_from(changed)


_ENTRY = re.compile(r"^/(pours|figures|resins|colourants)/(\d+)(?=/|$)")


def _found_anew(document: dict[str, Any], operations: Sequence[Operation]) -> list[Operation]:
    """The same operations with their list places as they are in another document."""
    moved: dict[str, str] = {}
    for one in operations:
        place = _ENTRY.match(one.path)
        if one.op == "test" and place and one.path.endswith("/id"):
            ids = [entry["id"] for entry in document[place[1]]]
            if one.value not in ids:
                raise GondolaError(words("refusals.edit_gone"))
            moved[place[0]] = f"/{place[1]}/{ids.index(one.value)}"
    found = []
    for one in operations:
        place = _ENTRY.match(one.path)
        path = moved.get(place[0], place[0]) + one.path[len(place[0]):] if place else one.path
        found.append(Operation(op=one.op, path=path, value=one.value))
    return found


def _plain(one: Operation) -> dict[str, Any]:
    return {"op": one.op, "path": one.path, "value": one.value}


def _dumped(parts: Sequence[Part]) -> list[dict[str, object]]:
    return [part.model_dump(mode="json") for part in parts]


# Pours


def _with_pours(scene: Scene, label: Words, pours: Sequence[Pour]) -> Edit:
    """All pours in place of those that are there, which have to be the same still."""
    return Edit(
        words=label, digest=digest(scene),
        operations=instead("/pours", _dumped(scene.pours), _dumped(pours)),
    )


def split_pour(scene: Scene, number: int, depth_mm: float, wait_h: float | None, parts: int = 2) -> Edit:
    """Pour it in equal parts of depth, each into the tack window of the one below; GondolaError if there is none.

    depth_mm  of its liquid
    wait_h    middle of that window if known
    """
    _check_pour(scene, number)
    pour = scene.pours[number - 1]
    wait = float(round(wait_h if wait_h is not None else USUAL_WAIT_H))
    ids = spare_pour_ids(scene, parts - 1)
    lower = [
        pour.model_copy(update={
            "id": key, "top_depth_mm": round(pour.top_depth_mm + depth_mm * (parts - at) / parts, 1),
            "wait_h": pour.wait_h if at == 1 else wait,
        })
        for at, key in enumerate(ids, start=1)
    ]
    upper = pour.model_copy(update={"wait_h": wait})
    pours = [*scene.pours[: number - 1], *lower, upper, *scene.pours[number:]]
    label = words(
        "remedies.split" if parts == 2 else "remedies.split_more", depth=depth_mm / parts, wait_h=wait, parts=parts
    )
    return _with_pours(scene, label, pours)


def take_pour_out(scene: Scene, number: int) -> Edit:
    """What it filled falls to the pour above it, or to the one below at the top; GondolaError for the last one."""
    _check_pour(scene, number)
    if len(scene.pours) < 2:
        raise GondolaError(words("refusals.last_pour"))
    pours = [pour for at, pour in enumerate(scene.pours) if at != number - 1]
    pours[-1] = pours[-1].model_copy(update={"top_depth_mm": 0.0})
    return _with_pours(scene, words("remedies.take_pour_out", pour=number), pours)


def stage_pours(scene: Scene, label: Words, pours: Sequence[Pour], *more: Operation) -> Edit:
    """Other pours in place of those that are there, and what goes with them."""
    made = _with_pours(scene, label, pours)
    return Edit(words=label, digest=made.digest, operations=[*made.operations, *more])


def set_wait(scene: Scene, number: int, wait_h: float) -> Edit:
    """Wait so long after the pour before."""
    wait, path = float(round(wait_h)), f"/pours/{number - 1}"
    label = words("remedies.wait", wait_h=wait, was_h=scene.pours[number - 1].wait_h)
    return edit(scene, label, [path], replaced(f"{path}/wait_h", wait))


def cooler_mix(scene: Scene, number: int, mix_c: float) -> Edit:
    """Mix a pour cooler."""
    path = f"/pours/{number - 1}"
    label = words("remedies.cooler_mix", mix_c=mix_c, was_c=scene.pours[number - 1].mix_c)
    return edit(scene, label, [path], replaced(f"{path}/mix_c", mix_c))


def _check_pour(scene: Scene, number: int) -> None:
    if not 1 <= number <= len(scene.pours):
        raise GondolaError(words("refusals.no_pour", most=len(scene.pours), number=number), "number")


def spare_pour_ids(scene: Scene, count: int) -> list[str]:
    """So many ids that no pour of the scene has."""
    taken = {pour.id for pour in scene.pours}
    return [f"pour-{n}" for n in range(1, len(taken) + count + 1) if f"pour-{n}" not in taken][:count]


# Doses


def even_dose(scene: Scene, number: int) -> Edit:
    """Dose the pour below a line half way towards the one above it."""
    lower, upper = scene.pours[number - 1], scene.pours[number]
    above = {dose.colourant_id: dose.dose_drops_per_100g for dose in upper.doses}
    below = {dose.colourant_id: dose.dose_drops_per_100g for dose in lower.doses}
    doses = [
        {
            "colourant_id": key,
            "dose_drops_per_100g": round(0.5 * (above.get(key, 0.0) + below.get(key, 0.0)), 3),
        }
        for key in dict.fromkeys([*below, *above])
    ]
    path = f"/pours/{number - 1}"
    label = words("remedies.even_dose", pour=number, above=number + 1)
    return edit(scene, label, [path], *instead(f"{path}/doses", _dumped(lower.doses), doses))


def thinner_dose(scene: Scene, number: int, place: int, drops: float) -> Edit:
    """Less of one colourant in a pour."""
    path = f"/pours/{number - 1}"
    dose = scene.pours[number - 1].doses[place]
    name = next(one.name for one in scene.colourants if one.id == dose.colourant_id)
    label = words("remedies.thinner_dose", drops=drops, name=name)
    thinner = dose.model_copy(update={"dose_drops_per_100g": drops}).model_dump(mode="json")
    return edit(scene, label, [path], *instead(f"{path}/doses/{place}", dose.model_dump(mode="json"), thinner))


def take_dose_out(scene: Scene, number: int, colourant_id: str) -> Edit:
    """None of one colourant in a pour."""
    path = f"/pours/{number - 1}"
    doses = scene.pours[number - 1].doses
    rest = _dumped([one for one in doses if one.colourant_id != colourant_id])
    return edit(scene, words("remedies.take_out"), [path], *instead(f"{path}/doses", _dumped(doses), rest))


def dose_water(
    scene: Scene, colourants: Sequence[Colourant], by_pour: Sequence[Sequence[tuple[str, float]]]
) -> Edit:
    """Other doses in every pour, each (colourant, drops per 100 g), and the colourants that they need."""
    held = {one.id: one for one in scene.colourants} | {one.id: one for one in colourants}
    changes = instead("/colourants", _dumped(scene.colourants), _dumped(list(held.values())))
    for at, (pour, doses) in enumerate(zip(scene.pours, by_pour, strict=True)):
        value = [{"colourant_id": key, "dose_drops_per_100g": drops} for key, drops in doses]
        changes += instead(f"/pours/{at}/doses", _dumped(pour.doses), value)
    return edit(scene, words("remedies.dose_water"), [f"/pours/{at}" for at in range(len(by_pour))], *changes)


# Bed, room, dam


def seal_bed(scene: Scene) -> Edit:
    """Seal the bed before anything is poured."""
    return edit(scene, words("remedies.seal"), [], replaced("/bed/sealed", True))


def order_work(scene: Scene, ids: Sequence[str], moved: Words, before: Words) -> Edit:
    """The steps of the work in another order, one of them moved."""
    names = {one.id: one.name for one in scene.order}
    steps = [KeptStep(id=key, name=names.get(key, "")).model_dump(mode="json") for key in ids]
    label = words("remedies.order", moved=moved, before=before)
    return edit(scene, label, [], *instead("/order", [one.model_dump(mode="json") for one in scene.order], steps))


def cover_it(scene: Scene) -> Edit:
    """Keep dust off each pour while it sets."""
    return edit(scene, words("remedies.cover"), [], replaced("/brief/habits/covered", True))


def warm_room(scene: Scene, night_c: float) -> Edit:
    """Keep the room warmer at night."""
    night = min(night_c, WARMEST_ROOM_C)
    changes = [replaced("/brief/room/night_c", night)]
    if scene.brief.room.day_c < night:
        changes.append(replaced("/brief/room/day_c", night))
    return edit(scene, words("remedies.warm_room", night_c=night), [], *changes)


def thicker_sheet(scene: Scene, thickness_mm: float) -> Edit:
    """A dam of thicker sheet."""
    label = words("remedies.thicker_sheet", thick=thickness_mm)
    return edit(scene, label, [], replaced("/tank/wall/thickness_mm", thickness_mm))


def wax_walls(scene: Scene) -> Edit:
    """Wax, so that the walls let go."""
    return edit(scene, words("remedies.wax"), [], replaced("/tank/release", "wax"))


def walls_stay(scene: Scene) -> Edit:
    """The walls as part of the piece."""
    return edit(scene, words("remedies.walls_stay"), [], replaced("/tank/walls_stay", True))


def fill_to(scene: Scene, tank: Tank, pours: Sequence[Pour], figures: Sequence[Figure]) -> Edit:
    """Another fill line, with the walls that hold it, the pours that reach it, and the figures on their lines."""
    label = words("remedies.fill_line", fill=tank.fill_height_mm, walls=tank.wall_height_mm, pours=len(pours))
    changes = [
        *instead("/tank", scene.tank.model_dump(mode="json"), tank.model_dump(mode="json")),
        *instead("/pours", _dumped(scene.pours), _dumped(pours)),
    ]
    moved = [(at, one) for at, (one, was) in enumerate(zip(figures, scene.figures, strict=True)) if one != was]
    for at, one in moved:
        was, place = scene.figures[at].place, one.place
        changes += instead(f"/figures/{at}/place", was.model_dump(mode="json"), place.model_dump(mode="json"))
    return edit(scene, label, [f"/figures/{at}" for at, _ in moved], *changes)


# Figures


def _figure(scene: Scene, figure_id: str) -> tuple[str, Figure]:
    """Its path and itself; GondolaError if there is none."""
    for at, figure in enumerate(scene.figures):
        if figure.id == figure_id:
            return f"/figures/{at}", figure
    raise GondolaError(words("refusals.no_figure", id=figure_id), "figure_id")


def change_figure(scene: Scene, figure_id: str, label: Words, field: str, value: Any) -> Edit:
    """One field of a figure."""
    path, _ = _figure(scene, figure_id)
    return edit(scene, label, [path], replaced(f"{path}/{field}", value))


def hold_figure(scene: Scene, figure_id: str, way: str, name: Words) -> Edit:
    """Hold a figure in another way, by its code and its name."""
    return change_figure(scene, figure_id, words("remedies.hold", way=name), "holding", way)


def drop_to_bed(scene: Scene, figure_id: str, rests_mm: float) -> Edit:
    """Lower a figure until it touches the bed."""
    return change_figure(scene, figure_id, words("remedies.drop"), "place/height_mm", round(rests_mm, 1))


def prefill_figure(scene: Scene, figure_id: str) -> Edit:
    """Brush the hollows of a figure full before the pour."""
    return change_figure(scene, figure_id, words("remedies.prefill"), "prefilled", True)


def vent_figure(scene: Scene, figure_id: str, at_mm: Sequence[float]) -> Edit:
    """Drill a hole in a figure, at a place in its own frame."""
    path, _ = _figure(scene, figure_id)
    vent = {"at_mm": [round(float(value), 2) for value in at_mm], "width_mm": VENT_MM}
    added = Operation(op="add", path=f"{path}/vents/-", value=vent)
    return edit(scene, words("remedies.vent", width=VENT_MM), [path], added)


def tilt_figure(scene: Scene, figure_id: str, field: str, whole_deg: float, by_deg: float, left_ml: float) -> Edit:
    """Turn a figure about its length or across it until its air is gone."""
    way = {
        "tilt_deg": ("remedies.way.nose_up", "remedies.way.nose_down"),
        "roll_deg": ("remedies.way.left", "remedies.way.right"),
    }[field][0 if by_deg > 0 else 1]
    label = words("remedies.tilt", by=abs(by_deg), way=words(way), left=left_ml)
    return change_figure(scene, figure_id, label, field, round(whole_deg, 2))


def lamp_tested(scene: Scene, figure_id: str) -> Edit:
    """The lamp was tried and lights."""
    return change_figure(scene, figure_id, words("remedies.lamp_tested"), "lamp/tested", True)


def draft_liner(scene: Scene, figure_id: str, draft_deg: float) -> Edit:
    """Sides of a cavity that lean, so that what is in it comes out."""
    return change_figure(scene, figure_id, words("remedies.draft", draft=draft_deg), "liner/draft_deg", draft_deg)


SHOAL = (
    (1.1, 0.35, 0.12), (-1.05, 0.5, -0.1), (0.35, -0.75, 0.2), (-0.5, -0.6, -0.22), (1.9, -0.2, 0.0),
    (-1.9, -0.1, 0.15),
)
"""Places of a shoal about its first fish, in lengths of its spread."""

def shoal_of(scene: Scene, figure_id: str, count: int, spread_mm: float) -> Edit:
    """Copies of a figure with ids of their own, spread about it and kept inside the tank."""
    path, first = _figure(scene, figure_id)
    if not 1 <= count <= MOST_FIGURES - len(scene.figures):
        raise GondolaError(words("refusals.shoal", most=MOST_FIGURES))
    taken = {figure.id for figure in scene.figures}
    stem = re.sub(r"-\d+$", "", first.id)[:30]
    kind = re.sub(r"\s+\d+$", "", first.name)
    copies = []
    for index in range(count):
        number = next(n for n in range(1, len(taken) + 2) if f"{stem}-{n}" not in taken)
        taken.add(f"{stem}-{number}")
        copies.append(first.model_copy(update={
            "id": f"{stem}-{number}", "name": f"{kind} {number}"[:80],
            "turn_deg": (first.turn_deg + (index * 7) % 13 - 6 + 180) % 360 - 180,
            "place": _beside(scene, first, SHOAL[index % len(SHOAL)], spread_mm),
        }))
    added = [Operation(op="add", path="/figures/-", value=one) for one in _dumped(copies)]
    return edit(scene, words("remedies.shoal", name=first.name), [path], *added)


def _beside(scene: Scene, figure: Figure, off: tuple[float, float, float], spread_mm: float) -> Place:
    def within(value: float, most: float) -> float:
        return round(2 * min(most - 2, max(2.0, value))) / 2

    tank, place = scene.tank, figure.place
    high = place.height_mm if figure.holding == "staged" else max(0.0, place.height_mm + off[2] * spread_mm)
    return Place(
        x_mm=within(place.x_mm + off[0] * spread_mm, tank.inner_width_mm),
        behind_mm=within(place.behind_mm + off[1] * spread_mm, tank.inner_behind_mm), height_mm=high,
    )


def take_figure_out(scene: Scene, figure_id: str) -> Edit:
    """One figure less."""
    path, figure = _figure(scene, figure_id)
    return edit(scene, words("remedies.take_figure_out", name=figure.name), [path],
                Operation(op="remove", path=path, value=None))
