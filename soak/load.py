"""Twenty people who edit for minutes: no save may be lost, and nobody be told that the database is locked."""

from __future__ import annotations

import random
import threading
import time
from dataclasses import dataclass, field
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
    guard: threading.Lock = field(default_factory=threading.Lock)

    def share(self, of: list[float], part: float) -> float:
        """A quantile of what was measured."""
        return sorted(of)[min(len(of) - 1, int(part * len(of)))] if of else 0.0


def load(people: int, minutes: float, seed: int) -> Told:
    """Everybody edits a scene of their own; the first few also work on one that is shared."""
    names = [f"person-{number}" for number in range(people)]
    told = Told()
    with served("serve", names) as (address, _, _):
        keeper = Person(address)
        keeper.sign_in(names[0])
        _, together = keeper.ask("POST", "/api/scenes", quarry_pool().model_dump(mode="json"))
        for name in names[1:SHARED_BY]:
            keeper.ask("PUT", f"/api/scenes/{together['id']}/seen-by", {"name": name, "may": "work"})
        until = time.monotonic() + 60 * minutes
        acknowledged: dict[int, int] = {}
        threads = [
            threading.Thread(target=_edits, args=(address, name, at, together, until, seed, told, acknowledged))
            for at, name in enumerate(names)
        ]
        for one in threads:
            one.start()
        for one in threads:
            one.join()
        told.lost = _lost(address, names, acknowledged)
    return told


def _edits(
    address: str, name: str, at: int, together: dict[str, Any], until: float, seed: int, told: Told,
    acknowledged: dict[int, int],
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
        states[which] = _save(person, states[which], f"{name} {number}", told, acknowledged)
        if number % 4 == 0:
            began = time.monotonic()
            status, answer = person.ask("POST", "/api/evaluate", states[which]["document"])
            with told.guard:
                told.draft_ms.append(1e3 * (time.monotonic() - began))
                if status != 200:
                    told.faults.append(f"evaluate: {status} {str(answer)[:80]}")
        time.sleep(chance.uniform(*THINKS_S))


def _save(
    person: Person, state: dict[str, Any], note: str, told: Told, acknowledged: dict[int, int]
) -> dict[str, Any]:
    """One save, again from the newer state where somebody was quicker; the state after it."""
    while True:
        body = {"base_revision": state["revision"], "note": note, "document": {**state["document"], "name": note}}
        began = time.monotonic()
        status, answer = person.ask("PUT", f"/api/scenes/{state['id']}", body)
        with told.guard:
            told.save_ms.append(1e3 * (time.monotonic() - began))
            if status == 200:
                told.saves += 1
                acknowledged[state["id"]] = acknowledged.get(state["id"], 0) + 1
                return dict(answer)
            if status != 409:
                told.faults.append(f"save: {status} {str(answer)[:80]}")
                return state
            told.conflicts += 1
        state = answer["scene"]


def _lost(address: str, names: list[str], acknowledged: dict[int, int]) -> int:
    """Acknowledged saves that no revision holds: each has one, and so has the first state of a scene."""
    lost = 0
    for name in names:
        person = Person(address)
        person.sign_in(name)
        for row in person.ask("GET", "/api/scenes")[1]:
            if row["owner"] != name:
                continue
            noted = [one for one in person.ask("GET", f"/api/scenes/{row['id']}/revisions")[1] if not one["kept_aside"]]
            newest = max(one["number"] for one in noted)
            lost += max(0, min(acknowledged.get(row["id"], 0), 199) - (len(noted) - 1 if newest < 200 else 199))
    return lost
