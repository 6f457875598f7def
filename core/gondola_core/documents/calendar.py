"""The plan on real dates: pours, windows and the end of the dam as iCalendar, with alarms in the person's zone."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Alarm, Calendar, Event

from ..answers.pours import PourOutcome
from ..outcome import Outcome
from ..scene import Scene
from ..scene.schedule import hour_of, is_quiet
from ..words import METRIC, ReaderUnits, Words, words

BEFORE = (timedelta(hours=1), timedelta(0))
"""Alarms before each pour: an hour, and as it begins. Source: assumed"""
MOMENT = timedelta(minutes=15)
"""A moment in a calendar is drawn so long. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Almanac:
    """What all entries share.

    zone     in which the plan's clock is
    stamped  when it is written, with its zone
    key      of the scene, so that a calendar that has it already moves its entries
    """

    zone: ZoneInfo
    stamped: datetime
    key: str
    units: ReaderUnits = METRIC


def calendar_of(
    scene: Scene, outcome: Outcome, almanac: Almanac, chances: Sequence[float | None] = ()
) -> bytes:
    """The calendar of a plan.

    chances  of each pour's tack being met by the next one, where they were drawn
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Gondola//plan//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", scene.name)
    for index, pour in enumerate(outcome.pours):
        chance = chances[index - 1] if 0 < index <= len(chances) else None
        calendar.add_component(_pour(scene, pour, chance, almanac))
        if pour.clock.tack_opens_at and pour.clock.tack_closes_at and index + 1 < len(outcome.pours):
            calendar.add_component(_window(pour, pour.clock.tack_opens_at, pour.clock.tack_closes_at, almanac))
    if outcome.whole.demould_at is not None:
        start = _moment(outcome.whole.demould_at, almanac)
        calendar.add_component(_event("out", words("calendar.out"), start, start + MOMENT, almanac))
    calendar.add_missing_timezones()
    return bytes(calendar.to_ical())


def _moment(text: str, almanac: Almanac) -> datetime:
    return datetime.fromisoformat(text).replace(tzinfo=almanac.zone)


def _event(name: str, title: Words, start: datetime, end: datetime, almanac: Almanac) -> Event:
    event = Event()
    event.add("uid", f"{name}.{almanac.key}@gondola")
    event.add("dtstamp", almanac.stamped)
    event.add("summary", title.said(almanac.units))
    event.add("dtstart", start)
    event.add("dtend", end)
    return event


def _pour(scene: Scene, pour: PourOutcome, chance: float | None, almanac: Almanac) -> Event:
    title = words("calendar.pour", pour=pour.number, mass=pour.cup.mix.mix_g, name=scene.name)
    start = _moment(pour.clock.starts_at, almanac)
    event = _event(pour.id, title, start, start + timedelta(minutes=pour.hands.planned_min), almanac)
    said = [words("calendar.hands", minutes=pour.hands.planned_min, working=pour.hands.working_min)]
    if pour.number > 1:
        said.append(words("calendar.feel", below=pour.number - 1))
    if chance is not None:
        said.append(words("calendar.chance", count=round(100 * chance)))
    said.append(words("steps.gloves_caution"))
    event.add("description", "\n".join(one.said(almanac.units) for one in said))
    for before in BEFORE:
        if is_quiet(hour_of(start - before), scene.brief.quiet):
            continue
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", title.said(almanac.units))
        alarm.add("trigger", -before)
        event.add_component(alarm)
    return event


def _window(pour: PourOutcome, opens: str, closes: str, almanac: Almanac) -> Event:
    """When the next pour bonds: free in the calendar, so that it takes nobody's time."""
    title = words("calendar.tack", pour=pour.number)
    event = _event(f"tack-{pour.id}", title, _moment(opens, almanac), _moment(closes, almanac), almanac)
    event.add("transp", "TRANSPARENT")
    early, late = pour.clock.opens_early_at, pour.clock.opens_late_at
    if early and late:
        may = words("calendar.may_open", early=early.replace("T", ", "), late=late.replace("T", ", "))
        event.add("description", may.said(almanac.units))
    return event
