"""What really happened at the bench: each event once, with its moment; what was undone stays, and counts no more."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field, ValidationError

from ..errors import SceneError
from ..part import Key, Note, Part, bounded
from ..scene import problems_of

EventId = Annotated[str, Field(title="id of an event", pattern=r"^[0-9a-zA-Z-]{8,40}$")]
StepName = Annotated[str, Field(title="step", max_length=120)]
Feels = Literal["strings", "prints", "marks", "dry"]
"""What a gloved finger finds: it draws strings, takes a print, is only marked by a nail, or is dry."""


class Event(Part):
    """What all events have.

    at       by the server's clock, with its zone
    step_id  the step of the run that it belongs to; "" for none
    device   which one it was entered on
    number   its place in the run, as the server took them in
    seen     number of the last event that the device had seen when it was entered
    """

    id: EventId
    at: Annotated[AwareDatetime, Field(title="moment of an event", strict=False)]
    step_id: StepName = ""
    device: Annotated[str, Field(title="device", max_length=40)] = ""
    number: Annotated[int, Field(title="number of an event", ge=0)] = 0
    seen: Annotated[int, Field(title="events seen", ge=0)] = 0


class Done(Event):
    """A step is over."""

    kind: Literal["done"]


class PartWeighed(Event):
    """So much of a part came into a cup; what comes after to put it right is another event."""

    kind: Literal["weighed"]
    pour_id: Key
    cup: Annotated[int, Field(title="cup", ge=1, le=200)]
    part: Literal["a", "b"]
    mass_g: float = bounded("what was weighed", "g", -50_000, 50_000)


class ColourDropped(Event):
    """So much of a colourant, as drops of it neat, came into a cup, and the part A of its stock with it."""

    kind: Literal["dropped"]
    pour_id: Key
    cup: Annotated[int, Field(title="cup", ge=1, le=200)]
    colourant_id: Key
    neat_drops: float = bounded("drops of a colourant", "drops", 0, 10_000)
    part_a_g: float = bounded("part A of a stock", "g", 0, 50_000, default=0.0)


class TemperatureRead(Event):
    """A temperature that was read: of the room, of the mix as it is poured, of the resin as it sets."""

    kind: Literal["measured"]
    what: Literal["room", "mix", "resin"]
    pour_id: Key | None = None
    measured_c: float = bounded("measured temperature", "°C", -20, 350)


class Met(Event):
    """Part A and part B have met in a cup: its clock starts."""

    kind: Literal["met"]
    pour_id: Key
    cup: Annotated[int, Field(title="cup", ge=1, le=200)]


class Pouring(Event):
    """A pour begins to run into the tank."""

    kind: Literal["pouring"]
    pour_id: Key


class Poured(Event):
    """A pour is in. `line_depth_mm` where its line was measured, from the fill line as planned."""

    kind: Literal["poured"]
    pour_id: Key
    piece: Annotated[int, Field(title="piece", ge=1, le=500)] = 1
    line_depth_mm: Annotated[
        float | None, Field(title="measured line", ge=-50, le=600, json_schema_extra={"unit": "mm"})
    ] = None


class Sealed(Event):
    """The bed was sealed, or was found not to be."""

    kind: Literal["sealed"]
    sealed: bool


class Flamed(Event):
    """A flame or a heat gun was passed over a pour."""

    kind: Literal["flamed"]
    pour_id: Key


class Felt(Event):
    """What a finger found on a pour."""

    kind: Literal["felt"]
    pour_id: Key
    feels: Feels


class Abraded(Event):
    """The face of a hard pour was roughened and wiped."""

    kind: Literal["abraded"]
    pour_id: Key


class Placed(Event):
    """A figure was set; `left_out` where it was not to be."""

    kind: Literal["placed"]
    figure_id: Key
    left_out: bool = False


class Levelled(Event):
    """How far the tank is off level: by how much its right side, and its front, lie lower."""

    kind: Literal["levelled"]
    right_lower_mm: float = bounded("right side lower", "mm", -30, 30)
    front_lower_mm: float = bounded("front lower", "mm", -30, 30)


class Degassed(Event):
    """Air was drawn out under vacuum: of the mixed cup, or of the filled dam."""

    kind: Literal["degassed"]
    pour_id: Key
    vessel: Literal["cup", "dam"]


class Demoulded(Event):
    """The dam came off."""

    kind: Literal["demoulded"]


class Noted(Event):
    """Free words."""

    kind: Literal["noted"]
    text: Note
    pour_id: Key | None = None


class Struck(Event):
    """In a rehearsal: a mishap, and what was done about it."""

    kind: Literal["struck"]
    mishap: Annotated[str, Field(title="mishap", max_length=40)]
    choice: Annotated[str, Field(title="choice", max_length=40)]


class Undone(Event):
    """Another event is taken back; itself undone, that one counts again."""

    kind: Literal["undone"]
    event_id: EventId


AnyEvent = Annotated[
    Done | PartWeighed | ColourDropped | TemperatureRead | Met | Pouring | Poured | Sealed | Flamed | Felt | Abraded
    | Placed | Levelled | Degassed | Demoulded | Noted | Struck | Undone,
    Field(discriminator="kind"),
]
MOST_EVENTS = 20_000
"""Events of a run: some ten days of a thermometer's minutes, and all that hands do."""


class EventList(Part):
    """All events of a run."""

    events: Annotated[list[AnyEvent], Field(title="events of a run", max_length=MOST_EVENTS)]


class SentEvents(Part):
    """Events as a device sends them at once."""

    events: Annotated[list[AnyEvent], Field(title="events", max_length=500)]


def read_events(bodies: Sequence[object]) -> list[AnyEvent]:
    """Events from what a device sent; SceneError names the field of one that cannot be read."""
    return _read(SentEvents, bodies)


def kept_events(bodies: Sequence[object]) -> list[AnyEvent]:
    """All events of a run as they are kept; SceneError names the field of one that is no longer taken."""
    return _read(EventList, bodies)


def _read(many: type[EventList | SentEvents], bodies: Sequence[object]) -> list[AnyEvent]:
    try:
        return many.model_validate({"events": list(bodies)}).events
    except ValidationError as flaws:
        plain = [{**flaw, "loc": (*flaw["loc"][:2], *flaw["loc"][3:])} for flaw in flaws.errors()]
        raise SceneError(problems_of(plain, many)) from None


def standing(events: Sequence[AnyEvent]) -> list[AnyEvent]:
    """Those that count, in the order in which they happened; an id that comes twice counts once."""
    in_order = sorted({one.id: one for one in events}.values(), key=lambda one: (one.at, one.id))
    gone: set[str] = set()
    for one in reversed(in_order):
        if isinstance(one, Undone) and one.id not in gone:
            gone.add(one.event_id)
    return [one for one in in_order if one.id not in gone and not isinstance(one, Undone)]


def newest(events: Sequence[AnyEvent]) -> datetime | None:
    """When the last of them was; None without any."""
    return max((one.at for one in events), default=None)
