"""Starts the processes of an installation and ends them together."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
from collections.abc import Callable, Sequence
from pathlib import Path

SERVER = Path(__file__).resolve().parent.parent
LOOK_EVERY = 0.5
"""seconds between two looks at the processes, and two thoughts of what is due"""


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


def until_stopped(
    web: subprocess.Popen[bytes], queue: subprocess.Popen[bytes], meanwhile: Callable[[], None] = lambda: None
) -> int:
    """Wait until one of them ends or a signal comes, doing what is due meanwhile; then end both."""
    running = (web, queue)

    def stop(*_signal: object) -> None:
        for process in running:
            if process.poll() is None:
                process.send_signal(signal.SIGINT if process is queue else signal.SIGTERM)

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, stop)
    while True:
        meanwhile()
        for process in running:
            try:
                code = process.wait(timeout=LOOK_EVERY)
            except subprocess.TimeoutExpired:
                continue
            stop()
            _end([one for one in running if one is not process])
            return 0 if code in (0, -signal.SIGTERM, -signal.SIGINT) else code


def _end(running: Sequence[subprocess.Popen[bytes]]) -> None:
    for process in running:
        try:
            process.wait(timeout=10)
        except subprocess.TimeoutExpired:
            process.kill()
