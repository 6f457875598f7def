"""Whether the machine's clock can be believed: nothing is deleted for its age by a clock that has just jumped."""

from __future__ import annotations

import json
from datetime import datetime, timedelta
from pathlib import Path

LONGEST_GAP = timedelta(hours=13)
"""Two looks that are due six hours apart are never further from each other, but where nothing ran or the clock jumped.
Source: assumed"""
CALM_FOR = timedelta(hours=1)
"""How long a clock goes on without a jump before it is believed. Source: assumed"""
NOTE = "clock.json"
JUMPED = (
    "The clock of this machine was set to another time, or nothing ran for long: nothing is taken away for its age "
    "before the clock has gone on for an hour."
)


def is_steady(folder: Path, now: datetime) -> bool:
    """Whether looks at the clock have followed each other for an hour without a step back or a leap; notes this one."""
    note = folder / NOTE
    last, since = _noted(note)
    if last is None or since is None or not timedelta(0) <= now - last <= LONGEST_GAP:
        since = now
    note.write_text(json.dumps({"looked_at": now.isoformat(), "steady_since": since.isoformat()}))
    return now - since >= CALM_FOR


def _noted(note: Path) -> tuple[datetime | None, datetime | None]:
    try:
        told = json.loads(note.read_text())
        return datetime.fromisoformat(told["looked_at"]), datetime.fromisoformat(told["steady_since"])
    except (OSError, ValueError, KeyError, TypeError):
        return None, None
