"""The outcome as a table to read in a terminal."""

from __future__ import annotations

from ..answers.pours import PourOutcome
from ..cure.spans import CureSpan
from ..outcome import Outcome
from ..words import METRIC, ReaderUnits, Words, in_reader_units, words

COLD = "*"
"""Marks what is hard only in a cold room."""
DIGITS = {"length": {"mm": 1, "in": 2}, "volume": {"ml": 0, "fl oz": 1}, "mass": {"g": 1, "oz": 2},
          "temperature": {"C": 1, "F": 1}}
"""Decimals of a column by its unit."""


def report(name: str, outcome: Outcome, units: ReaderUnits = METRIC) -> str:
    """A scene's outcome as plain text, pours from the bottom up, then their bands and the flags."""
    parts = [
        [words("report.title", name=name, grade=outcome.grade, cell=outcome.march.cell_mm).said(units), ""],
        _table([_heads(units), *(_row(pour, units) for pour in outcome.pours)], left=True),
        ["", words("report.bands").said(units), ""],
        _table([_band_heads(units), *(_bands(pour, units) for pour in outcome.pours)], left=False),
        ["", *(line.said(units) for line in _whole(outcome)), ""],
        [f"{flag.severity.upper():5}  {flag.title}. {flag.sentence}" for flag in outcome.flags],
    ]
    lines = [line for part in parts for line in part]
    return "\n".join(lines if outcome.flags else [*lines, words("report.nothing").said(units)])


def _whole(outcome: Outcome) -> list[Words]:
    whole = outcome.whole
    moment = whole.demould_at.replace("T", " ") if whole.demould_at else words("report.never")
    lines = [
        words("report.whole", resin=whole.resin_volume_ml, mix=whole.mix_g, piece=whole.piece_kg),
        words("report.out", moment=moment),
    ]
    if any(pour.heat.cure is not None and pour.heat.cure.demould_h is None for pour in outcome.pours):
        lines.append(words("report.cold"))
    for pour in outcome.pours:
        if len(pour.fill.places) > 1:
            told = [words("report.place", volume=place.volume_ml, name=place.name) for place in pour.fill.places]
            lines.append(words("report.places", pour=pour.number, count=len(told), told=told))
    return lines


def _table(rows: list[tuple[str, ...]], left: bool) -> list[str]:
    """Columns to the right, the last one to the left if that is asked."""
    last = len(rows[0]) - 1 if left else None
    widths = [max(len(row[column]) for row in rows) for column in range(len(rows[0]))]
    return [
        "  ".join(
            cell.ljust(width) if column == last else cell.rjust(width)
            for column, (cell, width) in enumerate(zip(row, widths, strict=True))
        ).rstrip()
        for row in rows
    ]


def _in(value: float, quantity: str, units: ReaderUnits) -> str:
    """A number of a column in the reader's units."""
    number, unit = in_reader_units(value, quantity, units)
    return f"{number:.{DIGITS[quantity][unit]}f}"


def _heads(units: ReaderUnits) -> tuple[str, ...]:
    length, volume, mass, warm = (in_reader_units(0, one, units)[1] for one in DIGITS)
    return (
        "pour", f"depth {length}", f"resin {volume}", f"part A {mass}", f"part B {mass}", f"peak {warm}", "at h",
        f"deep {length}", "gel h", "tack until h", "hard h", "out h", "joint",
    )


def _band_heads(units: ReaderUnits) -> tuple[str, ...]:
    warm = in_reader_units(0, "temperature", units)[1]
    return (
        "pour", f"peak {warm}", "tack opens h", "tack closes h", "hard h", "out h", "hands-on min", "of min",
    )


def _hours(value: float | None) -> str:
    return "-" if value is None else f"{value:.1f}"


def _span(span: CureSpan | None) -> str:
    if span is None:
        return "-"
    return f"{span.early_h:.1f} to {'?' if span.late_h is None else f'{span.late_h:.1f}'}"


def _bands(pour: PourOutcome, units: ReaderUnits) -> tuple[str, ...]:
    band, spans = pour.heat.peak_band, pour.heat.spans
    hands = (f"{pour.hands.planned_min:.0f}", f"{pour.hands.working_min:.0f}")
    if band is None or spans is None:
        return (str(pour.number), *("-",) * 5, *hands)
    low, high = (in_reader_units(one, "temperature", units)[0] for one in (band.low_c, band.high_c))
    return (
        str(pour.number), f"{low:.0f} to {high:.0f}", _span(spans.tack_opens), _span(spans.tack_closes),
        _span(spans.hard), _span(spans.demould), *hands,
    )


def _row(pour: PourOutcome, units: ReaderUnits) -> tuple[str, ...]:
    cure, mix = pour.heat.cure, pour.cup.mix
    head = (
        str(pour.number), _in(pour.fill.depth_mm, "length", units), _in(pour.fill.resin_volume_ml, "volume", units),
        _in(mix.part_a_g, "mass", units), _in(mix.part_b_g, "mass", units),
    )
    if cure is None:
        return (*head, *("-",) * 7, words("report.no_room").said(units))
    return (
        *head,
        _in(cure.peak_c, "temperature", units),
        f"{cure.peak_at_h:.1f}",
        _in(cure.peak_place.depth_mm, "length", units),
        _hours(cure.gel_h),
        _hours(cure.tack_closes_h),
        _hours(cure.hard_h) + (COLD if cure.demould_h is None and cure.hard_h is not None else ""),
        _hours(cure.demould_h),
        pour.joint.words.said(units),
    )
