"""What a job can be: each kind is a study of the core, `study(scene, parameters, told) -> JSON`."""

from __future__ import annotations

import base64
import zlib
from collections.abc import Callable
from typing import Any

from pydantic import TypeAdapter

from gondola_core.checks import reader_units
from gondola_core.errors import GondolaError
from gondola_core.evaluate import FINE, evaluate, outcome_json
from gondola_core.scene import Scene, read_scene
from gondola_core.studies.stager import Staging, stage_for

Told = Callable[[float], None]
Study = Callable[[Scene, dict[str, Any], Told], bytes]
_STAGINGS = TypeAdapter(list[Staging])


def _fine_march(scene: Scene, _: dict[str, Any], told: Told) -> bytes:
    """The whole outcome on fine cells."""
    return outcome_json(evaluate(scene, FINE, progress=told), reader_units(scene.brief.units))


def _stagings(scene: Scene, parameters: dict[str, Any], told: Told) -> bytes:
    """The fewest pours that stop nothing, by room, and on twice the footprint."""
    return _STAGINGS.dump_json(stage_for(scene, parameters["resin_id"], parameters["rooms_c"], told=told))


KINDS: dict[str, Study] = {"fine_march": _fine_march, "stagings": _stagings}


def studied(kind: str, document: str, parameters: dict[str, Any], told: Told) -> dict[str, Any]:
    """What comes out of a job's payload, ready for the queue's store."""
    scene = read_scene(document)
    try:
        result = KINDS[kind](scene, parameters, told)
    except GondolaError as flaw:
        return {"state": "failed", "message": flaw.said(reader_units(scene.brief.units))}
    return {"state": "done", "result": base64.b64encode(zlib.compress(result)).decode()}
