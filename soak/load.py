"""Twenty people who edit for minutes: no save may be lost, and nobody be told that the database is locked."""

from __future__ import annotations

import random
import sqlite3
import threading
import time
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any

from gondola_core.samples import quarry_pool

from .serving import Person, served

THINKS_S = (1.0, 3.0)
"""seconds between two edits of a person. Source: assumed"""
SHARED_BY = 5
"""People who work on one scene together."""


@dataclass
class Told:
    """What the load came to."""

    saves: int = 0
    conflicts: int = 0
    faults: list[str] = field(default_factory=list)
    save_ms: list[float] = field(default_factory=list)
    draft_ms: list[float] = field(default_factory=list)
    lost: int = 0
    acknowledged: set[tuple[int, str]] = field(default_factory=set)
    guard: threading.Lock = field(default_factory=threading.Lock)

    def share(self, of: list[float], part: float) -> float:
        """A quantile of what was measured."""
        return sorted(of)[min(len(of) - 1, int(part * len(of)))] if of else 0.0


def load(people: int, minutes: float, seed: int) -> Told:
    """Everybody edits a scene of their own; the first few also work on one that is shared."""
    names = [f"person-{number}" for number in range(people)]
    told = Told()
    with served("serve", names) as (address, folder, _):
        keeper = Person(address)
        keeper.sign_in(names[0])
        _, together = keeper.ask("POST", "/api/scenes", quarry_pool().model_dump(mode="json"))
        for name in names[1:SHARED_BY]:
            keeper.ask("PUT", f"/api/scenes/{together['id']}/seen-by", {"name": name, "may": "work"})
        until = time.monotonic() + 60 * minutes
        threads = [
            threading.Thread(target=_edits, args=(address, name, at, together, until, seed, told))
            for at, name in enumerate(names)
        ]
        for one in threads:
            one.start()
        for one in threads:
            one.join()
        told.lost = len(told.acknowledged - _kept(folder))
    return told


def _edits(
    address: str, name: str, at: int, together: dict[str, Any], until: float, seed: int, told: Told
) -> None:
    chance = random.Random(seed * 1000 + at)
    person = Person(address)
    person.sign_in(name)
    _, own = person.ask("POST", "/api/scenes", quarry_pool().model_dump(mode="json"))
    states = [own, together] if at < SHARED_BY else [own]
    number = 0
    while time.monotonic() < until:
        number += 1
        which = number % len(states)
        states[which] = _save(person, states[which], f"{name} {number}", told)
        if number % 4 == 0:
            began = time.monotonic()
            status, answer = person.ask("POST", "/api/evaluate", states[which]["document"])
            with told.guard:
                told.draft_ms.append(1e3 * (time.monotonic() - began))
                if status != 200:
                    told.faults.append(f"evaluate: {status} {str(answer)[:80]}")
        time.sleep(chance.uniform(*THINKS_S))


def _save(person: Person, state: dict[str, Any], note: str, told: Told) -> dict[str, Any]:
    """One save, again from the newer state where somebody was quicker; the state after it."""
    while True:
        body = {"base_revision": state["revision"], "note": note, "document": {**state["document"], "name": note}}
        began = time.monotonic()
        status, answer = person.ask("PUT", f"/api/scenes/{state['id']}", body)
        with told.guard:
            told.save_ms.append(1e3 * (time.monotonic() - began))
            if status == 200:
                told.saves += 1
                told.acknowledged.add((state["id"], note))
                return dict(answer)
            if status != 409:
                told.faults.append(f"save: {status} {str(answer)[:80]}")
                return state
            told.conflicts += 1
        state = answer["scene"]


def _kept(folder: Path) -> set[tuple[int, str]]:
    """Scene and note of every revision that was saved on top and not put aside, as the database holds them."""
    with closing(sqlite3.connect(f"file:{folder / 'gondola.sqlite3'}?mode=ro", uri=True)) as opened:
        return set(opened.execute("SELECT scene_id, note FROM scenes_revision WHERE NOT kept_aside"))
