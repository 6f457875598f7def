"""The Water stage: a wish solved, one drop too many, light, paint, photographs and spectra."""

import re

from django.test import tag
from playwright.sync_api import expect

from .browser_case import BrowserCase


class WaterStage(BrowserCase):
    def setUp(self):
        super().setUp()
        self.page.close()
        self.page = self.open("water")

    def test_one_drop_too_many_is_flagged_and_its_remedy_brings_the_shoal_back(self):
        page = self.page
        page.get_by_role("button", name="pour 4", exact=True).click()
        dose = page.get_by_label("burnt umber ink")
        expect(dose).to_have_value("0.044")
        dose.fill("1.044")
        dose.press("Enter")
        flags = page.get_by_role("region", name="Before you pour")
        expect(flags).to_contain_text("Perch 1, perch 2 and perch 3 are lost in the water")
        remedy = flags.get_by_role("button", name=re.compile(r"^Try: only 0\.\d+ of burnt umber ink"))
        less = re.search(r"only (0\.\d+) of", remedy.get_attribute("aria-label") or remedy.inner_text())
        remedy.click()
        expect(flags).to_contain_text(f"Tried: only {less[1]} of burnt umber ink")
        self.settled()
        page.get_by_role("button", name="keep it").click()
        expect(flags).not_to_contain_text("lost in the water")
        self.saved()
        kept = self.document()["pours"][3]["doses"][2]["dose_drops_per_100g"]
        self.assertEqual(kept, float(less[1]))
        self.assertLess(kept, 1.044)

    def test_coastal_water_is_found_and_kept_as_stocks(self):
        page = self.page
        self.part("wish")
        page.get_by_label("wish", exact=True).select_option("scale_true")
        page.get_by_role("button", name="Find the doses").click()
        wish = page.get_by_role("group", name="Wished water")
        expect(wish).to_contain_text("The tank shows 5.8 m of 3C water")
        self.settled()
        page.get_by_role("button", name="keep it").click()
        self.saved()
        document = self.document()
        self.assertEqual(document["wish"]["look"]["water_type"], "3C")
        doses = [pour["doses"] for pour in document["pours"]]
        self.assertTrue(all(one == doses[0] for one in doses))
        self.part("measured")
        measured = page.get_by_role("group", name="As measured")
        expect(measured).to_contain_text("drops of 1:")
        expect(measured).to_contain_text("plain part A then")

    @tag("long")
    def test_light_changes_the_look_and_says_why(self):
        page = self.page
        inspector = page.get_by_role("region", name="Inspector")
        self.part("light")
        expect(inspector).to_contain_text("Lit from above, depth darkens by itself")
        page.get_by_label("comes", exact=True).select_option("room")
        expect(inspector).not_to_contain_text("Lit from above, depth darkens by itself")
        expect(inspector).to_contain_text(re.compile("room", re.IGNORECASE))
        self.saved()
        self.assertEqual(self.document()["brief"]["light"], "room")

    @tag("long")
    def test_paint_of_a_figure_and_a_place_where_it_works(self):
        page = self.page
        self.part("paint")
        group = page.get_by_role("group", name="Paint")
        group.get_by_label("of", exact=True).select_option("pike")
        group.get_by_role("button", name="which paint?").click()
        expect(group).to_contain_text("paint it")
        expect(group).to_contain_text("reads as")

    @tag("long")
    def test_a_photograph_that_is_none_and_a_spectrum_with_words(self):
        page = self.page
        self.part("wish")
        page.get_by_label("wish", exact=True).select_option("by_eye")
        page.get_by_label("Reference photograph").set_input_files(
            {"name": "sea.jpg", "mimeType": "image/jpeg", "buffer": b"no picture at all"}
        )
        expect(page.get_by_text("This file is no photograph that can be read")).to_be_visible()
        before = self.document()["colourants"]
        rows = "nm,A\n" + "\n".join(f"{nm},0.2" for nm in range(400, 701, 10))
        self.part("own ink")
        spectrum = page.get_by_label("Spectrum of a colourant")
        spectrum.set_input_files(
            {"name": "my green.csv", "mimeType": "text/csv",
             "buffer": rows.replace("500,0.2", "500,green").encode()}
        )
        group = page.get_by_role("group", name="A measured spectrum")
        expect(group.get_by_role("alert")).to_contain_text("Row 12 of the spectrum says '500 green'")
        self.assertEqual(self.document()["colourants"], before)
        spectrum.set_input_files({"name": "my green.csv", "mimeType": "text/csv", "buffer": rows.encode()})
        self.part("doses")
        expect(page.get_by_label("my green")).to_be_visible()

    @tag("long")
    def test_a_negative_dose_is_refused_with_a_sentence(self):
        page = self.page
        dose = page.get_by_label("turquoise ink", exact=True)
        dose.fill("-1")
        dose.press("Enter")
        expect(page.get_by_text(re.compile("has to be from 0 to 60")).first).to_be_visible()
        self.assertEqual(self.document()["pours"][1]["doses"][1]["dose_drops_per_100g"], 0.19)

    @tag("long")
    def test_picture_can_be_kept_wide(self):
        page = self.page
        self.part("light")
        with page.expect_download() as caught:
            inspector = page.get_by_role("region", name="Inspector")
            inspector.get_by_role("button", name="side", exact=True).click()
        self.assertEqual(caught.value.suggested_filename, "wagon-in-the-quarry-pool-side.png")

    @tag("long")
    def test_the_sheet_tells_stocks_and_the_plain_part_a(self):
        self.page.goto(f"{self.live_server_url}/scenes/{self.scene.pk}/sheet")
        pour = self.page.get_by_role("region", name="Pour 2")
        expect(pour).to_contain_text("part A, plain")
        expect(pour).to_contain_text("609.7 g with the stocks")
        expect(pour).to_contain_text("burnt umber ink, stock 1:250")
        # one bottle for every pour, told once
        expect(self.page.get_by_text("burnt umber ink 1:250: 10 drops of it into")).to_have_count(1)

    @tag("long")
    def test_a_wish_by_eye_takes_the_gondolas_depth_and_is_undone(self):
        page = self.page
        self.part("wish")
        page.get_by_label("wish", exact=True).select_option("by_eye")
        wish = page.get_by_role("group", name="Wished water")
        wish.get_by_role("button", name=re.compile("^another colour at the gondola, 70 mm")).click()
        expect(wish.get_by_label("colour 3 at")).to_have_value("70 mm")
        wish.get_by_label("Wished colour 3").fill("#6fb09a")
        wish.get_by_role("button", name="Find the doses").click()
        expect(wish).to_contain_text("off by")
        page.get_by_role("button", name="drop it").click()
        self.saved()
        self.assertEqual(len(self.document()["wish"]["look"]["picks"]), 3)
        page.get_by_label("wish", exact=True).select_option("by_hand")
        self.saved()
        self.assertIsNone(self.document()["wish"])
        page.get_by_role("button", name="undo").click()
        expect(page.get_by_label("wish", exact=True)).to_have_value("by_eye")
        self.saved()
        self.assertEqual(len(self.document()["wish"]["look"]["picks"]), 3)

    @tag("long")
    def test_bottles_are_owned_and_few_may_be_used(self):
        page = self.page
        self.part("wish")
        page.get_by_label("wish", exact=True).select_option("scale_true")
        wish = page.get_by_role("group", name="Wished water")
        wish.get_by_label("bottles at most").fill("1")
        wish.get_by_label("bottles at most").press("Enter")
        wish.get_by_role("button", name="deep blue ink", exact=True).click()
        self.saved()
        self.assertIn("deep-blue-ink", self.document()["brief"]["owned"])
        wish.get_by_role("button", name="Find the doses").click()
        expect(wish).to_contain_text("off in front")
        self.settled()
        page.get_by_role("button", name="keep it").click()
        self.saved()
        self.assertEqual({len(pour["doses"]) for pour in self.document()["pours"]}, {1})

    @tag("long")
    def test_water_more_vivid_than_a_display_is_marked(self):
        page = self.page
        words = page.get_by_text("more vivid than a display shows")
        expect(words).to_have_count(0)
        dose = page.get_by_label("turquoise ink", exact=True)
        dose.fill("1.5")
        dose.press("Enter")
        page.get_by_role("button", name="the same in every pour").click()
        expect(words).to_be_visible()
        expect(page.get_by_role("region", name="At the gondola")).to_contain_text(
            "display cannot show it"
        )
        self.saved()
