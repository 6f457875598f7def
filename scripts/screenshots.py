"""Remakes docs/screenshots from the demo data, with a server of its own on a free port."""

from __future__ import annotations

import re
import sys
from pathlib import Path

from playwright.sync_api import Page, expect, sync_playwright

ROOT = Path(__file__).resolve().parent.parent
sys.path[:0] = [str(ROOT / "benchmarks"), str(ROOT)]
from looping import cup_text  # noqa: E402

from soak.serving import served  # noqa: E402

PICTURES = ROOT / "docs" / "screenshots"
FERRY, WAGON = 1, 3
"""The demo scenes, in the order in which they are made."""
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync",
]


def drawn(page: Page) -> None:
    """Until numbers, fonts and the picture of the water are there."""
    expect(page.get_by_role("region", name="Inspector")).to_be_visible(timeout=90_000)
    page.wait_for_load_state("networkidle")
    page.evaluate("document.fonts.ready")
    page.wait_for_timeout(1200)


def part(page: Page, word: str) -> None:
    page.get_by_role("group", name=re.compile("^Parts of")).get_by_role("button", name=word, exact=True).click()


def heat(page: Page) -> None:
    page.get_by_role("button", name="heat", exact=True).click()
    picture = page.get_by_role("img", name=re.compile("^Heat "))
    expect(picture).to_be_visible(timeout=30_000)
    box = picture.bounding_box()
    assert box
    page.mouse.click(box["x"] + 250, box["y"] + 140)
    part(page, "why hot")
    page.get_by_role("button", name="why so hot?").click()
    expect(page.get_by_role("group", name="Why so hot")).to_contain_text("its depth")
    page.wait_for_timeout(1200)


def beside(page: Page) -> None:
    page.goto(re.sub(r"/pours.*$", "/plans", page.url))
    page.get_by_role("button", name="find plans").click()
    expect(page.get_by_role("table", name="Plans on the front")).to_be_visible(timeout=240_000)
    told = page.get_by_role("region", name="What you gain and give")
    expect(told.get_by_role("listitem").first).to_be_visible(timeout=60_000)
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(2000)


def on_its_shelf(page: Page) -> None:
    page.get_by_role("button", name="look", exact=True).click()
    look = page.get_by_role("region", name="Look")
    expect(look.get_by_text("clear", exact=True)).to_be_visible(timeout=90_000)
    look.get_by_role("button", name="without bubbles").click()
    page.wait_for_timeout(600)
    expect(look.get_by_text("clear", exact=True)).to_be_visible(timeout=90_000)


def at_night(page: Page) -> None:
    on_its_shelf(page)
    look = page.get_by_role("region", name="Look")
    look.get_by_role("button", name="lamp on").click()
    page.get_by_label("brighter").select_option("1")
    page.wait_for_timeout(600)
    expect(look.get_by_text("clear", exact=True)).to_be_visible(timeout=90_000)


def main() -> None:
    PICTURES.mkdir(parents=True, exist_ok=True)
    with served("demo", []) as (address, _, _), sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path="/usr/bin/chromium", args=FLAGS)
        shoot(browser, address)
        browser.close()


def shoot(browser, address: str) -> None:  # type: ignore[no-untyped-def]
    views = [
        ("pours", WAGON, "pours", None), ("heat", WAGON, "pours", heat),
        ("plans", WAGON, "pours", beside), ("tank", WAGON, "tank", None), ("bed", WAGON, "bed", None),
        ("figures", WAGON, "figures", None), ("look", WAGON, "water", on_its_shelf),
        ("water", WAGON, "water", None),
        ("look-night", WAGON, "finish", at_night), ("bench", WAGON, "bench", None),
        ("finish", WAGON, "finish", None), ("log", FERRY, "log", why), ("bottle", WAGON, "log", bottle),
    ]
    for name, number, stage, act in views:
        page = browser.new_page(viewport={"width": 1280, "height": 800})
        page.goto(f"{address}/scenes/{number}/{stage}")
        drawn(page)
        if act:
            act(page)
        page.screenshot(path=PICTURES / f"{name}.png")
        page.close()
    page = browser.new_page(viewport={"width": 1000, "height": 800})
    page.goto(f"{address}/scenes/{WAGON}/sheet")
    expect(page.get_by_role("region", name="Pour 4")).to_be_visible(timeout=30_000)
    page.evaluate("document.fonts.ready")
    page.screenshot(path=PICTURES / "pour-sheet.png", full_page=True)
    page.close()
    shoot_first_hour(browser, address)
    shoot_pour_day(browser, address)


