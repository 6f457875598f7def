"""The first hour: from the first page to a plan that is trusted, by hand and by keyboard alone."""

import gzip
import json
import re

from django.conf import settings
from django.test import tag
from playwright.sync_api import expect
from scenes.models import Scene
from studio.actions import demo_owner

from gondola_core.checks import Severity
from gondola_core.evaluate import evaluate

from .browser_case import AXE, RULES, BrowserCase

MOST_ACTIONS = 25
LARGEST_SCRIPT = 150_000
"""bytes, packed, of what the first page needs"""
WIDTHS = (1280, 820, 390)
STAGES = ("tank", "bed", "figures", "water", "pours", "bench", "finish", "log")


class WinterLake(BrowserCase):
    """A winter lake with a sunken landing stage, 200 mm deep, foam base, hot glue, free at weekends."""

    def setUp(self):
        super().setUp()
        self.actions = 0

    def act(self, deed):
        self.actions += 1
        deed()

    def type(self, label, text):
        def deed():
            field = self.page.get_by_label(label, exact=True)
            field.fill(text)
            field.press("Enter")

        self.act(deed)

    def press(self, name):
        self.act(self.page.get_by_role("button", name=name).first.click)

    def choose(self, label, key):
        self.act(lambda: self.page.get_by_label(label, exact=True).select_option(key))

    def plan_of(self, name):
        expect(self.page.get_by_role("region", name="Days")).to_be_visible()
        scene = Scene.objects.get(owner=demo_owner(), name=name)
        self.scene = scene
        from scenes.actions import state_of

        return state_of(scene).document

    def test_from_the_first_page_to_a_plan_without_a_stop(self):
        page = self.page
        page.goto(self.live_server_url)
        self.act(page.get_by_role("link", name="Begin a piece").click)
        plan = page.get_by_role("region", name="The plan so far")
        expect(plan.get_by_role("status")).to_contain_text("nothing stops it")
        self.type("across", "160")
        self.type("front to back", "12 cm")
        self.type("water, deep", "200 mm")
        self.press(re.compile("What lies below"))
        for name in ("one fish less", "one more plank", "one more plank", "one more post", "one more post"):
            self.press(name)
        self.press(re.compile("What is at hand"))
        self.choose("sealed with", "hot-glue")
        self.choose("base of", "foam")
        self.type("a kilogram of resin costs", "18")
        self.press(re.compile("When are you free"))
        self.choose("free", "weekends")
        self.type("Name of the piece", "Winter lake")
        if self.page.url.endswith("/begin"):
            self.settled()
            expect(plan.get_by_role("status")).to_contain_text("nothing stops it")
            expect(plan).to_contain_text("What it costs")
            expect(plan).to_contain_text("What is not known yet")
            self.press("Make this plan")
        document = self.plan_of("Winter lake")
        self.assertLessEqual(self.actions, MOST_ACTIONS)
        self.assertEqual(
            (document.tank.fill_height_mm, document.tank.seal.material.id, document.tank.base.material.id),
            (200, "hot-glue", "foam"),
        )
        self.assertEqual(sorted(one.id for one in document.figures),
                         ["fish-1", "fish-2", "plank-1", "plank-2", "post-1", "post-2"])
        self.assertEqual([f for f in evaluate(document).flags if f.severity is Severity.STOP], [])

    @tag("long")
    def test_by_keyboard_alone_and_in_inches(self):
        page = self.page
        page.goto(self.live_server_url)
        expect(page.get_by_role("link", name="Begin a piece")).to_be_visible()
        self.tab_to("Begin a piece")
        page.keyboard.press("Enter")
        expect(page.get_by_role("region", name="The plan so far").get_by_role("status")).to_be_visible()
        self.tab_to("read and typed in")
        page.keyboard.press("i")
        expect(page.get_by_label("across", exact=True)).to_have_value("5 1/2 in")
        for label, text in (("across", "6 1/4 in"), ("front to back", "4 3/4"), ("water, deep", "7 7/8 in")):
            self.tab_to(label)
            page.keyboard.press("Control+a")
            page.keyboard.type(text)
            page.keyboard.press("Enter")
        self.tab_to("When are you free")
        page.keyboard.press("Enter")
        self.tab_to("room by night")
        page.keyboard.press("Control+a")
        page.keyboard.type("68F")
        page.keyboard.press("Enter")
        self.tab_to("Name of the piece")
        page.keyboard.press("Control+a")
        page.keyboard.type("Lake in inches")
        self.settled()
        plan = page.get_by_role("region", name="The plan so far")
        self.assertEqual(re.findall(r"\d\s?(?:mm|ml|°C|g)\b", plan.inner_text()), [])
        page.keyboard.press("Enter")
        document = self.plan_of("Lake in inches")
        self.assertAlmostEqual(document.tank.fill_height_mm, 200.0, delta=0.1)
        self.assertEqual((document.brief.units.length, document.brief.room.night_c), ("in", 20.0))
        self.assertEqual([f for f in evaluate(document).flags if f.severity is Severity.STOP], [])
        # onward by keys: find the staging, then a stage by its number
        page.keyboard.press("/")
        page.keyboard.type("fewest pours")
        page.keyboard.press("Enter")
        expect(page.get_by_role("button", name="fewest pours that stop nothing")).to_be_visible()
        page.keyboard.press("1")
        expect(page.get_by_label("fill line")).to_have_value("7 7/8 in")


