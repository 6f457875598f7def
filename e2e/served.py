"""The demo as a process of its own, asked over HTTP: for what only a real server shows."""

from __future__ import annotations

import contextlib
import http.cookiejar
import json
import os
import signal
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from typing import Any

from django.conf import settings
from django.test import SimpleTestCase

from soak.serving import free_port

STARTS_WITHIN, EVERY_S = 600, 0.2
"""looks, and seconds between them"""
SECRET = "only-for-this-test"


class ServedDemo(SimpleTestCase):
    """Data of its own, a port of its own, and a cookie jar."""

    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.data = folder.name
        self.port = free_port()
        self.address = f"http://127.0.0.1:{self.port}"
        self.jar = http.cookiejar.CookieJar()
        self.web = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))

    def start(self) -> subprocess.Popen[bytes]:
        """The demo, in a process group of its own, once it answers."""
        return self.started([sys.executable, "-m", "gondola_core", "demo", "--port", str(self.port)], {})

    def started(self, command: list[str], more: dict[str, str]) -> subprocess.Popen[bytes]:
        """A server by its command, once it answers."""
        known = {key: value for key, value in os.environ.items() if not key.startswith("GONDOLA_")}
        demo = subprocess.Popen(
            command, env={**known, "GONDOLA_DATA": self.data, **more}, start_new_session=True,
            stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )
        self.addCleanup(self.stop, demo)
        for _ in range(STARTS_WITHIN):
            try:
                self.web.open(f"{self.address}/api/session", timeout=5).read()
                return demo
            except urllib.error.HTTPError as answer:
                answer.close()
                return demo
            except (urllib.error.URLError, OSError):
                time.sleep(EVERY_S)
        raise AssertionError("the demo was not served within two minutes")

    def served_alone(self) -> subprocess.Popen[bytes]:
        """Only what answers, on data that the demo has prepared: no queue, no kernels warmed before they are needed."""
        return self.started(
            [
                sys.executable, "-m", "uvicorn", "gondola_server.asgi:application", "--app-dir",
                str(settings.SERVER), "--host", "127.0.0.1", "--port", str(self.port), "--lifespan", "off",
            ],
            {
                "GONDOLA_DEMO": "1", "GONDOLA_HOSTS": "127.0.0.1", "GONDOLA_SECRET_KEY": SECRET,
                "DJANGO_SETTINGS_MODULE": "gondola_server.settings",
            },
        )

    def stop(self, demo: subprocess.Popen[bytes]) -> int:
        """As with Ctrl+C."""
        if demo.poll() is None:
            demo.send_signal(signal.SIGTERM)
        return demo.wait(timeout=60)

    def kill(self, demo: subprocess.Popen[bytes]) -> None:
        """All its processes at once, with no time for anything."""
        with contextlib.suppress(ProcessLookupError):
            os.killpg(demo.pid, signal.SIGKILL)
        demo.wait(timeout=60)

    def ask(self, path: str, body: object = None) -> Any:
        """A question, its answer as JSON."""
        request = urllib.request.Request(self.address + path)
        if body is not None:
            if not any(cookie.name == "csrftoken" for cookie in self.jar):
                self.web.open(self.address, timeout=60).read()  # the page brings it
            token = next(cookie.value for cookie in self.jar if cookie.name == "csrftoken")
            request.data = json.dumps(body).encode()
            request.add_header("Content-Type", "application/json")
            request.add_header("X-CSRFToken", token or "")
            request.add_header("Origin", self.address)
        return json.load(self.web.open(request, timeout=60))
