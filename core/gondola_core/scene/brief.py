"""The brief: what is wanted, from where it is seen, and the room it stands and cures in."""

from __future__ import annotations

from datetime import date, datetime
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from ..errors import Flaw, GondolaError
from ..part import Key, Note, Part, bounded
from ..words import Words, words

FIRST_YEAR, LAST_YEAR = 1970, 2200
"""Years in which a piece is poured: days are counted on from there. Source: assumed"""
Side = Literal["front", "back", "left", "right", "above"]


def _odd_year(moment: date) -> Words | None:
    if FIRST_YEAR <= moment.year <= LAST_YEAR:
        return None
    return words("refusals.odd_year", first=FIRST_YEAR, last=LAST_YEAR, given=moment.year)


def check_year(moment: date, field: str) -> None:
    """GondolaError for a moment in a year in which nobody pours."""
    odd = _odd_year(moment)
    if odd is not None:
        raise GondolaError(words("refusals.flaw", flaw=odd), field)


class Units(Part):
    """In which units the person reads and types; the document itself is metric."""

    length: Literal["mm", "in"] = "mm"
    temperature: Literal["c", "f"] = "c"
    volume: Literal["ml", "floz"] = "ml"
    mass: Literal["g", "oz"] = "g"


class RoomReading(Part):
    """The room as a thermometer showed it."""

    at_h: float = bounded("moment of a reading", "h from the first pour", -1000, 10_000)
    room_c: float = bounded("measured room", "°C", -20, 60)


class Room(Part):
    """The air around the piece: warmest in the afternoon, coolest before dawn; or a warm box.

    measured  readings of the real one, which it follows while they last
    """

    day_c: float = bounded("room by day", "°C", 5, 45)
    night_c: float = bounded("room by night", "°C", 0, 45)
    spread_k: float = bounded("how far the room may be off", "K", 0, 8, default=2.0)
    fan: Annotated[bool, Field(title="fan on the piece")] = False
    warm_box_c: Annotated[
        float | None,
        Field(title="warm box", ge=18, le=60, json_schema_extra={"unit": "°C"}),
    ] = None
    measured: Annotated[list[RoomReading], Field(title="readings of the room", max_length=4000)] = []

    @property
    def mean_c(self) -> float:
        """Mean of day and night, or the warm box."""
        return 0.5 * (self.day_c + self.night_c) if self.warm_box_c is None else self.warm_box_c


HourOfDay = Annotated[float, Field(title="hour of the day", ge=0, le=24, json_schema_extra={"unit": "h"})]
Hours = Annotated[list[HourOfDay], Field(min_length=2, max_length=2)]
"""From one hour of the day to a later one."""


Day = Annotated[date, Field(title="day", strict=False)]


class FreeHours(Part):
    """When a person can stand at the bench, by the kind of day; None: not at all.

    holidays   days that are as free as a weekend
    away       days on which nobody is there
    """

    weekday: Annotated[Hours | None, Field(title="free on weekdays")] = [17.0, 22.0]
    weekend: Annotated[Hours | None, Field(title="free at weekends")] = [8.0, 22.0]
    holidays: Annotated[list[Day], Field(title="holidays", max_length=60)] = []
    away: Annotated[list[Day], Field(title="days away", max_length=60)] = []

    @model_validator(mode="after")
    def _some_hour(self) -> FreeHours:
        if self.weekday is None and self.weekend is None:
            raise Flaw(words("refusals.never_free"))
        for hours in (self.weekday, self.weekend):
            if hours is not None and hours[0] >= hours[1]:
                raise Flaw(words("refusals.free_order", start=hours[0], end=hours[1]))
        return self


class Habits(Part):
    """How the person measures and mixes: what brings bubbles in, what takes them out of cup and pour."""

    measures: Annotated[Literal["mass", "volume"], Field(title="measures by")] = "mass"
    scale_step_g: float = bounded("smallest step of the scale", "g", 0.001, 10, default=0.1)
    stirs: Annotated[Literal["slow", "brisk", "paddle"], Field(title="way of stirring")] = "slow"
    pours: Annotated[Literal["low", "high", "broken"], Field(title="way of pouring")] = "low"
    cup_ml: Annotated[
        float | None, Field(title="largest cup", ge=10, le=20_000, json_schema_extra={"unit": "ml"})
    ] = None
    scale_most_g: Annotated[
        float | None, Field(title="most that the scale takes", ge=10, le=100_000, json_schema_extra={"unit": "g"})
    ] = None
    rest_min: float = bounded("rest in the cup", "min", 0, 60, default=2.0)
    vacuum: Annotated[bool, Field(title="vacuum on the mixed cup")] = False
    pot_bar: float = bounded("pressure pot, held until hard", "bar", 0, 6, default=0.0)
    covered: Annotated[bool, Field(title="covered against dust while it sets")] = True


class Brief(Part):
    """Scale, sides that are seen, units, room, light, and when the first pour begins."""

    idea: Note = ""
    scale: Annotated[
        float,
        Field(title="scale, 1 to", ge=1, le=1000, json_schema_extra={"unit": ""}),
    ]
    viewing_sides: Annotated[
        list[Side], Field(title="sides that are seen", min_length=1, max_length=5)
    ]
    units: Units = Units()
    pieces_count: Annotated[int, Field(title="number of equal pieces", ge=1, le=500)] = 1
    room: Room
    light: Annotated[
        Literal["lamp_above", "room", "lit_from_behind", "mixed"], Field(title="light on the finished piece")
    ] = "lamp_above"
    sides: Annotated[
        Literal["polished", "sanded", "painted_white"], Field(title="side faces of the piece")
    ] = "polished"
    viewing_mm: float = bounded("distance of the eye", "mm", 100, 5000, default=400.0)
    display_years: float = bounded("years on display at which it is judged", "years", 0, 50, default=0.0)
    feather_mm: float = bounded("softness of the joins", "mm", 0, 20, default=0.0)
    owned: Annotated[list[Key], Field(title="colourants owned", max_length=24)] = []
    backdrop_srgb: Annotated[
        str, Field(title="colour behind the tank", pattern=r"^#[0-9a-f]{6}$")
    ] = "#f4f1ea"
    first_pour_at: Annotated[
        datetime, Field(title="start of the first pour", strict=False, json_schema_extra={"format": "local-date-time"})
    ]
    free: Annotated[FreeHours | None, Field(title="free hours")] = None
    quiet: Annotated[Hours | None, Field(title="quiet hours")] = None
    habits: Habits = Habits()
    deadline: Annotated[date | None, Field(title="day by which it is wanted", strict=False)] = None
    price_per_kg: Annotated[
        float | None, Field(title="price of the mixed resin", ge=0, le=10000, json_schema_extra={"unit": "per kg"})
    ] = None
    budget: Annotated[float | None, Field(title="most that the resin may cost", ge=0, le=1_000_000)] = None

    @field_validator("first_pour_at")
    @classmethod
    def _in_a_year_that_is_lived_in(cls, moment: datetime) -> datetime:
        odd = _odd_year(moment)
        if odd is not None:
            raise Flaw(odd)
        return moment

    @property
    def first_view(self) -> Literal["front", "above"]:
        """The view that shows the piece as it is mostly seen."""
        return "above" if self.viewing_sides[0] == "above" else "front"
