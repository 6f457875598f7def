"""What was measured, as a page."""

from __future__ import annotations

import sys
from importlib.metadata import version

from .measured import Measured

ENGINES = ("numpy", "numba", "scipy")


def validation_page(rows: list[Measured], day: str) -> str:
    """The page in Markdown; day: on which it was measured."""
    held = sum(row.holds for row in rows)
    parts = [
        "# Validation\n",
        f"Measured by `gondola validate --write docs/validation.md` on {day}, with Python "
        f"{'.'.join(map(str, sys.version_info[:2]))}, {', '.join(f'{name} {version(name)}' for name in ENGINES)}. "
        f"{held} of {len(rows)} hold. The same comparisons are tests; sources are those of `models.md`.\n",
    ]
    for model in dict.fromkeys(row.model for row in rows):
        parts += [
            f"## {model}\n", "| what | against | source | known | found | off by | allowed |",
            "| --- | --- | --- | --- | --- | --- | --- |",
            *(_row(row) for row in rows if row.model == model), "",
        ]
    return "\n".join(parts)


def _row(row: Measured) -> str:
    numbers = (_number(row.expected), _number(row.found), f"{row.error:.1e}", f"{row.allowed:.1e}")
    shown = " | ".join(numbers)
    return f"| {row.quantity} | {row.against} | {row.source} | {shown}{'' if row.holds else ' **does not hold**'} |"


def _number(value: float) -> str:
    return "0" if value == 0 else f"{value:.5g}"