def on_to(page: Page, title: str) -> None:
    """Through the steps of a run until one; a mishap on the way is met as it comes."""
    heading = page.get_by_role("heading", level=1)
    for _ in range(200):
        if heading.inner_text() == title:
            return
        mishap = page.get_by_role("alertdialog")
        if mishap.count():
            mishap.get_by_role("button").first.click()
        else:
            page.keyboard.press("PageDown")
        page.wait_for_timeout(500)
    raise SystemExit(f"the run did not come to '{title}'")


def shoot_pour_day(browser, address: str) -> None:  # type: ignore[no-untyped-def]
    """A rehearsal at the scale, and by night between two pours."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(f"{address}/scenes/{WAGON}/bench")
    page.get_by_role("button", name="rehearse it first").click()
    page.get_by_role("button", name="connect a scale").click()
    page.get_by_role("button", name="simulate").first.click()
    page.get_by_role("button", name="devices").click()
    on_to(page, "Pour part A")
    page.get_by_role("button", name="tare").click()
    page.get_by_role("button", name="pour to the mark").click()
    page.wait_for_timeout(4200)
    page.screenshot(path=PICTURES / "run.png")
    # from here on what the scale shows is typed, as where there is none
    page.get_by_role("button", name="devices").click()
    page.get_by_label("port of the scale").fill("1")
    page.get_by_role("button", name="listen").first.click()
    expect(page.get_by_text("scale, silent at port 1")).to_be_visible(timeout=30_000)
    page.get_by_role("button", name="devices").click()
    on_to(page, "Feel pour 1")
    page.set_viewport_size({"width": 820, "height": 1180})
    page.get_by_role("button", name="night look").click()
    expect(page.get_by_test_id("coming")).to_be_visible(timeout=30_000)
    page.wait_for_timeout(2500)
    page.screenshot(path=PICTURES / "run-night.png")
    page.evaluate("localStorage.clear()")
    page.close()


def shoot_first_hour(browser, address: str) -> None:  # type: ignore[no-untyped-def]
    """The first page, Begin, and a phone."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(address)
    expect(page.get_by_text("The Ferry Landing", exact=True)).to_be_visible(timeout=30_000)
    for number in (FERRY, FERRY + 1, WAGON):
        picture = page.locator(f"img[src*='scenes/{number}/picture']")
        expect(picture).to_have_js_property("complete", True, timeout=60_000)
    page.wait_for_load_state("networkidle")
    page.wait_for_timeout(1000)
    page.screenshot(path=PICTURES / "first-page.png")
    page.goto(f"{address}/begin")
    expect(page.get_by_role("region", name="The plan so far").get_by_role("status")).to_be_visible(timeout=30_000)
    page.get_by_role("button", name=re.compile("What lies below")).click()
    page.wait_for_timeout(1500)
    page.screenshot(path=PICTURES / "begin.png")
    page.close()
    phone = browser.new_page(viewport={"width": 390, "height": 844})
    phone.goto(f"{address}/scenes/{WAGON}/pours")
    drawn(phone)
    phone.screenshot(path=PICTURES / "phone.png")
    phone.close()


def why(page: Page) -> None:
    part(page, "why")
    expect(page.get_by_text(re.compile("For it: "))).to_be_visible(timeout=30_000)
    page.wait_for_timeout(800)


def bottle(page: Page) -> None:
    """A cup of 300 g teaches the bottle; it is opened to its curve."""
    part(page, "resin")
    field = page.get_by_label("in the cup", exact=True)
    field.fill("300 g")
    field.press("Enter")
    log = {"name": "cup.csv", "mimeType": "text/csv", "buffer": cup_text(5, 60.0, 14.0)[0].encode()}
    page.get_by_label("Log of the cup").set_input_files(log)
    page.get_by_role("button", name="Teach the bottle").click()
    page.get_by_role("button", name="cup of 300 g", exact=True).click()
    expect(page.get_by_text(re.compile("would narrow the peak"))).not_to_have_count(0, timeout=30_000)
    page.wait_for_timeout(800)



if __name__ == "__main__":
    main()
