"""The page in a browser: first paint of the first page, and a scene opened until it is answered, warm."""

from __future__ import annotations

import os
import signal
import socket
import statistics
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request

from playwright.sync_api import Page, sync_playwright

FLAGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking"]
TIMES = 7
PAINT = "performance.getEntriesByName('first-contentful-paint')[0].startTime"


def _free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def _wait_for(address: str) -> None:
    for _ in range(240):
        try:
            urllib.request.urlopen(address, timeout=2)
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.5)
    raise SystemExit(f"{address} does not answer")


def _painted_ms(page: Page, address: str) -> float:
    page.goto(address)
    page.get_by_role("article").first.wait_for()
    return float(page.evaluate(PAINT))


def _opened_ms(page: Page, address: str) -> float:
    began = time.perf_counter()
    page.goto(f"{address}/scenes/3/pours")
    page.get_by_role("region", name="Days").wait_for()
    return 1e3 * (time.perf_counter() - began)


def the_page() -> None:
    """Medians over some openings, after one that is not counted."""
    address = f"http://127.0.0.1:{_free_port()}"
    with tempfile.TemporaryDirectory() as data:
        server = subprocess.Popen(
            [sys.executable, "-m", "gondola_core", "demo", "--port", address.rsplit(":", 1)[1]],
            env={**os.environ, "GONDOLA_DATA": data}, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )
        try:
            _wait_for(address)
            with sync_playwright() as playwright:
                browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
                page = browser.new_page(viewport={"width": 1280, "height": 800})
                for measure, words, most in (
                    (_painted_ms, "first paint of the first page", 1000), (_opened_ms, "a scene answered", 1500),
                ):
                    measure(page, address)
                    taken = [measure(page, address) for _ in range(TIMES)]
                    print(f"  {words}: median {statistics.median(taken):.0f} ms, worst {max(taken):.0f}"
                          f"   (to reach: {most})")
                browser.close()
        finally:
            server.send_signal(signal.SIGTERM)
            server.wait()
