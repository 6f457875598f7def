"""A real browser on the real page, offline; one browser a class, one context a test."""

from __future__ import annotations

import os
import re
from pathlib import Path
from typing import Any

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "1")

from django.conf import settings
from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.test import override_settings
from playwright.sync_api import Page, expect, sync_playwright
from scenes.actions import create_scene
from scenes.models import Scene
from studio.actions import demo_owner

from gondola_core.evaluate import evaluate
from gondola_core.samples import quarry_pool

CHROMIUM = "/usr/bin/chromium"
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]
AXE = Path(settings.ROOT) / "web" / "node_modules" / "axe-core" / "axe.min.js"
RULES = "axe.run(document, {runOnly: ['wcag2a','wcag2aa','wcag21aa','wcag22aa']})"
"""what is looked for by axe"""
PATIENCE = 30_000
"""milliseconds; two noisy cores"""
QUIET = 300
"""milliseconds without a question to the server after which a change has been saved"""
SLOWER = float(os.environ.get("E2E_SLOWER", "1"))
"""times slower than this machine that the browser is made to run, to find tests that race it"""
SETTLED = """
() => new Promise((settled) => requestAnimationFrame(() => requestAnimationFrame(settled)))
"""


@override_settings(DEMO=True)
class BrowserCase(StaticLiveServerTestCase):
    host = "127.0.0.1"

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        evaluate(quarry_pool())
        playwright = sync_playwright().start()
        cls.addClassCleanup(playwright.stop)
        cls.browser = playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        cls.addClassCleanup(cls.browser.close)
        expect.set_options(timeout=PATIENCE)

    def setUp(self) -> None:
        self.scene = create_scene(owner=demo_owner(), document=quarry_pool())
        self.context = self.browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
        self.addCleanup(self.context.close)
        self.complaints: list[str] = []
        self._asked: dict[Page, int] = {}
        self.page = self.open()

    def open(self, stage: str = "pours") -> Page:
        page = self.context.new_page()
        page.set_default_timeout(PATIENCE)
        page.on("console", self._note)
        self._asked[page] = 0
        page.on("request", lambda _: self._count(page, 1))
        page.on("requestfinished", lambda _: self._count(page, -1))
        page.on("requestfailed", lambda _: self._count(page, -1))
        page.on("pageerror", lambda error: self.complaints.append(str(error)))
        if SLOWER > 1:
            devtools = self.context.new_cdp_session(page)
            devtools.send("Emulation.setCPUThrottlingRate", {"rate": SLOWER})
        page.goto(f"{self.live_server_url}/scenes/{self.scene.pk}/{stage}")
        expect(page.get_by_role("region", name="Sounding")).to_be_visible()
        self.settled(page)
        return page

    def go(self, stage: str, page: Page | None = None) -> None:
        """Opens a stage by its link and waits until it is the one that stands on the page."""
        page = page or self.page
        link = page.get_by_role("navigation").get_by_role("link", name=stage)
        link.click()
        expect(link).to_have_attribute("aria-current", "page")
        self.settled(page)

    def part(self, word: str, page: Page | None = None) -> None:
        """Opens a part of the inspector by its word."""
        words = (page or self.page).get_by_role("group", name=re.compile("^Parts of"))
        words.get_by_role("button", name=word, exact=True).click()

    def _note(self, message: Any) -> None:
        # the page is kept on the device only where a test asks for it
        expected = any(one in message.text for one in ("status of 409", "status of 422", "registration blocked"))
        if message.type in ("error", "warning") and not expected:
            self.complaints.append(message.text)

    def tearDown(self) -> None:
        self.assertEqual(self.complaints, [], "the browser's console complained")

    def _count(self, page: Page, by: int) -> None:
        self._asked[page] += by

    def saved(self, page: Page | None = None) -> None:
        """Waits until all is settled and the page says saved."""
        page = page or self.page
        self.settled(page)
        expect(page.get_by_role("status").get_by_text("saved", exact=True)).to_be_visible()

    def settled(self, page: Page | None = None) -> None:
        """Waits until nothing has been asked of the server for a while, and all is drawn."""
        page = page or self.page
        page.evaluate(SETTLED)
        quiet = waited = 0
        while quiet < QUIET and waited < PATIENCE:
            page.wait_for_timeout(50)
            waited += 50
            quiet = quiet + 50 if self._asked[page] <= 0 else 0
        page.evaluate(SETTLED)

    def tab_to(self, name: str) -> None:
        """Moves the focus by Tab until it stands on what is so called, backwards where that is nearer."""
        page = self.page
        for _ in range(90):
            if name in page.evaluate("""() => {
                const one = document.activeElement;
                if (one === document.body) return '';
                const label = one.id ? document.querySelector(`label[for="${one.id}"]`) : null;
                return `${label?.innerText ?? ""} ${one.getAttribute("aria-label") ?? ""} ${one.innerText ?? ""}`;
            }"""):
                return
            page.keyboard.press("Tab")
        self.fail(f"no Tab leads to {name}")

    def document(self) -> dict[str, Any]:
        from scenes.actions import state_of

        return state_of(Scene.objects.get(pk=self.scene.pk)).document.model_dump(mode="json")

    def value(self, label: str, page: Page | None = None) -> str:
        """What stands in the inspector beside a word."""
        inspector = (page or self.page).get_by_role("region", name="Inspector")
        return inspector.locator("dt", has_text=label).first.locator("xpath=../dd").inner_text()

    def drag(self, what: Any, dx: float, dy: float, page: Page | None = None) -> None:
        page = page or self.page
        self.settled(page)
        box = what.bounding_box()
        x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
        page.mouse.move(x, y)
        page.mouse.down()
        for step in range(1, 6):
            page.mouse.move(x + dx * step / 5, y + dy * step / 5)
        page.mouse.up()
