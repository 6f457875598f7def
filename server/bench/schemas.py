"""What the API takes and gives of runs; events, steps and states are the core's own."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from ninja import Schema
from pydantic import AwareDatetime, Field

from gondola_core.bench.events import AnyEvent
from gondola_core.bench.run import RunState
from gondola_core.bench.steps import BenchStep
from gondola_core.scene import Scene
from gondola_core.studies.replan import Replan
from gondola_core.studies.watching import Verdict, Watched
from gondola_core.words import Words


class RunBegun(Schema):
    """A run to begin, in the time zone of the person; a rehearsal with its seed and how quick its clock is."""

    zone: Annotated[str, Field(max_length=64)] = "UTC"
    rehearsal: bool = False
    seed: Annotated[int, Field(ge=0, le=2**31)] = 1


class RunRow(Schema):
    """A run in a list; `refused` says why one that is not over cannot be gone on with."""

    id: UUID
    rehearsal: bool
    started_at: datetime
    ended_at: datetime | None
    events_count: int
    refused: str | None = None


class Told(Schema):
    """Events of a device, in any order; each is taken in once."""

    events: Annotated[list[dict[str, Any]], Field(max_length=500)]


class Ahead(Schema):
    """The clock of a rehearsal, moved on to a moment."""

    until: AwareDatetime


class MishapMet(Schema):
    """A mishap of a rehearsal, and what is done about it."""

    mishap: Annotated[str, Field(max_length=40)]
    choice: Annotated[str, Field(max_length=40)]


class WayTaken(Schema):
    """The way in which the next pour is to be made."""

    way: Literal["planned", "in_tack", "after_hard"]


@dataclass(frozen=True, slots=True, kw_only=True)
class RunNow:
    """A run at this moment.

    now        by its own clock: the server's, or that of the rehearsal; local_now on the person's
    speed      of that clock
    number     of the last event
    trouble    what contradicts itself among the events; "" where nothing does
    """

    id: UUID
    scene_id: int
    rehearsal: bool
    started_at: datetime
    ended_at: datetime | None
    now: datetime
    local_now: Annotated[datetime, Field(json_schema_extra={"format": "local-date-time"})]
    speed: float
    number: int
    trouble: str
    state: RunState
    events: list[AnyEvent]


@dataclass(frozen=True, slots=True, kw_only=True)
class ToldChoice:
    """What can be done about a mishap."""

    id: str
    words: Words


@dataclass(frozen=True, slots=True, kw_only=True)
class ToldMishap:
    """A mishap of a rehearsal and the step at which it strikes."""

    id: str
    step_id: str
    words: Words
    choices: list[ToldChoice]


@dataclass(frozen=True, slots=True, kw_only=True)
class RunWhole:
    """The same with its plan: name, steps, what befalls a rehearsal, and where the person's clock stands."""

    name: str
    zone: str
    document: Scene
    steps: list[BenchStep]
    mishaps: list[ToldMishap]
    run: RunNow


@dataclass(frozen=True, slots=True, kw_only=True)
class Happened:
    """The scene as planned, and as it happened."""

    planned: Scene
    happened: Scene


@dataclass(frozen=True, slots=True, kw_only=True)
class Next:
    """What comes next; None before the first pour and after the last."""

    replan: Replan | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Watch:
    """A pour under its thermometer: the band, what was read, and what that means."""

    band: Watched
    at_h: list[float]
    measured_c: list[float]
    verdict: Verdict


class InstrumentState(Schema):
    """A device as it is now; of a scale the mass, of a thermometer both temperatures, None where nothing is read."""

    kind: Literal["scale", "thermometer"]
    port: int
    simulated: bool
    plugged: bool
    mass_g: float | None = None
    steady: bool = False
    overloaded: bool = False
    resin_c: float | None = None
    room_c: float | None = None


class InstrumentAt(Schema):
    """Where a device is on loopback; without a port one is simulated."""

    port: Annotated[int | None, Field(ge=1, le=65535)] = None
    run_id: UUID | None = None


class InstrumentTold(Schema):
    """A word to a device: `tare`, or what a simulated one understands."""

    line: Annotated[str, Field(min_length=1, max_length=80, pattern=r"^[a-z0-9 .-]+$")]
