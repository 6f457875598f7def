"""Starts the processes of an installation and ends them together."""

from __future__ import annotations

import contextlib
import os
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Sequence
from pathlib import Path

SERVER = Path(__file__).resolve().parent.parent
LOOK_EVERY = 0.5
"""seconds between two looks at the processes, and two thoughts of what is due"""
MOST_LOST, LOST_WITHIN_S = 5, 300.0
"""A worker that is lost more often than this is not begun again. Source: assumed"""


def environment_for(folder: Path, key: str, **more: str) -> dict[str, str]:
    """What the processes of an installation need to know."""
    return {
        **os.environ, "GONDOLA_DATA": str(folder), "GONDOLA_SERVES": "1",
        "GONDOLA_SECRET_KEY": os.environ.get("GONDOLA_SECRET_KEY", key),
        "DJANGO_SETTINGS_MODULE": "gondola_server.settings", **more,
    }


def management(*words: str) -> list[str]:
    """A management command as it is started, wherever the code lies and whatever lies in the current folder."""
    return [sys.executable, "-P", "-m", "django", *words]


def manage(environment: dict[str, str], *words: str) -> None:
    """A management command, in a process of its own."""
    subprocess.run(management(*words), check=True, env=environment)


def web_process(environment: dict[str, str], host: str, port: int, *more: str) -> subprocess.Popen[bytes]:
    """The web server."""
    return subprocess.Popen(
        [
            sys.executable, "-m", "uvicorn", "gondola_server.asgi:application", "--app-dir", str(SERVER),
            "--host", host, "--port", str(port), "--log-level", "warning", "--no-access-log",
            "--timeout-graceful-shutdown", "3", "--lifespan", "off", "--no-server-header", *more,
        ],
        env=environment,
    )


def queue_process(environment: dict[str, str]) -> subprocess.Popen[bytes]:
    """The worker of long computations."""
    return subprocess.Popen([sys.executable, "-m", "gondola_core", "worker"], env=environment)


class Queue:
    """The worker of long computations, begun anew where it was lost: those who draft and save go on meanwhile."""

    def __init__(self, environment: dict[str, str]) -> None:
        self._environment = environment
        self._lost: list[float] = []
        self.process = queue_process(environment)

    def keep_going(self) -> bool:
        """Begin it anew where it has ended; False where it was lost too often of late, and is left so."""
        if self.process.poll() is None:
            return True
        now = time.monotonic()
        self._lost = [one for one in self._lost if now - one < LOST_WITHIN_S] + [now]
        if len(self._lost) > MOST_LOST:
            return False
        sys.stderr.write("The worker of long computations was lost; another takes up what it was at.\n")
        self.process = queue_process(self._environment)
        return True


def until_stopped(
    web: subprocess.Popen[bytes], queue: Queue, meanwhile: Callable[[], None] = lambda: None
) -> int:
    """Wait until the web server ends or a signal comes, doing what is due meanwhile; then end both."""
    stopping = False

    def stop(*_signal: object) -> None:
        nonlocal stopping
        stopping = True
        for process, how in ((web, signal.SIGTERM), (queue.process, signal.SIGINT)):
            if process.poll() is None:
                process.send_signal(how)

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, stop)
    going = True
    while web.poll() is None and not stopping and going:
        meanwhile()
        going = queue.keep_going()
        with contextlib.suppress(subprocess.TimeoutExpired):
            web.wait(timeout=LOOK_EVERY)
    stop()
    _end([web, queue.process])
    if not going:
        return 1
    return 0 if web.returncode in (0, -signal.SIGTERM, -signal.SIGINT) else web.returncode


def _end(running: Sequence[subprocess.Popen[bytes]]) -> None:
    for process in running:
        try:
            process.wait(timeout=10)
        except subprocess.TimeoutExpired:
            process.kill()
