"""The look: walked round, what fools the eye, ripples, sanding laid beside polished, a lamp within, and stills."""

import re

from django.test import tag
from playwright.sync_api import expect
from scenes.actions import create_scene
from studio.actions import demo_owner

from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from

from .browser_case import AXE, RULES, BrowserCase


class LookView(BrowserCase):
    def stand_before(self, stage="water", **place):
        """A piece whose pike stands at a place, seen in its look."""
        document = quarry_pool().model_dump(mode="json")
        document["figures"][1]["place"].update(place)
        self.scene = create_scene(owner=demo_owner(), document=scene_from(document))
        self.page.close()
        self.page = self.open(stage)
        self.page.get_by_role("button", name="look", exact=True).click()
        self.clear()

    def clear(self):
        expect(self.page.get_by_role("region", name="Look").get_by_text("clear", exact=True)).to_be_visible()

    def picture(self):
        return self.page.get_by_role("img", name=re.compile("The piece on its shelf"))

    def told(self):
        return self.page.get_by_role("group", name="What fools the eye")

    @tag("long")
    def test_it_is_walked_round_by_keys_and_by_dragging(self):
        self.stand_before()
        picture = self.picture()
        self.page.get_by_role("button", name="straight").click()
        expect(picture).to_have_accessible_name(re.compile(r": the eye 0 degrees round"))
        picture.focus()
        self.page.keyboard.press("ArrowRight")
        expect(picture).to_have_accessible_name(re.compile(r": the eye 8 degrees round"))
        first = picture.get_by_alt_text("as it is now").get_attribute("src")
        box = picture.bounding_box()
        self.page.mouse.move(box["x"] + 300, box["y"] + 200)
        self.page.mouse.down()
        self.page.mouse.move(box["x"] + 200, box["y"] + 200, steps=4)
        self.page.mouse.up()
        expect(picture).to_have_accessible_name(re.compile(r": the eye 48 degrees round"))
        self.clear()
        self.assertNotEqual(picture.get_by_alt_text("as it is now").get_attribute("src"), first)
        field = self.page.get_by_label("round the piece")
        field.fill("-30")
        field.press("Enter")
        expect(picture).to_have_accessible_name(re.compile(r": the eye -30 degrees round"))

    @tag("long")
    def test_a_fish_seems_nearer_and_doubles_at_the_edge(self):
        self.stand_before(x_mm=90.0, behind_mm=60.0)
        self.page.get_by_role("button", name="straight").click()
        self.told().get_by_role("button", name="all figures and lines").click()
        row = self.told().get_by_role("row", name=re.compile("pike"))
        expect(row).to_contain_text(re.compile(r"6[01] mm \(front\)\s*(39|40) mm\s*nothing"))
        self.stand_before(x_mm=158.0, behind_mm=60.0)
        field = self.page.get_by_label("round the piece")
        field.fill("-30")
        field.press("Enter")
        self.told().get_by_role("button", name="all figures and lines").click()
        expect(self.told().get_by_role("row", name=re.compile("pike"))).to_contain_text("right")

    @tag("long")
    def test_ripples_are_typed_and_told_from_above(self):
        self.stand_before("finish")
        self.part("top and edge")
        field = self.page.get_by_label("height of ripples")
        field.fill("0.4 mm")
        field.press("Enter")
        self.saved()
        self.assertEqual(self.document()["finish"]["top"]["ripple_mm"], 0.4)
        expect(self.told()).to_contain_text("The ripples shift tipping wagon")
        expect(self.told()).to_contain_text("Through the front, ripples change nothing")

    @tag("long")
    def test_sanded_is_laid_beside_polished(self):
        self.stand_before("finish")
        self.page.get_by_role("button", name="hold this, to see edits beside it").click()
        self.part("faces")
        self.page.get_by_label("edge coat on the faces").click()
        grit = self.page.get_by_label("sand up to grit")
        grit.fill("400")
        grit.press("Enter")
        self.saved()
        slider = self.page.get_by_role("slider", name="From what it is now to before")
        expect(slider).to_be_visible()
        expect(self.picture().get_by_alt_text("before")).to_be_visible()
        expect(self.told()).to_contain_text("run together")

    def test_the_lamp_goes_on_in_the_wagon_and_the_page_is_reached_by_all(self):
        self.stand_before()
        self.page.get_by_role("button", name="lamp on").click()
        expect(self.page.get_by_label("the lamp is in")).to_have_value("wagon")
        self.clear()
        self.page.evaluate(AXE.read_text())
        found = self.page.evaluate(RULES)["violations"]
        self.assertEqual([(one["id"], one["nodes"][0]["html"]) for one in found], [])
