"""Somebody asks for the worst drafts there are, several at a time; somebody else drags a line beside them."""

from __future__ import annotations

import statistics
import sys
import threading
import time
from typing import Any

from gondola_core.samples import quarry_pool

from .serving import ROOT, Person, served

sys.path.insert(0, str(ROOT / "core" / "tests"))
from worst_scenes import largest

AT_A_TIME = 4


def drags_beside(seconds: float) -> tuple[float, float, int, float]:
    """Median of a drag alone and beside the worst drafts [ms]; how many of these were answered, and the slowest [s]."""
    worst = largest(240.0, order_n=0.5).model_dump(mode="json")
    with served("serve", ["large", "small"]) as (address, _, _):
        small = Person(address)
        small.sign_in("small")
        _drags(small, 5.0, 0)
        alone = _drags(small, seconds / 3, 1)
        over, took = threading.Event(), []
        threads = [threading.Thread(target=_asks, args=(address, worst, at, over, took)) for at in range(AT_A_TIME)]
        for one in threads:
            one.start()
        time.sleep(2.0)
        beside = _drags(small, seconds, 2)
        over.set()
        for one in threads:
            one.join()
    return alone, beside, len(took), max(took, default=0.0)


def _drags(person: Person, seconds: float, run: int) -> float:
    """Median of drafts of a scene whose line moves on each time [ms]."""
    document, taken, step = quarry_pool().model_dump(mode="json"), [], 0
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        step += 1
        document["pours"][1]["top_depth_mm"] = 30.0 + 0.01 * (1000 * run + step)
        began = time.monotonic()
        status, told = person.ask("POST", "/api/evaluate", document)
        if status != 200:
            raise RuntimeError(f"a drag was answered {status}: {str(told)[:200]}")
        taken.append(1e3 * (time.monotonic() - began))
        time.sleep(0.1)
    return statistics.median(taken)


def _asks(address: str, worst: dict[str, Any], at: int, over: threading.Event, took: list[float]) -> None:
    person, step = Person(address), 0
    person.sign_in("large")
    while not over.is_set():
        step += 1
        began = time.monotonic()
        brief = {**worst["brief"], "room": {**worst["brief"]["room"], "night_c": 17.0 + 0.01 * step + at}}
        status, _ = person.ask("POST", "/api/evaluate", {**worst, "brief": brief})
        if status == 200:
            took.append(time.monotonic() - began)
