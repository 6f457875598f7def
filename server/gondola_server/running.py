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

from studio.turns import BEHIND

SERVER = Path(__file__).resolve().parent.parent
LOOK_EVERY = 0.5
"""seconds between two looks at the processes, and two thoughts of what is due"""
MOST_LOST, LOST_WITHIN_S = 5, 300.0
"""A process that is lost more often than this is not begun again. Source: assumed"""
ASIDE, LONGEST_ADDRESS = "aside.sock", 100
"""Where the process for long questions listens, in the data folder; and the bytes that the path of a socket
may have, of 108 that Linux takes. Source: assumed"""


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


def web_process(environment: dict[str, str], *where: str, niceness: int = 0) -> subprocess.Popen[bytes]:
    """The web server at an address."""
    return subprocess.Popen(
        [
            sys.executable, "-m", "uvicorn", "gondola_server.asgi:application", "--app-dir", str(SERVER),
            "--log-level", "warning", "--no-access-log", "--timeout-graceful-shutdown", "3", "--lifespan", "off",
            "--no-server-header", *where,
        ],
        env=environment, preexec_fn=lambda: os.nice(niceness),
    )


def aside_path(folder: Path) -> str:
    """The socket of the process for long questions; empty where the data folder lies too deep for one."""
    path = str(folder / ASIDE)
    return path if len(os.fsencode(path)) <= LONGEST_ADDRESS else ""


def aside_process(environment: dict[str, str]) -> subprocess.Popen[bytes]:
    """The web server once more, below all others, at the socket that the other passes long questions to."""
    told = {**environment, "GONDOLA_ASIDE": "", "GONDOLA_BELOW": "1"}
    # whoever passes a question on says from where it came; nobody else can reach the socket
    where = ["--uds", environment["GONDOLA_ASIDE"], "--proxy-headers", "--forwarded-allow-ips", "*"]
    return web_process(told, *where, niceness=BEHIND)


def queue_process(environment: dict[str, str]) -> subprocess.Popen[bytes]:
    """The worker of long computations."""
    return subprocess.Popen([sys.executable, "-m", "gondola_core", "worker"], env=environment)


class Beside:
    """A process beside the web server, begun anew where it was lost: those who draft and save go on meanwhile."""

    def __init__(
        self, begin: Callable[[dict[str, str]], subprocess.Popen[bytes]], environment: dict[str, str], lost: str,
        can_wait: bool = False,
    ) -> None:
        """`lost` is the sentence for the keeper's terminal; `can_wait`, whether the others do without for a while."""
        self._begin, self._environment, self._sentence, self._can_wait = begin, environment, lost, can_wait
        self._lost: list[float] = []
        self.process = begin(environment)

    def keep_going(self) -> bool:
        """Begin it anew where it has ended; where that was too often of late, later, or False where it cannot wait."""
        if self.process.poll() is None:
            return True
        now = time.monotonic()
        self._lost = [one for one in self._lost if now - one < LOST_WITHIN_S]
        if len(self._lost) >= MOST_LOST:
            return self._can_wait
        self._lost.append(now)
        sys.stderr.write(f"{self._sentence}\n")
        self.process = self._begin(self._environment)
        return True


def queue(environment: dict[str, str]) -> Beside:
    """The worker of long computations, kept going."""
    lost = "The worker of long computations was lost; another takes up what it was at."
    return Beside(queue_process, environment, lost)


def aside(environment: dict[str, str]) -> list[Beside]:
    """The process for long questions, kept going; none where it has no address. Without it the web server answers."""
    if not environment.get("GONDOLA_ASIDE"):
        return []
    lost = "The process of long questions was lost; another answers the next."
    return [Beside(aside_process, environment, lost, can_wait=True)]


def until_stopped(
    web: subprocess.Popen[bytes], beside: Sequence[Beside], meanwhile: Callable[[], None] = lambda: None
) -> int:
    """Wait until the web server ends or a signal comes, doing what is due meanwhile; then end all."""
    stopping = False

    def stop(*_signal: object) -> None:
        nonlocal stopping
        stopping = True
        for process in (web, *(one.process for one in beside)):
            if process.poll() is None:
                process.send_signal(signal.SIGTERM if process is web else signal.SIGINT)

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, stop)
    going = True
    while web.poll() is None and not stopping and going:
        meanwhile()
        going = all(one.keep_going() for one in beside)
        with contextlib.suppress(subprocess.TimeoutExpired):
            web.wait(timeout=LOOK_EVERY)
    stop()
    _end([web, *(one.process for one in beside)])
    if not going:
        return 1
    return 0 if web.returncode in (0, -signal.SIGTERM, -signal.SIGINT) else web.returncode


def _end(running: Sequence[subprocess.Popen[bytes]]) -> None:
    for process in running:
        try:
            process.wait(timeout=10)
        except subprocess.TimeoutExpired:
            process.kill()
