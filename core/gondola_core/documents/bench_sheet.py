"""The pour sheet to carry to the bench: the steps of the run, as PDF with boxes to tick and as CSV."""

from __future__ import annotations

import io
from collections.abc import Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any

from reportlab.lib.colors import HexColor
from reportlab.lib.pagesizes import A4, letter
from reportlab.lib.styles import ParagraphStyle
from reportlab.platypus import Flowable, KeepTogether, Paragraph, SimpleDocTemplate, Spacer, Table, TableStyle

from ..bench.steps import BenchStep
from ..outcome import Outcome
from ..scene import Scene
from ..tables import csv_of
from ..words import METRIC, ReaderUnits, in_reader_units, speaker_of, words

MARGIN, BOX = 42.0, 13.0
"""points: around the page, and of a box to tick"""
INK, CAUTION, HAIR = HexColor("#1b2a33"), HexColor("#7a1550"), HexColor("#999999")
BODY = ParagraphStyle("body", fontName="Helvetica", fontSize=12.5, leading=15.5, textColor=INK)
UNDER = ParagraphStyle("under", parent=BODY, fontSize=10.5, leading=13, textColor=HexColor("#44525a"))
WARN = ParagraphStyle("warn", parent=UNDER, textColor=CAUTION)
HEAD = ParagraphStyle("head", parent=BODY, fontName="Helvetica-Bold", fontSize=17, leading=21, spaceBefore=10)
TITLE = ParagraphStyle("title", parent=HEAD, fontSize=24, leading=28)
AMOUNT = ParagraphStyle("amount", parent=BODY, fontName="Helvetica-Bold", fontSize=19, leading=22, alignment=2)


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """A step as it is printed: what, how, a caution, how much, how long."""

    title: str
    under: str
    caution: str
    amount: str
    minutes: str


def rows_of(steps: Sequence[BenchStep], units: ReaderUnits, by_volume: bool = False) -> list[Row]:
    """Steps in the reader's units."""
    speak = speaker_of(units)
    return [
        Row(
            title=speak.say(one.title), under=speak.say(one.under) if one.under else "",
            caution=speak.say(one.caution) if one.caution else "", amount=_amount(one, units, by_volume),
            minutes=_minutes(one, units),
        )
        for one in steps
    ]


def _amount(step: BenchStep, units: ReaderUnits, by_volume: bool) -> str:
    if by_volume and step.target_ml is not None:
        return words("sheet.volume", volume=step.target_ml).said(units)
    if step.drops is not None:
        return words("sheet.drops", drops=step.drops).said(units)
    return "" if step.target_g is None else words("sheet.mass", mass=step.target_g).said(units)


def _minutes(step: BenchStep, units: ReaderUnits) -> str:
    if step.clock_min is None:
        return ""
    return words("sheet.after" if step.after == "poured" else "sheet.takes", minutes=step.clock_min).said(units)


def sheet_csv(steps: Sequence[BenchStep], units: ReaderUnits = METRIC) -> str:
    """One step a row; amounts as numbers in the reader's unit, named in the head."""
    unit = in_reader_units(0.0, "mass", units)[1]
    rows: list[list[str | int | float]] = []
    for one, row in zip(steps, rows_of(steps, units), strict=True):
        mass = None if one.target_g is None else round(in_reader_units(one.target_g, "mass", units)[0], 3)
        rows.append([
            one.pour_number or "", one.cup or "", one.id, row.title, row.under, row.caution,
            "" if mass is None else mass,
            "" if one.drops is None else one.drops, "" if one.clock_min is None else one.clock_min, one.after,
        ])
    head = ["pour", "cup", "step", "title", "how", "caution", f"mass {unit}", "drops", "minutes", "after"]
    return csv_of(head, rows)


