"""The outcome as a table to read in a terminal."""

from __future__ import annotations

from ..cure.spans import CureSpan
from ..outcome import Outcome, PourOutcome

_HEADS = (
    "pour", "depth mm", "resin ml", "part A g", "part B g", "peak C", "at h", "deep mm",
    "gel h", "tack until h", "hard h", "out h", "joint",
)


_BAND_HEADS = (
    "pour", "peak C", "tack opens h", "tack closes h", "hard h", "out h", "hands-on min", "of min",
)


def report(name: str, outcome: Outcome) -> str:
    """A scene's outcome as plain text, pours from the bottom up, then their bands and the flags."""
    lines = [f"{name} ({outcome.grade} march, {outcome.march.cell_mm:g} mm cells)", ""]
    lines += _table([_HEADS, *(_row(pour) for pour in outcome.pours)], left=True)
    lines += ["", "If room and resin run cool and slow, or warm and quick:", ""]
    lines += _table([_BAND_HEADS, *(_bands(pour) for pour in outcome.pours)], left=False)
    whole = outcome.whole
    lines += [
        "",
        f"{whole.resin_volume_ml:.0f} ml of resin, {whole.mix_g:.0f} g mixed; "
        f"the piece weighs about {whole.piece_kg:.1f} kg.",
        f"Hard enough to take out: {_when(whole.demould_at)}.",
    ]
    if any(pour.cure is not None and pour.cure.demould_h is None for pour in outcome.pours):
        lines.append(f"{COLD} only as cold as this room: it softens again where it is warmer.")
    for pour in outcome.pours:
        if len(pour.places) > 1:
            told = ", ".join(f"{place.volume_ml:.0f} ml into {place.name}" for place in pour.places)
            lines.append(f"Pour {pour.number} in {len(pour.places)} places: {told}.")
    lines.append("")
    for flag in outcome.flags:
        lines.append(f"{flag.severity.upper():5}  {flag.title}. {flag.sentence}")
    if not outcome.flags:
        lines.append("Nothing to stop, nothing to watch.")
    return "\n".join(lines)


COLD = "*"
"""Marks what is hard only in a cold room."""


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


def _when(moment: str | None) -> str:
    return moment.replace("T", " ") if moment else "not in this room"


def _hours(value: float | None) -> str:
    return "-" if value is None else f"{value:.1f}"


def _span(span: CureSpan | None) -> str:
    if span is None:
        return "-"
    return f"{span.early_h:.1f} to {'?' if span.late_h is None else f'{span.late_h:.1f}'}"


def _bands(pour: PourOutcome) -> tuple[str, ...]:
    band, spans = pour.peak_band, pour.spans
    hands = (f"{pour.hands.planned_min:.0f}", f"{pour.hands.working_min:.0f}")
    if band is None or spans is None:
        return (str(pour.number), *("-",) * 5, *hands)
    return (
        str(pour.number), f"{band.low_c:.0f} to {band.high_c:.0f}", _span(spans.tack_opens),
        _span(spans.tack_closes), _span(spans.hard), _span(spans.demould), *hands,
    )


def _row(pour: PourOutcome) -> tuple[str, ...]:
    cure = pour.cure
    volume = f"{pour.resin_volume_ml:.0f}"
    parts = (f"{pour.mix.part_a_g:.1f}", f"{pour.mix.part_b_g:.1f}")
    head = (str(pour.number), f"{pour.depth_mm:g}", volume, *parts)
    if cure is None:
        return (*head, *("-",) * 7, "no room: all of it is bed")
    return (
        *head,
        f"{cure.peak_c:.1f}",
        f"{cure.peak_at_h:.1f}",
        f"{cure.peak_place.depth_mm:.0f}",
        _hours(cure.gel_h),
        _hours(cure.tack_closes_h),
        _hours(cure.hard_h) + (COLD if cure.demould_h is None and cure.hard_h is not None else ""),
        _hours(cure.demould_h),
        pour.joint,
    )
