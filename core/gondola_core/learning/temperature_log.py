"""A thermometer's file, whatever wrote it: times and temperatures of a cup or a pour, and of the room."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from ..errors import GondolaError
from ..words import Words, words

Array = NDArray[np.float64]
Scale = Literal["c", "f"]

MOST_BYTES, MOST_ROWS = 8 * 2**20, 400_000
FEWEST = 8
"""Readings below which nothing is learnt. Source: assumed"""
ERROR_BELOW_C, ERROR_ABOVE_C = -20.0, 350.0
"""What lies outside is a code of the instrument, not a temperature. Source: own_learning"""
ASK_ABOVE = 45.0
"""A first reading above this without a unit may be Fahrenheit. Source: own_learning"""
WINDOW, MADS, LEAST_SPIKE_K = 7, 6.0, 1.0
"""A reading so many deviations off the median of its window is a spike. Source: hampel1974"""
MAD_TO_SD = 1.4826
"""Of a normal law. Source: definition"""
MIDNIGHT_H = 12.0
"""A clock that falls back by more than this has passed midnight. Source: assumed"""
LONGEST_H = 24.0 * 60
"""Source: assumed"""
DATE_TIMES = (
    "%Y-%m-%d %H:%M:%S", "%Y-%m-%d %H:%M", "%Y/%m/%d %H:%M:%S", "%Y/%m/%d %H:%M", "%d.%m.%Y %H:%M:%S",
    "%d.%m.%Y %H:%M", "%d/%m/%Y %H:%M:%S", "%d/%m/%Y %H:%M", "%d-%m-%Y %H:%M:%S", "%d-%m-%Y %H:%M",
)
"""How loggers write a moment; a day goes before its month unless the year comes first."""
UNITS_H = {"h": 1.0, "min": 1 / 60, "s": 1 / 3600}
TIME_NAME = re.compile(r"time|elapsed|\bt\b|^t_|hour|minute|second", re.IGNORECASE)
ROOM_NAME = re.compile(r"room|air|ambient|amb\b|outside", re.IGNORECASE)
SCALE_NAME = {
    "f": re.compile(r"°\s*f\b|\bdeg\s*f\b|[(\[_ ]f[)\]]?$|fahrenheit", re.IGNORECASE),
    "c": re.compile(r"°\s*c\b|\bdeg\s*c\b|[(\[_ ]c[)\]]?$|celsius", re.IGNORECASE),
}
UNIT_NAME = {
    "h": re.compile(r"\bh\b|hour|_h$", re.IGNORECASE),
    "min": re.compile(r"\bmin|minute|_min$", re.IGNORECASE),
    "s": re.compile(r"\bs\b|sec|_s$", re.IGNORECASE),
}


@dataclass(frozen=True, slots=True, kw_only=True)
class TemperatureLog:
    """Readings in rising time, spikes and codes left out.

    at_h         (n,) from the first reading
    measured_c   (n,) of the cup or the pour
    room_c       (n,) of a second thermometer; None where there was none
    dropped      rows that are no readings; spikes_count, what was taken out as spikes and codes
    """

    at_h: list[float]
    measured_c: list[float]
    room_c: list[float] | None
    dropped_count: int
    spikes_count: int
    words: list[Words]


def read_log(text: str, scale: Scale | None = None) -> TemperatureLog:
    """A log from CSV: comma, semicolon or tab, decimal comma, any order of columns, seconds to date-times.

    scale  where its header does not say °C or °F
    GondolaError names what cannot be read, and asks for the scale where it may be either.
    Source: own_learning
    """
    if len(text) > MOST_BYTES:
        raise GondolaError(words("learning.log_large", most=MOST_BYTES // 2**20), "log")
    rows, header = _rows(text)
    times, used = _times(rows, header)
    columns = _temperatures(rows, header, used)
    if not columns:
        raise GondolaError(words("learning.no_column"), "log")
    order, kept, dropped = _in_order(times, columns)
    at_h = times[order] - times[order][0]
    values = _celsius([column[order] for column in kept], list(columns), header, scale)
    return _told(at_h, values, [header[name] if header else "" for name in columns], dropped)


def _rows(text: str) -> tuple[list[list[str]], list[str]]:
    """Fields of each row, and the header; empty where there is none."""
    plain = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").replace("\x00", "")
    lines = [line for line in plain.split("\n") if line.strip()]
    if len(lines) > MOST_ROWS:
        raise GondolaError(words("learning.log_rows", most=MOST_ROWS), "log")
    sample = lines[:40]
    delimiter = max(";\t,", key=lambda one: (sum(one in line for line in sample) >= len(sample) / 2, one != ","))
    try:
        read = csv.reader(io.StringIO("\n".join(lines)), delimiter=delimiter)
        rows = [[field.strip() for field in row] for row in read]
    except csv.Error:
        raise GondolaError(words("learning.log_broken"), "log") from None
    first = next((at for at, row in enumerate(rows[:40]) if sum(_number(one) is not None for one in row) >= 1
                  and not any(re.match(r"^[A-Za-z°(\[]", one) for one in row if one)), None)
    if first is None:
        raise GondolaError(words("learning.no_numbers"), "log")
    width = max(len(row) for row in rows[first:first + 40])
    header = rows[first - 1] if first else []
    header = [*header, *[""] * (width - len(header))] if header else []
    return [[*row, *[""] * (width - len(row))][:width] for row in rows[first:]], header


def _number(text: str) -> float | None:
    """A number with a point or a comma; None for what is none."""
    if not re.fullmatch(r"[-+]?\d{1,12}([.,]\d{0,12})?([eE][-+]?\d{1,2})?", text):
        return None
    return float(text.replace(",", "."))


def _clock(text: str) -> float | None:
    """h:mm or h:mm:ss, in hours."""
    found = re.fullmatch(r"(\d{1,4}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?", text)
    if found is None:
        return None
    hours, minutes, seconds = found.groups()
    return int(hours) + int(minutes) / 60 + float((seconds or "0").replace(",", ".")) / 3600


def _moment(text: str) -> datetime | None:
    """A date with its time; None for anything else."""
    try:
        return datetime.fromisoformat(text).replace(tzinfo=None) if re.match(r"\d{4}-\d{2}-\d{2}[T ]\d", text) else None
    except ValueError:
        pass
    return None


def _dated(text: str) -> datetime | None:
    found = _moment(text)
    for form in () if found is not None else DATE_TIMES:
        try:
            return datetime.strptime(text, form)
        except ValueError:
            continue
    return found


def _times(rows: Sequence[Sequence[str]], header: Sequence[str]) -> tuple[Array, set[int]]:
    """Hours of each row, NaN where it has none, and the columns that were used for it."""
    probe = next((row for row in rows if all(row)), rows[0])
    for at, field in enumerate(probe):
        if _dated(field) is not None:
            return _since([_dated(row[at]) for row in rows]), {at}
    dates = [at for at, field in enumerate(probe) if re.fullmatch(r"\d{1,4}[-./]\d{1,2}[-./]\d{1,4}", field)]
    clocks = [at for at, field in enumerate(probe) if _clock(field) is not None]
    if dates and clocks:
        moments = [_dated(f"{row[dates[0]]} {row[clocks[0]]}") for row in rows]
        if any(one is not None for one in moments):
            return _since(moments), {dates[0], clocks[0]}
    if clocks:
        hours = np.array([np.nan if (one := _clock(row[clocks[0]])) is None else one for row in rows])
        return _past_midnight(hours), {clocks[0], *dates}
    return _counted(rows, header)


def _since(moments: Sequence[datetime | None]) -> Array:
    first = min((one for one in moments if one is not None), default=None)
    if first is None:
        raise GondolaError(words("learning.no_time"), "log")
    return np.array([np.nan if one is None else (one - first).total_seconds() / 3600 for one in moments])


def _past_midnight(hours: Array) -> Array:
    known = np.flatnonzero(np.isfinite(hours))
    out = hours.copy()
    falls = np.concatenate([[0.0], np.diff(hours[known])]) < -MIDNIGHT_H
    out[known] = hours[known] + 24.0 * np.cumsum(falls)
    return out


def _counted(rows: Sequence[Sequence[str]], header: Sequence[str]) -> tuple[Array, set[int]]:
    """Times that are numbers: a column that says so, or the one that rises; its unit by its name or its size."""
    columns = _numbers(rows)
    named = [at for at in columns if header and TIME_NAME.search(header[at])]
    rising = [
        at for at, column in columns.items()
        if np.isfinite(column).sum() >= 2 and np.mean(np.diff(column[np.isfinite(column)]) >= 0) > 0.98
        and np.ptp(column[np.isfinite(column)]) > 0
    ]
    chosen = next(iter([*named, *rising]), None)
    if chosen is None:
        raise GondolaError(words("learning.no_time"), "log")
    column = columns[chosen]
    name = header[chosen] if header else ""
    unit = next((one for one, form in UNIT_NAME.items() if form.search(name)), None) or _likely_unit(column)
    return column * UNITS_H[unit], {chosen}


def _likely_unit(column: Array) -> str:
    """Of a count without a name: a log lasts from an hour to some days."""
    span = float(np.nanmax(column) - np.nanmin(column))
    seconds = span > 96 * 60 or (span > 7200 and np.nanmedian(np.diff(column)) >= 5)
    return "h" if span <= 96 else "s" if seconds else "min"


def _numbers(rows: Sequence[Sequence[str]]) -> dict[int, Array]:
    """Columns that are numbers for the most part."""
    found = {}
    for at in range(len(rows[0])):
        values = [_number(row[at]) for row in rows]
        if sum(one is not None for one in values) >= max(2, 0.3 * len(rows)):
            found[at] = np.array([np.nan if one is None else one for one in values])
    return found


def _temperatures(rows: Sequence[Sequence[str]], header: Sequence[str], used: set[int]) -> dict[int, Array]:
    """Columns that may be temperatures: no counter, no constant of nought."""
    found = {}
    for at, column in _numbers(rows).items():
        known = column[np.isfinite(column)]
        name = header[at] if header else ""
        counts = len(known) > 2 and np.all(np.diff(known) == 1)
        other = re.search(r"hum|rh\b|%|no\.?$|^#|index|record|batt|volt", name, re.IGNORECASE)
        if at not in used and not counts and not other:
            found[at] = column
    return found


def _in_order(times: Array, columns: dict[int, Array]) -> tuple[NDArray[np.int64], list[Array], int]:
    """Rows in rising time, doubled and empty ones out; how many were no readings."""
    several = np.array(list(columns.values()))
    there = np.isfinite(times) & np.isfinite(several).any(axis=0)
    order = np.flatnonzero(there)[np.argsort(times[there], kind="stable")]
    first = np.concatenate([[True], np.diff(times[order]) > 0]) if len(order) else np.zeros(0, dtype=bool)
    order = order[first]
    if len(order) < FEWEST:
        raise GondolaError(words("learning.few_readings", least=FEWEST, given=len(order)), "log")
    if np.ptp(times[order]) > LONGEST_H:
        raise GondolaError(words("learning.log_long", most=LONGEST_H / 24), "log")
    return order, list(several), int(len(times) - len(order))


def _celsius(columns: list[Array], ids: list[int], header: Sequence[str], scale: Scale | None) -> list[Array]:
    """The columns in °C; asks where it may be either."""
    found = []
    for at, column in zip(ids, columns, strict=True):
        name = header[at] if header else ""
        said: str | None = next((one for one, form in SCALE_NAME.items() if form.search(name)), None) or scale
        first = column[np.isfinite(column) & (np.abs(column) < ERROR_ABOVE_C)][:1]
        if said is None and len(first) and first[0] > ASK_ABOVE:
            raise GondolaError(words("learning.which_scale", first=float(first[0])), "scale")
        found.append((column - 32.0) / 1.8 if said == "f" else column)
    return found


def _told(at_h: Array, values: list[Array], names: list[str], dropped: int) -> TemperatureLog:
    """Spikes out, and which of the columns is the room."""
    cleaned = [_without_spikes(one) for one in values]
    which = _which(names, [one for one, _ in cleaned])
    measured = cleaned[which[0]][0]
    known = np.isfinite(measured)
    if known.sum() < FEWEST:
        raise GondolaError(words("learning.few_readings", least=FEWEST, given=int(known.sum())), "log")
    room = None
    if which[1] is not None:
        column = cleaned[which[1]][0]
        there = np.isfinite(column)
        room = np.interp(at_h[known], at_h[there], column[there]).round(4).tolist() if there.sum() >= 2 else None
    spikes = sum(count for _, count in cleaned)
    told = [words("learning.read", readings=int(known.sum()), hours=float(np.ptp(at_h[known])))]
    if dropped:
        told.append(words("learning.dropped", rows=dropped))
    if spikes:
        told.append(words("learning.spikes", spikes=spikes))
    told.append(words("learning.room_logged" if room is not None else "learning.room_not_logged"))
    return TemperatureLog(
        at_h=at_h[known].round(6).tolist(), measured_c=measured[known].round(4).tolist(), room_c=room,
        dropped_count=dropped, spikes_count=spikes, words=told,
    )


def _which(names: list[str], columns: list[Array]) -> tuple[int, int | None]:
    """Index of what was measured, and of the room: by name, else the one that hardly moves."""
    if len(columns) == 1:
        return 0, None
    named = [at for at, name in enumerate(names) if ROOM_NAME.search(name)]
    spans = [float(np.nanquantile(one, 0.98) - np.nanquantile(one, 0.02)) if np.isfinite(one).any() else 0.0
             for one in columns]
    room = named[0] if named and len(named) < len(columns) else int(np.argmin(spans))
    rest = [at for at in range(len(columns)) if at != room and at not in named] or [at for at in range(len(columns))
                                                                                  if at != room]
    return max(rest, key=lambda at: spans[at]), room


def _without_spikes(column: Array) -> tuple[Array, int]:
    """Codes and spikes as NaN, and how many there were.

    A reading is a spike that lies more than 6 scaled median deviations, 2 steps and 1 K off the median of 7.
    Source: hampel1974, own_learning
    """
    out = np.where((column < ERROR_BELOW_C) | (column > ERROR_ABOVE_C), np.nan, column)
    known = np.flatnonzero(np.isfinite(out))
    if len(known) >= WINDOW:
        values = out[known]
        half = WINDOW // 2
        windows = np.lib.stride_tricks.sliding_window_view(np.pad(values, half, mode="edge"), WINDOW)
        middle = np.median(windows, axis=1)
        deviation = MAD_TO_SD * np.median(np.abs(windows - middle[:, None]), axis=1)
        gate = np.maximum(MADS * deviation, max(LEAST_SPIKE_K, 2 * step_of(values)))
        out[known[np.abs(values - middle) > gate]] = np.nan
    return out, int(np.isfinite(column).sum() - np.isfinite(out).sum())


def step_of(values: Array) -> float:
    """The step of an instrument's display: the smallest difference of readings that is none of rounding [K]."""
    gaps = np.diff(np.unique(np.round(values, 4)))
    return float(np.quantile(gaps, 0.2)) if len(gaps) else 0.0
