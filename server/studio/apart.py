"""Reads what a person brings in a process of its own, with limits of memory and time: a file cannot harm the others."""

from __future__ import annotations

import multiprocessing
import resource
import threading
from collections.abc import Callable
from multiprocessing.connection import Connection
from typing import Any, TypeVar

from gondola_core.errors import GondolaError

T = TypeVar("T")
MOST_MEMORY = 2 * 2**30
"""bytes that a reader may hold"""
MOST_SECONDS = 60.0
AT_ONCE = threading.BoundedSemaphore(2)
"""Files that are read at one time; others wait."""
PRELOADED = [
    "gondola_core.shape.bodies.bringing", "gondola_core.shape.bedform", "gondola_core.learning.temperature_log",
    "gondola_core.tint.measured_spectrum", "trimesh", "PIL.Image",
]
_CONTEXT: Any = multiprocessing.get_context("forkserver")
_CONTEXT.set_forkserver_preload(PRELOADED)


def apart(work: Callable[..., T], *given: Any, what: str, seconds: float = MOST_SECONDS) -> T:
    """What `work` makes of what is given, in a process of its own.

    what  the file as the person calls it, for the sentence where reading it takes too much

    GondolaError of the work itself; or where it took more memory or time than is allowed, or died.
    """
    with AT_ONCE:
        here, there = _CONTEXT.Pipe(duplex=False)
        process = _CONTEXT.Process(target=_inside, args=(there, work, given, seconds), daemon=True)
        _start(process)
        there.close()
        try:
            if not here.poll(seconds):
                raise GondolaError(f"Reading {what} took longer than {seconds:.0f} s and was ended: make it simpler.")
            kind, told = here.recv()
        except EOFError:
            raise GondolaError(f"Reading {what} ended before its end: make it simpler, or export it again.") from None
        finally:
            process.kill()
            process.join()
            here.close()
    if kind == "refused":
        raise told
    if kind == "memory":
        raise GondolaError(f"Reading {what} would take over {MOST_MEMORY // 2**30} GB of memory: make it simpler.")
    if kind == "fault":
        raise RuntimeError(told)
    return told  # type: ignore[no-any-return]


def _start(process: Any) -> None:
    """Also from a worker that is a daemon, such as one of a test run: what is started here ends before we return."""
    ourselves = multiprocessing.current_process()
    daemon = ourselves.daemon
    if daemon:
        ourselves.daemon = False
    try:
        process.start()
    finally:
        if daemon:
            ourselves.daemon = True


def _inside(out: Connection, work: Callable[..., Any], given: tuple[Any, ...], seconds: float) -> None:
    resource.setrlimit(resource.RLIMIT_DATA, (MOST_MEMORY, MOST_MEMORY))
    resource.setrlimit(resource.RLIMIT_CPU, (int(seconds) + 1, int(seconds) + 2))
    resource.setrlimit(resource.RLIMIT_CORE, (0, 0))
    try:
        told: tuple[str, Any] = ("made", work(*given))
    except GondolaError as error:
        told = ("refused", error)
    except MemoryError:
        told = ("memory", None)
    except Exception as error:
        told = ("fault", f"{type(error).__name__}: {error}")
    out.send(told)
