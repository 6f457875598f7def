"""Flags that a draft cannot decide: they come or go within what its cells may be off."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

from .flag import Flag, Severity

CLOSE_WORDS = "Too close to call on quick cells; the fine march decides."


def with_close_calls(told: Sequence[Flag], hotter: Sequence[Flag], cooler: Sequence[Flag]) -> list[Flag]:
    """The flags of a draft, with those marked that are not the same however its grid errs.

    told     as the draft has it
    hotter, cooler   the same checks with peaks and moments moved either way by the grid's doubt

    A stop or watch that only one side has is told too, as too close to call; notes are left.
    """
    sides = [{_key(flag): flag for flag in flags} for flags in (told, hotter, cooler)]
    found = [flag if _agreed(_key(flag), sides) else _close(flag) for flag in told]
    known = set(sides[0])
    for side in sides[1:]:
        for key, flag in side.items():
            if key not in known and flag.severity is not Severity.NOTE:
                known.add(key)
                found.append(_close(flag))
    return found


Key = tuple[str, int | None, str | None]


def _key(flag: Flag) -> Key:
    return flag.code, flag.pour_number, flag.figure_id


def _agreed(key: Key, sides: Sequence[dict[Key, Flag]]) -> bool:
    grades = [side[key].severity if key in side else None for side in sides]
    return len(set(grades)) == 1 or set(grades) <= {Severity.NOTE, None}


def _close(flag: Flag) -> Flag:
    return replace(flag, close_call=True, sentence=f"{flag.sentence} {CLOSE_WORDS}")