def sheet_pdf(
    scene: Scene, outcome: Outcome, steps: Sequence[BenchStep], units: ReaderUnits = METRIC, revision: int | None = None
) -> bytes:
    """The pour sheet as PDF: A4, or Letter for who reads in inches; the same bytes from the same scene."""
    out = io.BytesIO()
    page = letter if units.length == "in" else A4
    document = SimpleDocTemplate(
        out, pagesize=page, leftMargin=MARGIN, rightMargin=MARGIN, topMargin=MARGIN, bottomMargin=MARGIN + 8,
        title=words("sheet.title", name=scene.name).said(units), author="Gondola", invariant=1,
    )
    wide = page[0] - 2 * MARGIN
    by_volume = scene.brief.habits.measures == "volume"
    story: list[Flowable] = [
        Paragraph(_safe(scene.name), TITLE),
        Paragraph(_safe(words(
            "sheet.under" if revision is None else "sheet.under_revision", scale=scene.brief.scale, revision=revision,
            volume=outcome.whole.resin_volume_ml, mass=outcome.whole.mix_g,
        ).said(units)), UNDER),
        Spacer(1, 6), Paragraph(_safe(words("steps.gloves_caution").said(units)), WARN), Spacer(1, 4),
    ]
    before = [one for one in steps if not one.pour_number]
    story += _block(words("sheet.before").said(units), before, units, wide, by_volume)
    for pour in outcome.pours:
        head = words("sheet.pour", pour=pour.number, moment=pour.clock.starts_at.replace("T", ", ")).said(units)
        mine = [one for one in steps if one.pour_number == pour.number]
        story += _block(head, mine, units, wide, by_volume)
        story.append(Paragraph(_safe(_window(pour.clock.tack_opens_at, pour.clock.tack_closes_at, units)), BODY))
    foot = partial(_foot, name=scene.name, wide=page[0])
    document.build(story, onFirstPage=foot, onLaterPages=foot)
    return out.getvalue()


def _foot(canvas: Any, document: Any, name: str, wide: float) -> None:
    canvas.saveState()
    canvas.setFont("Helvetica", 9)
    canvas.drawString(MARGIN, 24, name.encode("cp1252", "replace").decode("cp1252"))
    canvas.drawRightString(wide - MARGIN, 24, str(document.page))
    canvas.restoreState()


def _window(opens: str | None, closes: str | None, units: ReaderUnits) -> str:
    if opens is None or closes is None:
        return words("sheet.no_window").said(units)
    return words("sheet.window", opens=opens.replace("T", ", "), closes=closes.replace("T", ", ")).said(units)


def _block(
    head: str, steps: Sequence[BenchStep], units: ReaderUnits, wide: float, by_volume: bool
) -> list[Flowable]:
    """A head and its steps; the head stays with the first of them."""
    tables = [_line(row, wide) for row in rows_of(steps, units, by_volume)]
    return [KeepTogether([Paragraph(_safe(head), HEAD), *tables[:2]]), *tables[2:]]


def _line(row: Row, wide: float) -> Table:
    """A box, what is done and how, how much or how long."""
    said = [Paragraph(_safe(row.title), BODY)]
    said += [Paragraph(_safe(row.under), UNDER)] if row.under else []
    said += [Paragraph(_safe(row.caution), WARN)] if row.caution else []
    amount = Paragraph(_safe(row.amount or row.minutes), AMOUNT)
    box = Table([[""]], colWidths=[BOX], rowHeights=[BOX], style=[("BOX", (0, 0), (-1, -1), 1.2, INK)], hAlign="LEFT")
    table = Table([[box, said, amount]], colWidths=[26, wide - 156, 130], hAlign="LEFT")
    table.setStyle(TableStyle([
        ("VALIGN", (0, 0), (-1, -1), "TOP"), ("LINEBELOW", (0, 0), (-1, -1), 0.4, HAIR),
        ("TOPPADDING", (0, 0), (-1, -1), 3), ("BOTTOMPADDING", (0, 0), (-1, -1), 4),
        ("LEFTPADDING", (0, 0), (-1, -1), 3),
    ]))
    return table


def _safe(text: str) -> str:
    """Free of what a paragraph would take for its own marks, and of what its letters do not have."""
    plain = text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
    return plain.encode("cp1252", "replace").decode("cp1252")
