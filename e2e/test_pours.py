import json
import re

from playwright.sync_api import expect

from gondola_core.evaluate import evaluate
from gondola_core.scene import read_scene

from .browser_case import BrowserCase


class ShapingThePours(BrowserCase):
    def test_dragging_a_layer_line_changes_the_numbers_from_computation(self):
        before = {word: self.value(word) for word in ("volume", "peak", "tacky")}
        line = self.page.get_by_role("slider", name="Line of pour 2")
        self.drag(line, 0, 40)
        self.saved()
        moved = self.document()["pours"][1]["top_depth_mm"]
        self.assertGreater(moved, 50)
        outcome = evaluate(read_scene(json.dumps(self.document())))
        told = outcome.pours[1]
        expect(self.page.get_by_role("region", name="Inspector").locator("dd", has_text=" ml").first
               ).to_have_text(f"{told.fill.resin_volume_ml:.0f} ml")
        self.assertNotEqual(self.value("volume"), before["volume"])
        self.assertIn(f"{told.heat.cure.peak_c:.0f} °C", self.value("peak"))
        self.assertNotEqual(self.value("peak"), before["peak"])
        flags = self.page.get_by_role("region", name="Before you pour")
        expect(flags.get_by_text("Pour 2 is 52 mm deep")).to_have_count(0)

    def test_splitting_the_deepest_pour_lowers_its_peak_and_can_be_dropped_or_kept(self):
        flags = self.page.get_by_role("region", name="Before you pour")
        expect(flags.get_by_text("Pour 2 peaks at 66 °C")).to_be_visible()
        tries = flags.get_by_role("button", name=re.compile("Try: two pours of 26 mm"))
        tries.first.click()
        tried = flags.get_by_role("group", name="Tried")
        hottest = tried.get_by_role("row", name=re.compile("^hottest"))
        expect(hottest).not_to_contain_text("...")
        self.assertEqual(hottest.locator("td").first.inner_text(), "66 °C")
        self.assertLess(int(hottest.locator("td").nth(1).inner_text().split()[0]), 50)
        expect(flags.get_by_text("Pour 2 peaks")).to_have_count(0)
        tried.get_by_role("button", name="drop it").click()
        expect(flags.get_by_text("Pour 2 peaks at 66 °C")).to_be_visible()
        self.assertEqual(len(self.document()["pours"]), 4)
        self.settled()
        tries.first.click()
        self.settled()
        flags.get_by_role("group", name="Tried").get_by_role("button", name="keep it").click()
        self.saved()
        self.assertEqual(len(self.document()["pours"]), 5)

    def test_keys_move_lines_waits_and_the_gondola(self):
        gondola = self.page.get_by_role("slider", name="Gondola")
        gondola.focus()
        self.page.keyboard.press("Home")
        self.page.keyboard.press("PageDown")
        expect(gondola).to_have_attribute("aria-valuenow", "10")
        readout = self.page.get_by_role("region", name="At the gondola")
        expect(readout).to_contain_text("10 mm")
        expect(readout).to_contain_text("4, in the window: bonds")
        line = self.page.get_by_role("slider", name="Line of pour 3")
        line.focus()
        self.page.keyboard.press("ArrowDown")
        expect(line).to_have_attribute("aria-valuenow", "19")
        start = self.page.get_by_role("slider", name="Start of pour 3")
        start.focus()
        self.page.keyboard.press("ArrowRight")
        self.saved()
        self.assertEqual(self.document()["pours"][2]["wait_h"], 26)
        self.assertEqual(self.document()["pours"][2]["top_depth_mm"], 19)

    def test_scrubbing_the_days_reads_the_history(self):
        moment = self.page.get_by_role("slider", name="Moment")
        moment.focus()
        before = moment.get_attribute("aria-valuetext")
        self.page.keyboard.press("PageDown")
        self.page.keyboard.press("PageDown")
        expect(moment).not_to_have_attribute("aria-valuetext", before)
        self.assertIn("not poured yet", moment.get_attribute("aria-valuetext"))

    def test_fields_take_inches_and_say_what_they_cannot_read(self):
        field = self.page.get_by_label("line at")
        field.fill("2 in")
        field.press("Enter")
        self.saved()
        self.assertEqual(self.document()["pours"][1]["top_depth_mm"], 51)
        field.fill("halfway")
        field.press("Enter")
        expect(self.page.get_by_role("alert")).to_contain_text("cannot be read here")

    def test_fine_check_goes_through_the_queue(self):
        self.part("fine check")
        self.page.get_by_role("button", name="Check on fine cells").click()
        inspector = self.page.get_by_role("region", name="Inspector")
        expect(inspector.get_by_text("cells of 4 mm: pour 1")).to_be_visible(timeout=90_000)
