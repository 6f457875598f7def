"""Remakes docs/screenshots from the demo data, with a server of its own on a free port."""

from __future__ import annotations

import os
import signal
import socket
import subprocess
import sys
import tempfile
import time
import urllib.error
import urllib.request
from pathlib import Path

from playwright.sync_api import Page, expect, sync_playwright

ROOT = Path(__file__).resolve().parent.parent
PICTURES = ROOT / "docs" / "screenshots"
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def wait_for(address: str) -> None:
    for _ in range(240):
        try:
            urllib.request.urlopen(address, timeout=2)
            return
        except (urllib.error.URLError, OSError):
            time.sleep(0.5)
    raise SystemExit(f"{address} does not answer")


def drawn(page: Page) -> None:
    """Until numbers, fonts and the picture of the water are there."""
    expect(page.get_by_role("slider", name="Gondola")).to_be_visible(timeout=90_000)
    expect(page.locator("svg image")).to_have_count(1, timeout=30_000)
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(900)


def tried(page: Page) -> None:
    page.get_by_role("button", name="Try: two pours of 26 mm").first.click()
    row = page.get_by_role("group", name="Tried").get_by_role("row", name="hottest")
    expect(row).not_to_contain_text("...", timeout=30_000)
    page.wait_for_timeout(900)


def night(page: Page) -> None:
    page.get_by_role("button", name="night").click()
    page.wait_for_timeout(400)


def main() -> None:
    PICTURES.mkdir(parents=True, exist_ok=True)
    port = free_port()
    address = f"http://127.0.0.1:{port}"
    with tempfile.TemporaryDirectory() as data:
        server = subprocess.Popen(
            [sys.executable, "-m", "gondola_core", "demo", "--port", str(port)],
            env={**os.environ, "GONDOLA_DATA": data}, stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        try:
            wait_for(address)
            with sync_playwright() as playwright:
                browser = playwright.chromium.launch(
                    executable_path="/usr/bin/chromium", args=FLAGS
                )
                shoot(browser, address)
                browser.close()
        finally:
            server.send_signal(signal.SIGTERM)
            server.wait()


def shoot(browser, address: str) -> None:  # type: ignore[no-untyped-def]
    scenes = [
        ("pours", "pours", None), ("remedy-tried", "pours", tried), ("figures", "figures", None),
        ("water", "water", None), ("tank", "tank", None), ("night", "pours", night),
    ]
    for name, stage, act in scenes:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/scenes/1/{stage}")
        drawn(page)
        if act:
            act(page)
        page.screenshot(path=PICTURES / f"{name}.png")
        page.close()
    page = browser.new_page(viewport={"width": 1000, "height": 800})
    page.goto(f"{address}/scenes/1/sheet")
    expect(page.get_by_role("region", name="Pour 4")).to_be_visible(timeout=30_000)
    page.evaluate("document.fonts.ready")
    page.screenshot(path=PICTURES / "pour-sheet.png", full_page=True)
    page.goto(address)
    expect(page.get_by_role("link", name="Wagon in the Quarry Pool")).to_be_visible()
    page.screenshot(path=PICTURES / "scenes.png")
    page.close()


if __name__ == "__main__":
    main()
