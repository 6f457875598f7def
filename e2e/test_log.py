"""The loop: a cup teaches a bottle, a fault is marked and explained, a lesson is met again; and the finish."""

from __future__ import annotations

import re
import tempfile

from django.test import override_settings, tag
from learning.tests.test_bottles import cup_csv
from library.actions import library_of
from playwright.sync_api import expect
from scenes.actions import create_scene
from studio.actions import demo_owner

from e2e.browser_case import AXE, RULES, BrowserCase
from gondola_core.samples import quarry_pool


class Loop(BrowserCase):
    def setUp(self) -> None:
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        held = override_settings(DATA=folder.name)
        held.enable()
        self.addCleanup(held.disable)

    def fill(self, label: str, text: str) -> None:
        field = self.page.get_by_label(label, exact=True)
        field.fill(text)
        field.press("Enter")
        self.settled()

    def peaks(self) -> list[float]:
        """The band of pour 2's peak, as the gondola tells it."""
        told = self.page.get_by_role("region", name="At the gondola").inner_text()
        return [float(one) for one in re.search(r"°C, (\d+) to (\d+)", told).groups()]

    def bring_cup(self) -> None:
        self.fill("in the cup", "60 g")
        self.fill("foam around it", "10 mm")
        self.page.get_by_label("lid of foam").check()
        log = {"name": "cup.csv", "mimeType": "text/csv", "buffer": cup_csv().encode()}
        self.page.get_by_label("Log of the cup").set_input_files(log)

    def test_from_a_cup_to_a_lesson_that_is_met_again(self) -> None:
        page = self.page
        before = self.peaks()
        row = library_of(owner=demo_owner()).resins["deep"]
        self.go("Log")
        self.part("resin")
        expect(page.get_by_text(re.compile("would narrow the peak of pour")).first).to_be_visible()
        self.bring_cup()
        expect(page.get_by_text(re.compile("Pace: quicker than its row"))).to_be_visible()
        page.get_by_role("button", name="Teach the bottle").click()
        page.get_by_role("button", name="pour this scene with it").click()
        self.saved()
        expect(page.get_by_text("This scene pours it as it was learnt.")).to_be_visible()
        self.assertLess(library_of(owner=demo_owner()).resins["deep"].rate_spread_fraction, row.rate_spread_fraction)
        self.go("Pours")
        after = self.peaks()
        self.assertLess(after[1] - after[0], before[1] - before[0])

        self.go("Log")
        self.part("faults")
        section = page.get_by_label("Press where it is").bounding_box()
        page.mouse.click(section["x"] + 0.6 * section["width"], section["y"] + 0.95 * section["height"])
        page.get_by_role("button", name="Mark it at the cross").click()
        expect(page.get_by_role("img", name=re.compile("^bubbles"))).to_be_visible()
        self.part("why")
        expect(page.get_by_text(re.compile("bed that was not sealed: "))).to_be_visible()
        expect(page.get_by_text(re.compile("For it: The plaster paste was not sealed"))).to_be_visible()
        page.get_by_role("button", name="Strike out a bed that was not sealed").click()
        expect(page.get_by_text(re.compile("bed that was not sealed: "))).to_have_count(0)

        self.part("lessons")
        page.get_by_label("A lesson").fill("Seal the bed the day before.")
        page.get_by_role("button", name="Pin it").click()
        expect(page.get_by_text("It is met again wherever a plan uses that.")).to_be_visible()
        self.scene = create_scene(owner=demo_owner(), document=quarry_pool())
        other = self.open("log")
        self.part("lessons", other)
        expect(other.get_by_text("Seal the bed the day before.").last).to_be_visible()
        expect(other.get_by_text("1 lesson from other pieces")).to_be_visible()

    @tag("long")
    def test_a_mistaken_log_is_taken_back_and_the_row_is_as_it_was(self) -> None:
        row = library_of(owner=demo_owner()).resins["deep"]
        self.go("Log")
        self.part("resin")
        self.bring_cup()
        self.page.get_by_role("button", name="Teach the bottle").click()
        self.page.get_by_role("button", name=re.compile("^Take back cup of 60 g")).click()
        expect(self.page.get_by_role("button", name=re.compile("^Let count cup"))).to_be_visible()
        self.assertEqual(library_of(owner=demo_owner()).resins["deep"], row)

    def test_photographs_notes_and_search(self) -> None:
        page = self.page
        self.go("Log")
        page.get_by_label("Photograph", exact=True).set_input_files(
            {"name": "a.jpg", "mimeType": "image/jpeg", "buffer": b"no picture"}
        )
        expect(page.get_by_role("alert")).to_contain_text("no photograph that can be read")
        page.get_by_label("A note").fill("Strings at the left edge")
        page.get_by_role("button", name="put it down").click()
        expect(page.get_by_text("Strings at the left edge")).to_be_visible()
        self.part("search")
        page.get_by_label("Words to search for").fill("string")
        expect(page.get_by_text("note of Wagon in the Quarry Pool")).to_be_visible()

    def test_finish_tells_both_schools_and_cuts_strips(self) -> None:
        page = self.page
        self.go("Finish")
        expect(page.get_by_text(re.compile("Run alcohol along the hot glue"))).to_be_visible()
        self.part("faces")
        expect(page.get_by_role("table", name="The sanding ladder")).to_be_visible()
        self.part("top and edge")
        with page.expect_download() as download:
            page.get_by_role("button", name="DXF").click()
        self.assertEqual(download.value.suggested_filename, "edge-strips.dxf")

    @tag("long")
    def test_every_part_is_sound_for_a_screen_reader(self) -> None:
        self.page.evaluate(AXE.read_text())
        self.go("Log")
        for part in ("story", "faults", "why", "resin", "colour", "lessons", "search", "revisions"):
            with self.subTest(part):
                self.part(part)
                self.settled()
                found = self.page.evaluate(RULES)["violations"]
                serious = [(one["id"], one["nodes"][0]["html"][:140]) for one in found
                           if one["impact"] in ("serious", "critical")]
                self.assertEqual(serious, [])
