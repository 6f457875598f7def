"""Server-sent events: one task looks for all who listen to things of a kind, and no thread waits."""

from __future__ import annotations

import asyncio
import json
from collections.abc import AsyncIterator, Callable
from typing import Any, Generic, TypeVar

from asgiref.sync import sync_to_async

K = TypeVar("K")
State = dict[str, Any]

LOOK_EVERY = 0.25
"""seconds between two looks"""
ALIVE_EVERY = 15.0
"""seconds after which a quiet stream sends a comment, so that nobody between closes it"""


class Watch(Generic[K]):
    """Things that somebody listens to, read together.

    read   states of things by their keys, from the database
    over   True for a state after which nothing comes
    """

    def __init__(self, read: Callable[[list[K]], dict[K, State]], over: Callable[[State], bool]) -> None:
        self._read, self._over = read, over
        self._listening: dict[K, int] = {}
        self._states: dict[K, State] = {}
        self._changed = asyncio.Condition()
        self._task: asyncio.Task[None] | None = None

    async def follow(self, key: K) -> AsyncIterator[State | None]:
        """States of a thing as they change, until it is over; None where nothing was said for long."""
        self._listening[key] = self._listening.get(key, 0) + 1
        last: State | None = None
        try:
            while last is None or not self._over(last):
                now = self._states.get(key)
                if now is not None and now != last:
                    last = now
                    yield now
                    continue
                if self._task is None or self._task.done():  # nobody looks yet, or its look has failed
                    self._task = asyncio.create_task(self._look())
                try:
                    async with self._changed:
                        await asyncio.wait_for(self._changed.wait(), ALIVE_EVERY)
                except TimeoutError:
                    yield None
        finally:
            self._listening[key] -= 1
            if not self._listening[key]:
                del self._listening[key]
                self._states.pop(key, None)

    async def _look(self) -> None:
        while self._listening:
            self._states |= await sync_to_async(self._read)(list(self._listening))
            async with self._changed:
                self._changed.notify_all()
            await asyncio.sleep(LOOK_EVERY)


class Watches(Generic[K]):
    """A watch for each event loop that runs."""

    def __init__(self, read: Callable[[list[K]], dict[K, State]], over: Callable[[State], bool]) -> None:
        self._read, self._over = read, over
        self._by_loop: dict[int, Watch[K]] = {}

    def here(self) -> Watch[K]:
        """The watch of the running event loop."""
        return self._by_loop.setdefault(id(asyncio.get_running_loop()), Watch(self._read, self._over))

    async def events(self, key: K) -> AsyncIterator[str]:
        """Server-sent events of a thing."""
        async for state in self.here().follow(key):
            yield said(state)


def said(state: State | None) -> str:
    """A state as it is sent; a comment where there is none."""
    return ": alive\n\n" if state is None else f"data: {json.dumps(state)}\n\n"
