"""The pour day: re-planning after an event, predicting from a measured start, and saves beside fifty open streams."""

from __future__ import annotations

import http.cookiejar
import json
import os
import socket
import statistics
import subprocess
import sys
import tempfile
import threading
import time
import urllib.request
from collections.abc import Callable
from datetime import timedelta
from typing import Any

from page import TIMES, _free_port, _wait_for
from told import poured, told

from gondola_core.answers.kept import Keeper
from gondola_core.bench.happened import as_happened
from gondola_core.evaluate import evaluate
from gondola_core.samples import quarry_pool
from gondola_core.studies.replan import replan
from gondola_core.studies.watching import watched

STREAMS = 50


def _median_ms(work: Callable[[int], object]) -> float:
    work(0)
    taken = []
    for at in range(1, TIMES + 1):
        began = time.perf_counter()
        work(at)
        taken.append(1e3 * (time.perf_counter() - began))
    return statistics.median(taken)


def after_an_event() -> None:
    """Each time with another measured start, so that nothing is kept but what the plan itself says."""
    scene, keeper = quarry_pool(), Keeper()
    evaluate(scene, keeper=keeper)
    first = scene.pours[0].id
    later = scene.brief.first_pour_at + timedelta(hours=2)

    def happened(at: int) -> Any:
        mix = told((-0.1, "measured", {"what": "mix", "pour_id": first, "measured_c": 22.0 + 0.3 * at}))
        return as_happened(scene, [*poured(first, 0.01 * at), *mix])

    plain = _median_ms(lambda at: evaluate(happened(100 + at), keeper=Keeper()))
    again = _median_ms(lambda at: replan(scene, happened(at), 1, later, keeper=keeper))
    band = _median_ms(lambda at: watched(happened(at), 1, keeper=keeper))
    print(f"  planned anew after an event      {again:6.0f} ms, {again / plain:4.2f} of a whole outcome (500 ms asked)")
    print(f"  predicted from a measured start  {band:6.0f} ms, {band / plain:4.2f} of a whole outcome (2000 ms asked)")


def beside_streams() -> None:
    """Saves answered while so many devices follow one run, against saves with none."""
    port = _free_port()
    address = f"http://127.0.0.1:{port}"
    with tempfile.TemporaryDirectory() as data:
        server = subprocess.Popen(
            [sys.executable, "-m", "gondola_core", "demo", "--port", str(port)],
            env={**os.environ, "GONDOLA_DATA": data}, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )
        wires: list[socket.socket] = []
        try:
            _wait_for(address)
            ask = _Asker(address)
            state = ask("/api/scenes/1")
            run = ask("/api/scenes/1/runs", {"zone": "UTC"})["run"]["id"]
            alone = _save_ms(ask, state)
            wires = [_stream(port, f"/api/runs/{run}/stream", ask.cookies) for _ in range(STREAMS)]
            threading.Event().wait(2.0)
            crowded = _save_ms(ask, ask("/api/scenes/1"))
            print(
                f"  a save beside {STREAMS} streams         {crowded:6.0f} ms, {crowded / alone:4.2f} of one alone "
                "(100 ms asked)"
            )
        finally:
            for wire in wires:
                wire.close()
            server.terminate()
            server.wait(timeout=30)


class _Asker:
    def __init__(self, address: str) -> None:
        self.address, self.jar = address, http.cookiejar.CookieJar()
        self.web = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self.jar))
        self.web.open(address).read()

    @property
    def cookies(self) -> str:
        return "; ".join(f"{one.name}={one.value}" for one in self.jar)

    def __call__(self, path: str, body: object = None, method: str | None = None) -> Any:
        request = urllib.request.Request(self.address + path, method=method)
        if body is not None:
            request.data = json.dumps(body).encode()
            request.add_header("Content-Type", "application/json")
            request.add_header("X-CSRFToken", next(one.value for one in self.jar if one.name == "csrftoken") or "")
            request.add_header("Origin", self.address)
        return json.load(self.web.open(request, timeout=60))


def _save_ms(ask: _Asker, state: dict[str, Any]) -> float:
    held = {"revision": state["revision"]}

    def save(at: int) -> None:
        document = {**state["document"], "name": f"saved {at}"}
        body = {"base_revision": held["revision"], "document": document}
        held["revision"] = ask("/api/scenes/1", body, "PUT")["revision"]

    return _median_ms(save)


def _stream(port: int, path: str, cookies: str) -> socket.socket:
    wire = socket.create_connection(("127.0.0.1", port), timeout=10)
    wire.sendall(f"GET {path} HTTP/1.1\r\nHost: 127.0.0.1:{port}\r\nCookie: {cookies}\r\n\r\n".encode())
    return wire


def pour_day() -> None:
    """All of it."""
    print("The pour day")
    after_an_event()
    beside_streams()
