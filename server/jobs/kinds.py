"""What a job can be: each kind is a study of the core, `study(scene, parameters, told) -> JSON`."""

from __future__ import annotations

import base64
import json
import zlib
from collections.abc import Callable
from dataclasses import dataclass
from typing import Annotated, Any

from pydantic import BaseModel, Field, TypeAdapter

from gondola_core.checks import reader_units
from gondola_core.errors import GondolaError
from gondola_core.evaluate import FINE, evaluate, outcome_json
from gondola_core.outcome import Outcome
from gondola_core.scene import Scene, read_scene
from gondola_core.studies.chances import Chances, chances
from gondola_core.studies.front import Front, Goal, front_for
from gondola_core.studies.stager import Staging, stage_for
from gondola_core.studies.stills import StillPicture, Turntable, still, turntable
from gondola_core.views.look.stand import Stand

Told = Callable[[float], None]
Study = Callable[[Scene, dict[str, Any], Told], bytes]
_STAGINGS = TypeAdapter(list[Staging])
_CHANCES = TypeAdapter(Chances)
_FRONT = TypeAdapter(Front)
_STILL = TypeAdapter(StillPicture)
_TURN = TypeAdapter(Turntable)


class Nothing(BaseModel):
    """A study that asks for no more than the scene."""


class StagingAsked(BaseModel):
    """The resin to stage with, and the rooms."""

    resin_id: str
    rooms_c: Annotated[list[float], Field(min_length=1, max_length=4)]


class ChancesAsked(BaseModel):
    """How many draws, and from which seed: the same seed gives the same answer."""

    draws_count: int = 128
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1


class PlansAsked(BaseModel):
    """The resins at hand, what matters first, and the seed: the same one finds the same plans."""

    resin_ids: Annotated[list[str], Field(min_length=1, max_length=12)]
    matters: Annotated[list[Goal], Field(max_length=5)] = []
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1


class StillAsked(BaseModel):
    """From where, and how many dots."""

    stand: Stand
    width_px: Annotated[int, Field(ge=160, le=4000)] = 1600
    height_px: Annotated[int, Field(ge=100, le=3000)] = 1000


class TurnAsked(BaseModel):
    """From how high and how far."""

    stand: Stand


@dataclass(frozen=True, slots=True)
class Kind:
    """One kind of job: what it is for, its study, what is asked besides the scene, and what comes out."""

    about: str
    study: Study
    parameters: type[BaseModel]
    result: Any


def _fine_march(scene: Scene, _: dict[str, Any], told: Told) -> bytes:
    return outcome_json(evaluate(scene, FINE, progress=told), reader_units(scene.brief.units))


def _stagings(scene: Scene, parameters: dict[str, Any], told: Told) -> bytes:
    return _STAGINGS.dump_json(stage_for(scene, parameters["resin_id"], parameters["rooms_c"], told=told))


def _chances(scene: Scene, parameters: dict[str, Any], told: Told) -> bytes:
    asked = ChancesAsked.model_validate(parameters)
    return _CHANCES.dump_json(chances(scene, asked.draws_count, asked.seed, told=told))


def _plans(scene: Scene, parameters: dict[str, Any], told: Told) -> bytes:
    asked = PlansAsked.model_validate(parameters)
    return _FRONT.dump_json(front_for(scene, asked.resin_ids, asked.matters, asked.seed, told=told))


def _still(scene: Scene, parameters: dict[str, Any], told: Told) -> bytes:
    asked = StillAsked.model_validate_json(json.dumps(parameters))
    return _STILL.dump_json(still(scene, asked.stand, (asked.width_px, asked.height_px), told))


def _turn(scene: Scene, parameters: dict[str, Any], told: Told) -> bytes:
    return _TURN.dump_json(turntable(scene, TurnAsked.model_validate_json(json.dumps(parameters)).stand, told))


KINDS: dict[str, Kind] = {
    "fine_march": Kind("The whole outcome on fine cells.", _fine_march, Nothing, Outcome),
    "stagings": Kind(
        "The fewest pours that stop nothing, by room, and on twice the footprint.", _stagings, StagingAsked,
        list[Staging],
    ),
    "chances": Kind("Bands and chances over draws of what may be off.", _chances, ChancesAsked, Chances),
    "still": Kind("A still of the finished block, with all care.", _still, StillAsked, StillPicture),
    "turntable": Kind("The finished block turned once about, as an animated WebP.", _turn, TurnAsked, Turntable),
    "plans": Kind("Ways of pouring that stop nothing, on the front of what matters.", _plans, PlansAsked, Front),
}


def studied(kind: str, document: str, parameters: dict[str, Any], told: Told) -> dict[str, Any]:
    """What comes out of a job's payload, ready for the queue's store."""
    scene = read_scene(document)
    try:
        result = KINDS[kind].study(scene, parameters, told)
    except GondolaError as flaw:
        return {"state": "failed", "message": flaw.said(reader_units(scene.brief.units))}
    return {"state": "done", "result": base64.b64encode(zlib.compress(result)).decode()}
