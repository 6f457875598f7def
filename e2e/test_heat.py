"""The Pours stage: heat on the section, causes, staging, cups, and a resin from its data sheet."""

import re

from django.test import tag
from playwright.sync_api import expect
from scenes.actions import create_scene
from studio.actions import demo_owner

from gondola_core.samples import ferry_landing

from .browser_case import BrowserCase


class HeatOnTheSection(BrowserCase):
    def test_picture_touched_place_and_causes(self):
        page = self.page
        page.get_by_role("button", name="heat", exact=True).click()
        picture = page.get_by_role("img", name=re.compile("^Heat 55 mm behind the glass"))
        expect(picture).to_be_visible()
        self.settled()
        box = picture.bounding_box()
        page.mouse.click(box["x"] + 250, box["y"] + 140)
        readout = page.get_by_role("region", name="At the gondola")
        expect(readout.get_by_text(re.compile("^touched, "))).to_be_visible()
        expect(readout.get_by_role("img", name=re.compile("Temperature of the touched place"))
               ).to_be_visible()
        self.part("why hot")
        page.get_by_role("button", name="why so hot?").click()
        why = page.get_by_role("group", name="Why so hot")
        expect(why).to_contain_text("its depth")
        expect(why).to_contain_text("poured half as deep")

    def test_the_cup_tells_its_working_time_and_the_start_can_be_a_date(self):
        page = self.page
        self.part("cup")
        cup = page.get_by_role("group", name="In the cup")
        expect(cup).to_contain_text("Pour it within")
        self.part("plan")
        page.get_by_label("begins").fill("2027-03-06T15:00")
        self.saved()
        self.assertEqual(self.document()["pours"][1]["wait_h"], 30)

    @tag("long")
    def test_grains_stirred_in_sink_as_far_as_they_do(self):
        page = self.page
        self.part("grains")
        page.get_by_role("button", name="stir grains in").click()
        page.get_by_label("grains of").select_option("sand")
        self.saved()
        self.part("facts")
        expect(page.get_by_role("region", name="Inspector")).to_contain_text("sand sinks")
        self.part("grains")
        grains = self.document()["pours"][1]["inclusions"]
        self.assertEqual([one["kind"] for one in grains], ["sand"])
        page.get_by_role("button", name="without the sand").click()
        self.saved()
        self.assertEqual(self.document()["pours"][1]["inclusions"], [])

    def test_a_resin_from_its_data_sheet_and_a_bad_sheet(self):
        page = self.page
        self.part("resin")
        page.get_by_role("button", name="a resin from its data sheet").click()
        form = page.get_by_role("group", name="A resin from its data sheet")
        page.get_by_label("pot life").fill("-3 min")
        page.get_by_label("pot life").press("Enter")
        form.get_by_role("button", name="fit it and pour with it").click()
        expect(form.get_by_role("alert")).to_contain_text(
            "Pot life has to be from 2 to 1500 min; it says -3."
        )
        page.get_by_label("pot life").fill("240")
        page.get_by_label("pot life").press("Enter")
        form.get_by_role("button", name="fit it and pour with it").click()
        expect(form.get_by_role("status")).to_contain_text("class deep-pour resin")
        self.saved()
        self.assertEqual(self.document()["pours"][1]["resin_id"], "my-resin")


class Staging(BrowserCase):
    def setUp(self):
        super().setUp()
        self.scene = create_scene(owner=demo_owner(), document=ferry_landing())
        self.page = self.open()

    @tag("long")
    def test_the_ferry_runs_away_until_it_is_staged(self):
        page = self.page
        flags = page.get_by_role("region", name="Before you pour")
        expect(flags.get_by_text("Pour 2 runs away, over 100 °C")).to_be_visible()
        expect(flags).to_contain_text("hot glue")
        expect(flags).to_contain_text("paint")
        expect(flags).to_contain_text("crack")
        self.part("plans")
        page.get_by_role("button", name="fewest pours that stop nothing").click()
        staged = page.get_by_role("group", name="Stage it")
        expect(staged).to_contain_text(re.compile(r"23 °C: \d pours"))
        expect(staged).to_contain_text("footprint doubled")
        expect(staged).to_contain_text("The piece does not get hard enough")
        expect(staged).to_contain_text(re.compile(r"Its tack is gone after \d.*warm box at \d\d °C"))
        staged.get_by_role("button", name=re.compile("Try: .* at 23 °C")).first.click()
        tried = flags.get_by_role("group", name="Tried")
        expect(tried.get_by_role("row", name="stop / watch")).to_contain_text("0 /")
        self.settled()
        tried.get_by_role("button", name="keep it").click()
        self.saved()
        expect(flags.get_by_text("runs away")).to_have_count(0)
