"""Tells how far a march is while its kernels run, and ends it early if whoever hears wants that."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from types import TracebackType

import numpy as np
from numpy.typing import NDArray

TELL_EVERY = 0.15
"""seconds between two tellings"""
ENDED, TIME = 0, 1
"""Places of the signal that kernels and listener share: end it if not 0, time reached [s]."""

LISTENER: ContextVar[Callable[[float], None] | None] = ContextVar("listener", default=None)


@contextmanager
def heard_by(told: Callable[[float], None]) -> Iterator[None]:
    """Within it, `told` hears every march that tells nobody else, whichever answer asks for it; what it raises ends it.

    >>> with heard_by(print):
    ...     Hearing(None, 1.0).__enter__().__exit__(None, None, None)
    1.0
    """
    token = LISTENER.set(told)
    try:
        yield
    finally:
        LISTENER.reset(token)


class Hearing:
    """While it is entered, a thread tells the share of `end` that is done.

    What `told` raises ends the kernels at their next step, and is raised by `check`. The numbers are the same
    whether anybody hears or not.
    """

    def __init__(self, told: Callable[[float], None] | None, end: float) -> None:
        self.signal: NDArray[np.float64] = np.zeros(2)
        self._told, self._end = told or LISTENER.get(), end
        self._over = threading.Event()
        self._raised: BaseException | None = None
        self._thread = threading.Thread(target=self._tell, daemon=True)

    def __enter__(self) -> Hearing:
        if self._told is not None:
            self._thread.start()
        return self

    def __exit__(
        self, kind: type[BaseException] | None, raised: BaseException | None, trace: TracebackType | None
    ) -> None:
        self._over.set()
        if self._told is None:
            return
        self._thread.join()
        if raised is None:
            self.check()
            self._told(1.0)

    def check(self) -> None:
        """Raise what `told` raised."""
        if self._raised is not None:
            raise self._raised

    def _tell(self) -> None:
        assert self._told is not None
        while not self._over.wait(TELL_EVERY):
            try:
                self._told(min(1.0, float(self.signal[TIME]) / self._end))
            except BaseException as raised:  # raised again where the march was asked for
                self._raised = raised
                self.signal[ENDED] = 1.0
                return
