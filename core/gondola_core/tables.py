"""Tables as spreadsheets and instruments write them, whatever parts their columns; and tables for spreadsheets."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Iterable, Sequence

from .errors import GondolaError

MOST_LINES = 400_000
LONGEST_LINE = 100_000
"""characters of one line"""
FORMULA = re.compile(r"^\s*[=+@\t\r-]")
"""How text begins that a spreadsheet would compute."""
_WITH_COMMA = re.compile(r"[-+]?\d+,\d+")


def rows_of(content: bytes | str) -> list[tuple[int, list[str]]]:
    """Cells of each line that has any, with its number: parted by semicolon, tab, comma or spaces, in any line ends.

    A comma within a number is its decimal point where something else parts the columns. GondolaError for what is no
    text, or far too long.

    >>> rows_of("1,5;2\\r3;4,25")
    [(1, ['1.5', '2']), (2, ['3', '4.25'])]
    """
    text = content if isinstance(content, str) else _text_of(content)
    lines = text.lstrip("\ufeff").replace("\r\n", "\n").replace("\r", "\n").split("\n")
    if len(lines) > MOST_LINES:
        raise GondolaError(f"This table has more than {MOST_LINES} lines: thin it out.")
    if max(map(len, lines)) > LONGEST_LINE:
        raise GondolaError(f"A line of this table has more than {LONGEST_LINE} characters: it is no table of numbers.")
    parted = _parting(lines)
    rows = ((number, _cells(line, parted)) for number, line in enumerate(lines, start=1))
    return [(number, cells) for number, cells in rows if cells]


def _text_of(content: bytes) -> str:
    try:
        return content.decode("utf-16" if content[:2] in (b"\xff\xfe", b"\xfe\xff") else "utf-8-sig")
    except UnicodeDecodeError:
        raise GondolaError("This file is no text: a table holds rows of numbers.") from None


def _parting(lines: list[str]) -> str | None:
    """What parts the columns; None for spaces."""
    sample = "\n".join(lines[:200])
    for mark in ";\t":
        if mark in sample:
            return mark
    words = sample.split()
    spaced = any(len(line.split()) > 1 and "," not in line.split()[0][-1:] for line in lines[:200])
    if "," not in sample or (spaced and all(_WITH_COMMA.fullmatch(one) for one in words if "," in one)):
        return None
    return ","


def _cells(line: str, parted: str | None) -> list[str]:
    found = [cell.strip().strip("\"'").strip() for cell in (line.split() if parted is None else line.split(parted))]
    if parted != ",":
        found = [cell.replace(",", ".") for cell in found]
    return [cell for cell in found if cell]


def csv_of(head: Sequence[str], rows: Iterable[Sequence[str | int | float]]) -> str:
    """A table for a spreadsheet; words that it would compute are marked as words.

    >>> csv_of(["what", "g"], [["=1+1", -2.5]])
    "what,g\\r\\n'=1+1,-2.5\\r\\n"
    """
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(head)
    for row in rows:
        writer.writerow([f"'{one}" if isinstance(one, str) and FORMULA.match(one) else one for one in row])
    return out.getvalue()