class Starts(BrowserCase):
    @tag("long")
    def test_each_of_the_six_gives_a_scene_without_a_stop(self):
        page = self.page
        names = ("Flooded Cellar, Four Tiles", "Harbour Stair", "Lock Gate", "The Lost Key", "Mill Pond", "The Well")
        for name in names:
            with self.subTest(name):
                page.goto(f"{self.live_server_url}/begin")
                page.get_by_role("button", name="like one of these").click()
                page.get_by_role("button", name=f"Begin like {name}").click()
                flags = page.get_by_role("region", name="Before you pour")
                expect(flags).to_be_visible()
                expect(page.get_by_role("heading", level=1)).to_contain_text(name)
                expect(flags.get_by_text(re.compile(r"^\d+ stop$"))).to_have_count(0)


class Figures(BrowserCase):
    def test_new_ones_stand_apart_and_one_dropped_on_the_section_comes_there(self):
        page = self.page
        self.go("Figures")
        self.part("add")
        for kind in ("post", "plank", "fish"):
            page.get_by_role("button", name=kind, exact=True).click()
            self.saved()
        section = page.get_by_role("img", name=re.compile("The tank in section"))
        box = section.bounding_box()
        target = {"x": box["width"] * 0.62, "y": box["height"] * 0.3}
        page.get_by_role("button", name="eel", exact=True).drag_to(section, target_position=target, force=True)
        self.saved()
        figures = {one["id"]: one for one in self.document()["figures"]}
        self.assertEqual(len(figures), 12)
        eel = figures["eel-1"]["place"]
        self.assertLess(abs(eel["x_mm"] - 110), 40)
        flags = evaluate(self.scene_document()).flags
        new = {"post-1", "plank-1", "fish-1", "eel-1"}
        self.assertEqual([f.title for f in flags if f.severity is Severity.STOP and f.figure_id in new], [])

    def scene_document(self):
        from scenes.actions import state_of

        return state_of(Scene.objects.get(pk=self.scene.pk)).document


class Helps(BrowserCase):
    def test_a_number_tells_how_it_is_known_and_keys_are_listed(self):
        page = self.page
        inspector = page.get_by_role("region", name="Inspector")
        inspector.get_by_role("button", name=re.compile("^66 °C")).click()
        expect(inspector).to_contain_text("marched through time on cells")
        page.keyboard.press("?")
        keys = page.get_by_role("dialog", name="Keys")
        expect(keys).to_contain_text("find anything by typing")
        page.keyboard.press("Escape")
        expect(keys).to_have_count(0)

    @tag("long")
    def test_a_walk_through_a_first_pour_leads_from_tank_to_finish_and_can_be_left(self):
        page = self.page
        page.goto(self.live_server_url)
        page.get_by_role("link", name="Walk through a first pour").click()
        walk = page.get_by_role("region", name="A first pour")
        for step in range(2, 9):
            walk.get_by_role("button", name="next").click()
            expect(walk).to_contain_text(f"{step} of 8")
        expect(page.get_by_role("link", name="Finish")).to_have_attribute("aria-current", "page")
        walk.get_by_role("button", name="leave").click()
        expect(walk).to_have_count(0)

    def test_what_a_person_has_is_kept_for_the_next_piece(self):
        page = self.page
        page.goto(f"{self.live_server_url}/have")
        page.get_by_label("base of").select_option("xps")
        expect(page.get_by_text("kept", exact=True)).to_be_visible()
        page.goto(f"{self.live_server_url}/begin")
        page.get_by_role("button", name=re.compile("What is at hand")).click()
        expect(page.get_by_label("base of")).to_have_value("xps")


class EveryWidth(BrowserCase):
    @tag("long")
    def test_no_serious_fault_for_a_screen_reader_by_day_and_night_on_any_screen(self):
        page = self.page
        addresses = ["/", "/begin", "/have", *(f"/scenes/{self.scene.pk}/{stage}" for stage in (*STAGES, "sheet"))]
        for night in (False, True):
            page.evaluate("on => localStorage.setItem('gondola-night', on ? '1' : '')", night)
            for address in addresses:
                page.goto(f"{self.live_server_url}{address}")
                expect(page.get_by_role("main")).to_be_visible()
                self.settled()
                page.evaluate(AXE.read_text())
                for width in WIDTHS:
                    with self.subTest(address=address, night=night, width=width):
                        page.set_viewport_size({"width": width, "height": 844})
                        page.wait_for_timeout(150)
                        found = page.evaluate(RULES)
                        serious = [
                            (one["id"], [node["html"][:140] for node in one["nodes"][:3]])
                            for one in found["violations"] if one["impact"] in ("serious", "critical")
                        ]
                        self.assertEqual(serious, [])
                        wide = page.evaluate("document.documentElement.scrollWidth")
                        self.assertLessEqual(wide, width + 1, "the page is wider than the screen")
        page.evaluate("localStorage.removeItem('gondola-night')")


class Weight(BrowserCase):
    def test_the_first_page_needs_little_script(self):
        manifest = json.loads((settings.ROOT / "web" / "dist" / ".vite" / "manifest.json").read_text())
        needed, waiting = set(), ["index.html"]
        while waiting:
            part = manifest[waiting.pop()]
            if part["file"] not in needed:
                needed.add(part["file"])
                waiting += part.get("imports", [])
        packed = sum(len(gzip.compress((settings.ROOT / "web" / "dist" / file).read_bytes())) for file in needed)
        self.assertLessEqual(packed, LARGEST_SCRIPT)
