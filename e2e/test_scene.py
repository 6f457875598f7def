import json
import tempfile
from pathlib import Path

from django.test import tag
from playwright.sync_api import expect
from scenes.actions import unpack
from scenes.models import Revision

from gondola_core.cli import main

from .browser_case import AXE, RULES, BrowserCase


class TwoTabs(BrowserCase):
    def test_the_second_save_is_told_of_the_first_and_nothing_is_lost(self):
        first, second = self.page, self.open("pours")
        self._wait(first, "28 h")
        self.saved(first)
        self._wait(second, "30 h")
        told = second.get_by_role("alertdialog")
        expect(told).to_contain_text("it is now at revision 2")
        kept = Revision.objects.get(scene=self.scene, kept_aside=True)
        self.assertEqual(unpack(kept).pours[1].wait_h, 30)
        told.get_by_role("button", name="show theirs").click()
        expect(second.get_by_label("after pour 1")).to_have_value("28 h")
        self._wait(second, "29 h")
        self.saved(second)
        self.assertEqual(self.document()["pours"][1]["wait_h"], 29)
        # the first tab is stale now; its owner puts the change on top
        self._wait(first, "31 h")
        first.get_by_role("alertdialog").get_by_role("button", name="put mine on top").click()
        self.saved(first)
        self.assertEqual(self.document()["pours"][1]["wait_h"], 31)

    def _wait(self, page, text):
        field = page.get_by_label("after pour 1")
        field.fill(text)
        field.press("Enter")


class GoingBack(BrowserCase):
    def test_undo_redo_and_the_log_bring_earlier_states_back(self):
        field = self.page.get_by_label("after pour 1")
        for text in ("28 h", "30 h"):
            field.fill(text)
            field.press("Enter")
            self.saved()
        undo = self.page.get_by_role("button", name="undo")
        undo.click()
        expect(field).to_have_value("28 h")
        self.page.keyboard.press("Control+z")
        expect(field).to_have_value("26 h")
        expect(undo).to_be_disabled()
        self.page.get_by_role("button", name="redo").click()
        expect(field).to_have_value("28 h")
        self.go("Log")
        self.part("revisions")
        self.page.get_by_role("button", name="Bring revision 3 back").click()
        self.go("Pours")
        expect(field).to_have_value("30 h")


class Files(BrowserCase):
    def test_exported_scene_gives_the_command_the_same_numbers_as_the_page(self):
        self.go("Log")
        self.part("revisions")
        with self.page.expect_download() as download:
            self.page.get_by_role("link", name="Scene file").click()
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "scene.json"
            download.value.save_as(path)
            import contextlib
            import io

            out = io.StringIO()
            with contextlib.redirect_stdout(out):
                self.assertEqual(main(["evaluate", str(path)]), 0)
        outcome = json.loads(out.getvalue())
        self.go("Pours")
        told = outcome["pours"][1]
        self.assertIn(f"{told['heat']['cure']['peak_c']:.0f} °C", self.value("peak"))
        self.assertEqual(self.value("part A"), f"{told['cup']['mix']['part_a_g']:.1f} g")
        self.assertEqual(self.value("volume"), f"{told['fill']['resin_volume_ml']:.0f} ml")

    @tag("long")
    def test_a_malformed_file_gets_a_sentence_and_adds_nothing(self):
        self.page.goto(self.live_server_url)
        document = self.document()
        document["pours"][1]["top_depth_mm"] = -40
        picker = self.page.get_by_label("Scene file")
        picker.set_input_files(
            {"name": "bad.json", "mimeType": "application/json",
             "buffer": json.dumps(document).encode()}
        )
        expect(self.page.get_by_role("alert")).to_contain_text(
            "Pour 2, layer line has to be from 0 to 600 mm below the fill line; it says -40."
        )
        self.assertEqual(self.page.get_by_role("article").count(), 1)
        document["pours"][1]["top_depth_mm"] = 44
        picker.set_input_files(
            {"name": "good.json", "mimeType": "application/json",
             "buffer": json.dumps(document).encode()}
        )
        expect(self.page.get_by_label("line at")).to_have_value("44 mm")


class EveryStage(BrowserCase):
    def test_each_stage_opens_and_has_no_serious_fault_for_a_screen_reader(self):
        self.page.evaluate(AXE.read_text())
        for stage, title in (
            ("Tank", "Tank"), ("Bed", "Hands on the bed"), ("Figures", "tipping wagon"),
            ("Water", "Pour 2"), ("Pours", "Pour"), ("Bench", "Bench"), ("Finish", "After the last pour"),
            ("Log", "The story"),
        ):
            with self.subTest(stage):
                self.go(stage)
                heading = self.page.get_by_role("region", name="Inspector").get_by_role("heading")
                expect(heading.first).to_have_text(title)
                found = self.page.evaluate(RULES)
                serious = [
                    (one["id"], [node["html"][:140] for node in one["nodes"][:3]])
                    for one in found["violations"] if one["impact"] in ("serious", "critical")
                ]
                self.assertEqual(serious, [])

    def test_every_profile_is_there_as_a_table_too(self):
        page = self.page
        for caption, column, text in (
            ("Heat and cure against depth", "peak", "°C"), ("Light left against depth", "blue", "%"),
            ("Smallest bubble that leaves, against depth", "bubble", "mm"),
            ("Layer lines", "free to bond", "bonds"), ("Sight of figures", "reads as", "pike"),
        ):
            with self.subTest(caption):
                table = page.get_by_role("table", name=caption)
                expect(table.get_by_role("columnheader", name=column)).to_have_count(1)
                expect(table).to_contain_text(text)

    def test_a_figure_is_dragged_in_the_plan(self):
        self.go("Figures")
        pike = self.page.get_by_role("img", name="The bed from above, with soundings").locator(
            "g", has=self.page.locator("title", has_text="pike")
        ).last
        self.drag(pike.locator("path").first, -40, 20)
        self.saved()
        place = next(one for one in self.document()["figures"] if one["id"] == "pike")["place"]
        self.assertLess(place["x_mm"], 135)
        self.assertLess(place["behind_mm"], 45)

    def test_one_more_drop_darkens_the_water(self):
        self.go("Water")
        readout = self.page.get_by_role("region", name="At the gondola").locator(
            "dt:has-text('light left') + dd"
        )
        before = int(readout.inner_text().split(" %")[0])
        field = self.page.get_by_label("turquoise ink")
        field.fill("3")
        field.press("Enter")
        self.saved()
        expect(readout).not_to_contain_text(f"{before} %")
        self.assertLess(int(readout.inner_text().split(" %")[0]), before)

    def test_the_pour_sheet_holds_every_pour_and_the_cautions(self):
        self.page.goto(f"{self.live_server_url}/scenes/{self.scene.pk}/sheet")
        expect(self.page.get_by_role("region", name="Pour 4")).to_be_visible()
        pour = self.page.get_by_role("region", name="Pour 2")
        expect(pour).to_contain_text("609.7 g")
        expect(pour).to_contain_text("2:1 by volume")
        expect(self.page.get_by_role("main")).to_contain_text("nitrile gloves")
        self.page.emulate_media(media="print")
        expect(self.page.get_by_role("button", name="print")).to_be_hidden()
