"""The whole demo as a person starts it: served, stopped in the middle of a job, started again."""

from __future__ import annotations

import http.cookiejar
import json
import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
import unittest
import urllib.error
import urllib.request


class Demo(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.data = folder.name
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.address = f"http://127.0.0.1:{self.port}"
        jar = http.cookiejar.CookieJar()
        self.jar = jar
        self.web = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(jar))

    def start(self) -> subprocess.Popen[bytes]:
        known = {key: value for key, value in os.environ.items() if not key.startswith("GONDOLA_")}
        demo = subprocess.Popen(
            [sys.executable, "-m", "gondola_core", "demo", "--port", str(self.port)],
            env={**known, "GONDOLA_DATA": self.data},
            stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )
        self.addCleanup(self.stop, demo)
        for _ in range(240):
            try:
                self.web.open(self.address, timeout=5).read()
                return demo
            except (urllib.error.URLError, OSError):
                time.sleep(0.5)
        raise AssertionError("the demo was not served within two minutes")

    def stop(self, demo: subprocess.Popen[bytes]) -> int:
        if demo.poll() is None:
            demo.send_signal(signal.SIGTERM)
        return demo.wait(timeout=60)

    def ask(self, path: str, body: object = None) -> dict[str, object]:
        request = urllib.request.Request(self.address + path)
        if body is not None:
            token = next(cookie.value for cookie in self.jar if cookie.name == "csrftoken")
            request.data = json.dumps(body).encode()
            request.add_header("Content-Type", "application/json")
            request.add_header("X-CSRFToken", token or "")
            request.add_header("Origin", self.address)
        return json.load(self.web.open(request, timeout=60))

    def events(self, job: object) -> str:
        """The stream of a job that is over: one event, then its end."""
        with self.web.open(f"{self.address}/api/jobs/{job}/events", timeout=30) as stream:
            return str(stream.read().decode())

    def test_signs_its_owner_in_and_a_restart_loses_no_job(self) -> None:
        demo = self.start()
        self.assertEqual(self.ask("/api/session"), {"name": "demo", "demo": True})
        self.assertEqual({row["name"] for row in self.ask("/api/scenes")},
                         {"Wagon in the Quarry Pool", "Eelgrass and Seahorse", "The Ferry Landing"})
        scene = self.ask("/api/scenes/1")["document"]
        run = self.ask("/api/jobs/fine-march", {"scene": scene})
        self.assertIn(run["state"], ("waiting", "running"))
        self.assertEqual(self.stop(demo), 0)
        again = self.start()
        for _ in range(240):
            state = self.ask(f"/api/jobs/{run['id']}")
            if state["state"] not in ("waiting", "running"):
                break
            time.sleep(0.5)
        self.assertEqual(state["state"], "done")
        outcome = self.ask(f"/api/jobs/{run['id']}/fine-march")
        self.assertEqual(outcome["grade"], "fine")
        self.assertIn('"state": "done"', self.events(run["id"]))
        self.assertEqual(self.stop(again), 0)


if __name__ == "__main__":
    unittest.main()
