"""A card to hand on with a piece: its picture, title, size, layers and recipe, as PNG and as PDF."""

from __future__ import annotations

import io
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial

from PIL import Image, ImageDraw, ImageFont
from reportlab.lib.pagesizes import A4, letter
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import Canvas

from ..outcome import Outcome
from ..scene import Pour, Scene
from ..words import METRIC, ReaderUnits, words

PAPER, INK, SOFT = (251, 248, 239), (35, 50, 60), (90, 104, 112)
CARD_PX = (1200, 1500)
PICTURE_PX = (1200, 750)
EDGE_PX = 56
MARGIN_PT = 48.0


@dataclass(frozen=True, slots=True, kw_only=True)
class CardText:
    """What stands under the picture: title, size, and a line for each pour from the top down."""

    title: str
    under: str
    rows: list[str]


def card_text(scene: Scene, outcome: Outcome, units: ReaderUnits = METRIC) -> CardText:
    """The words of a card in the reader's units."""
    tank = scene.tank
    rows = []
    for pour, told in zip(scene.pours[::-1], outcome.pours[::-1], strict=True):
        doses = doses_said(scene, pour, units)
        rows.append(words(
            "card.pour" if doses else "card.clear", pour=told.number, top=told.top_depth_mm,
            bottom=told.bottom_depth_mm, resin=scene.resin_of(pour).name,
            doses=", ".join(doses),
        ).said(units))
    return CardText(
        title=scene.name, rows=rows,
        under=words(
            "card.under", scale=scene.brief.scale, across=tank.inner_width_mm, behind=tank.inner_behind_mm,
            deep=tank.fill_height_mm, volume=outcome.whole.resin_volume_ml, mass=outcome.whole.mix_g,
        ).said(units),
    )


def doses_said(scene: Scene, pour: Pour, units: ReaderUnits = METRIC) -> list[str]:
    """What of each colourant goes into 100 g of a pour."""
    inks = {one.id: one.name for one in scene.colourants}
    return [
        words("card.dose", drops=dose.dose_drops_per_100g, name=inks[dose.colourant_id]).said(units)
        for dose in pour.doses if dose.dose_drops_per_100g > 0
    ]


def card_png(text: CardText, picture: Image.Image) -> bytes:
    """The card as a picture, 1200 dots wide."""
    card = Image.new("RGB", CARD_PX, PAPER)
    card.paste(picture.convert("RGB").resize(PICTURE_PX), (0, 0))
    draw = ImageDraw.Draw(card)
    y = PICTURE_PX[1] + 40.0
    for line, size, ink in _lines(text):
        font = ImageFont.load_default(size)
        for part in _wrapped(line, CARD_PX[0] - 2 * EDGE_PX, partial(draw.textlength, font=font)):
            if y + size > CARD_PX[1] - EDGE_PX / 2:
                break
            draw.text((EDGE_PX, y), part, fill=ink, font=font)
            y += 1.32 * size
        y += 0.35 * size
    out = io.BytesIO()
    card.save(out, format="PNG")
    return out.getvalue()


def card_pdf(text: CardText, picture: Image.Image, units: ReaderUnits = METRIC) -> bytes:
    """The card as a page, A4 or Letter; the same bytes from the same scene and picture."""
    out = io.BytesIO()
    page = letter if units.length == "in" else A4
    canvas = Canvas(out, pagesize=page, invariant=1)
    canvas.setTitle(text.title)
    canvas.setAuthor("Gondola")
    wide = page[0] - 2 * MARGIN_PT
    high = wide * PICTURE_PX[1] / PICTURE_PX[0]
    y = page[1] - MARGIN_PT - high
    canvas.drawImage(ImageReader(picture.convert("RGB")), MARGIN_PT, y, wide, high)
    for line, size, ink in _lines(text):
        points = 0.46 * size
        font = "Helvetica-Bold" if line is text.title else "Helvetica"
        canvas.setFillColorRGB(*(value / 255 for value in ink))
        canvas.setFont(font, points)
        for part in _wrapped(line, wide, partial(canvas.stringWidth, fontName=font, fontSize=points)):
            y -= 1.35 * points
            if y < MARGIN_PT:
                canvas.showPage()
                canvas.setFont(font, points)
                y = page[1] - MARGIN_PT - points
            canvas.drawString(MARGIN_PT, y, part)
        y -= 0.4 * points
    canvas.save()
    return out.getvalue()


def _lines(text: CardText) -> list[tuple[str, int, tuple[int, int, int]]]:
    """Lines with their size and ink."""
    return [(text.title, 52, INK), (text.under, 28, SOFT), *((row, 25, INK) for row in text.rows)]


def _wrapped(line: str, wide: float, measure: Callable[[str], float]) -> list[str]:
    """A line in parts no wider than so much, broken between words."""
    parts, now = [], ""
    for word in line.split():
        longer = f"{now} {word}".strip()
        if now and measure(longer) > wide:
            parts.append(now)
            now = word
        else:
            now = longer
    return [*parts, now] if now else parts
