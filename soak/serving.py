"""A real server on data of its own, and people who ask it."""

from __future__ import annotations

import contextlib
import http.cookiejar
import json
import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent
MANAGE = str(ROOT / "server" / "manage.py")
PASSWORD = "a long salt wall"


def free_port() -> int:
    """A port of loopback that nobody uses."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def is_free(port: int) -> bool:
    """Whether nobody uses a port of loopback."""
    with socket.socket() as probe:
        return probe.connect_ex(("127.0.0.1", port)) != 0


class Person:
    """Somebody with a browser's cookies."""

    def __init__(self, address: str) -> None:
        self.address = address
        self.jar = http.cookiejar.CookieJar()
        self.web = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.web.open(address, timeout=60).read()

    def ask(self, method: str, path: str, body: object = None) -> tuple[int, Any]:
        """Status and answer."""
        request = urllib.request.Request(self.address + path, method=method)
        if body is not None or method != "GET":
            token = next((one.value for one in self.jar if one.name == "csrftoken"), "")
            request.data = json.dumps(body).encode()
            request.add_header("Content-Type", "application/json")
            request.add_header("X-CSRFToken", token or "")
            request.add_header("Origin", self.address)
        try:
            with self.web.open(request, timeout=120) as answer:
                content = answer.read()
                return answer.status, json.loads(content) if content else None
        except urllib.error.HTTPError as refused:
            content = refused.read()
            return refused.code, json.loads(content) if content.startswith(b"{") else content.decode("utf-8", "replace")

    def sign_in(self, name: str) -> None:
        """With the password that all have here."""
        status, told = self.ask("POST", "/api/session", {"name": name, "password": PASSWORD})
        if status != 200:
            raise RuntimeError(f"{name} was not let in: {told}")


@contextlib.contextmanager
def served(
    command: str, names: list[str], program: Sequence[str] = (sys.executable, "-m", "gondola_core")
) -> Iterator[tuple[str, Path, int]]:
    """`gondola demo` or `gondola serve` with accounts of those names: its address, data and process group.

    program  what the command is given to; another than this checkout's is started in the data folder
    """
    with tempfile.TemporaryDirectory() as folder:
        away = program[0] != sys.executable
        hidden = ("GONDOLA_", "PYTHON") if away else ("GONDOLA_",)
        known = {key: value for key, value in os.environ.items() if not key.startswith(hidden)}
        told = {**known, "GONDOLA_DATA": folder}
        if names:
            _accounts(told, names)
        port = free_port()
        log = (Path(folder) / "log.txt").open("w")
        process = subprocess.Popen(
            [*program, command, "--port", str(port)], env=told, start_new_session=True, stdout=log, stderr=log,
            cwd=folder if away else None,
        )
        address = f"http://127.0.0.1:{port}"
        try:
            _until_it_answers(address)
            yield address, Path(folder), process.pid
        finally:
            with contextlib.suppress(ProcessLookupError):
                os.killpg(process.pid, signal.SIGTERM)
            process.wait(timeout=60)
            log.close()


def _accounts(told: dict[str, str], names: list[str]) -> None:
    made = {**told, "GONDOLA_SECRET_KEY": "for-the-soak", "GONDOLA_PLAIN": "1"}
    subprocess.run([sys.executable, MANAGE, "migrate", "--verbosity", "0"], env=made, check=True)
    text = (
        "from django.contrib.auth.models import User\n"
        f"for at, name in enumerate({names!r}): User.objects.create_user(name, password={PASSWORD!r}, is_staff=not at)"
    )
    subprocess.run([sys.executable, MANAGE, "shell", "-v", "0", "-c", text], env=made, check=True)


def _until_it_answers(address: str) -> None:
    for _ in range(600):
        try:
            urllib.request.urlopen(f"{address}/api/session", timeout=5).close()
            return
        except urllib.error.HTTPError:
            return
        except OSError:
            time.sleep(0.2)
    raise RuntimeError("the server did not answer within two minutes")
