"""Runs the checks, marks what a draft cannot decide, and says what was found."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Any

from ..answers.answer import Answer, depends_on
from ..answers.book import Book
from ..answers.grades import DRAFT, Grade
from ..answers.heat import HEAT
from ..answers.reading import WholeScene
from ..digests import digest
from ..scene import Units
from ..scene.edits import Edit
from ..words import ReaderUnits, speaker_of, words
from .flag import UNITS, Finding, Flag, Remedy, Severity
from .registry import CHECKS, Check

Found = list[tuple[Check, Finding]]

_ORDER = {Severity.STOP: 0, Severity.WATCH: 1, Severity.NOTE: 2}
_STAGES = {stage: at for at, stage in enumerate(("pours", "bench", "tank", "figures", "bed", "water"))}


def reader_units(units: Units) -> ReaderUnits:
    """The units of a brief as the words take them."""
    return ReaderUnits(units.length, units.temperature, units.volume, units.mass)


def found_in(book: Book, checks: Iterable[Check]) -> Found:
    """What checks find, in their order."""
    return [
        (one, finding) for one in checks
        for finding in one.find(book.scene, *(book.ask(need) for need in one.needs))
    ]


def _flags(_: Any, *needs: Any, grade: Grade, book: Book) -> list[Flag]:
    """Worst first; within a grade pours before tank, figures, bed and water."""
    found = found_in(book, CHECKS.values())
    if grade.name == DRAFT.name:
        warm = [one for one in CHECKS.values() if one.by_grid and any(depends_on(need, HEAT) for need in one.needs)]
        heat = book.ask(HEAT)
        sides = [found_in(book.supposing(HEAT, heat.doubted(way)), warm) for way in (1, -1)]
        found = with_close_calls(found, sides, {one.code for one in warm})
    told = [told_flag(one, finding, reader_units(book.scene.brief.units)) for one, finding in found]
    return sorted(told, key=lambda flag: (_ORDER[flag.severity], _STAGES[flag.stage]))


def with_close_calls(found: Found, sides: list[Found], warm: set[str]) -> Found:
    """The findings of a draft, with those marked that are not the same however its grid errs.

    sides  the same checks with peaks and moments moved either way by the grid's doubt
    warm   codes of the checks that the heat decides

    A stop or watch that only one side has is told too, as too close to call; notes are left.
    """
    by_key = [{_key(check, one): (check, one) for check, one in side} for side in (found, *sides)]
    marked = [
        (check, replace(one, close_call=True))
        if check.code in warm and not _agreed(_key(check, one), by_key) else (check, one)
        for check, one in found
    ]
    known = set(by_key[0])
    for side in by_key[1:]:
        for key, (check, one) in side.items():
            if key not in known and one.severity is not Severity.NOTE:
                known.add(key)
                marked.append((check, replace(one, close_call=True)))
    return marked


Key = tuple[str, int | None, str | None]


def _key(check: Check, finding: Finding) -> Key:
    return check.code, finding.where.pour_number, finding.where.figure_id


def _agreed(key: Key, sides: list[dict[Key, tuple[Check, Finding]]]) -> bool:
    grades = {side[key][1].severity if key in side else None for side in sides}
    return len(grades) == 1 or grades <= {Severity.NOTE, None}


def told_flag(check: Check, finding: Finding, units: ReaderUnits) -> Flag:
    """A finding said in the reader's units."""
    speak, values = speaker_of(units), {**finding.values, "number": finding.number, "limit": finding.limit}
    sentence = speak.say(words(f"flags.{check.code}.{finding.sentence}", **values))
    if finding.close_call:
        sentence = f"{sentence} {speak.say(words('flags.close_call'))}"
    where = finding.where
    return Flag(
        code=check.code, stage=check.stage, severity=finding.severity,
        title=speak.say(words(f"flags.{check.code}.{finding.title}", **values)), sentence=sentence,
        number=finding.number, limit=finding.limit, unit=UNITS[finding.quantity], depth_mm=where.depth_mm,
        at_h=where.at_h, pour_number=where.pour_number, figure_id=where.figure_id,
        remedies=[told_remedy(one, units) for one in finding.remedies], close_call=finding.close_call,
        cause=_cause(check, finding),
    )


def _cause(check: Check, finding: Finding) -> str:
    """What the first remedy does; where there is none, what was found and where."""
    if not finding.remedies:
        return digest([check.code, finding.where.pour_number, finding.where.figure_id])
    return digest([[one.op, one.path, one.value] for one in finding.remedies[0].operations])


def told_remedy(edit: Edit, units: ReaderUnits) -> Remedy:
    """An edit with its label in the reader's units."""
    return Remedy(label=speaker_of(units).say(edit.words), digest=edit.digest, edits=edit.operations)


def flags_answer() -> Answer[list[Flag]]:
    """The answer that runs every check that is registered by now."""
    needs = {need.name: need for one in CHECKS.values() for need in one.needs}
    return Answer(
        name="flags", reads=WholeScene(), needs=tuple(needs.values()), by=_flags, graded=True, asks=True,
    )
