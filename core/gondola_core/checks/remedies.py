"""Edits that answer a flag, as JSON Patch on the scene document."""

from __future__ import annotations

from ..scene import Pour, Scene
from .flag import Edit, Remedy

USUAL_WAIT_H = 30.0
"""Wait before a new pour where no tack window is known yet. Source: assumed"""


def _spare_id(scene: Scene) -> str:
    taken = {pour.id for pour in scene.pours}
    return next(f"pour-{n}" for n in range(1, len(taken) + 2) if f"pour-{n}" not in taken)


def _mm(value: float) -> str:
    return f"{value:.0f}" if abs(value - round(value)) < 0.05 else f"{value:.1f}"


def split_pour(scene: Scene, number: int, depth_mm: float, wait_h: float | None) -> Remedy:
    """Pour it in two halves of depth, the second into the tack window of the first.

    depth_mm  of its liquid
    wait_h    middle of that window if known
    """
    pour = scene.pours[number - 1]
    middle = round(pour.top_depth_mm + depth_mm / 2, 1)
    wait = round(wait_h if wait_h is not None else USUAL_WAIT_H)
    lower = pour.model_copy(update={"id": _spare_id(scene), "top_depth_mm": middle})
    upper = pour.model_copy(update={"wait_h": float(wait)})
    pours = [*scene.pours[: number - 1], lower, upper, *scene.pours[number:]]
    return Remedy(
        label=f"two pours of {_mm(depth_mm / 2)} mm, {wait} h apart",
        edits=[Edit(op="replace", path="/pours", value=_plain(pours))],
    )


def set_wait(scene: Scene, number: int, wait_h: float) -> Remedy:
    """Wait so long after the pour before."""
    wait = float(round(wait_h))
    return Remedy(
        label=f"wait {wait:.0f} h, not {scene.pours[number - 1].wait_h:g}",
        edits=[Edit(op="replace", path=f"/pours/{number - 1}/wait_h", value=wait)],
    )


def cooler_mix(scene: Scene, number: int, mix_c: float) -> Remedy:
    """Mix a pour cooler."""
    return Remedy(
        label=f"mix at {mix_c:.0f} °C, not {scene.pours[number - 1].mix_c:g}",
        edits=[Edit(op="replace", path=f"/pours/{number - 1}/mix_c", value=mix_c)],
    )


def seal_bed() -> Remedy:
    """Seal the bed before anything is poured."""
    return Remedy(
        label="seal it, 24 h before", edits=[Edit(op="replace", path="/bed/sealed", value=True)]
    )


def warm_room(scene: Scene, night_c: float) -> Remedy:
    """Keep the room warmer at night."""
    night = min(night_c, 45.0)
    edits = [Edit(op="replace", path="/brief/room/night_c", value=night)]
    if scene.brief.room.day_c < night:
        edits.append(Edit(op="replace", path="/brief/room/day_c", value=night))
    return Remedy(label=f"keep the room at {night:g} °C at night", edits=edits)


def even_dose(scene: Scene, number: int) -> Remedy:
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
    return Remedy(
        label=f"tint pour {number} nearer to pour {number + 1}",
        edits=[Edit(op="replace", path=f"/pours/{number - 1}/doses", value=doses)],
    )


def _plain(pours: list[Pour]) -> list[dict[str, object]]:
    return [pour.model_dump(mode="json") for pour in pours]
