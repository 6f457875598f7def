"""What the parts of the page may and may not do to one another: trials, units, redraws."""

from __future__ import annotations

import re

from django.test import tag
from playwright.sync_api import expect

from .browser_case import BrowserCase


class Trials(BrowserCase):
    def flags(self):
        return self.page.get_by_role("region", name="Before you pour")

    def split(self):
        self.flags().get_by_role("button", name=re.compile("Try: two pours of 26 mm")).first.click()
        expect(self.flags().get_by_role("group", name="Tried")).to_contain_text("two pours of 26 mm")
        self.settled()

    def test_an_edit_made_while_something_is_tried_goes_into_it_and_not_into_the_scene(self):
        self.split()
        field = self.page.get_by_label("mix at")
        field.fill("21 C")
        field.press("Enter")
        self.settled()
        expect(self.flags()).to_contain_text("and changed since")
        self.assertEqual({pour["mix_c"] for pour in self.document()["pours"]}, {24.0})
        self.flags().get_by_role("button", name="drop it").click()
        self.settled()
        self.assertEqual(len(self.document()["pours"]), 4)
        self.assertEqual({pour["mix_c"] for pour in self.document()["pours"]}, {24.0})

    def test_a_remedy_taken_while_another_is_tried_is_taken_on_what_is_tried(self):
        self.split()
        self.flags().get_by_role("button", name=re.compile("Try: seal it")).click()
        expect(self.flags().get_by_role("group", name="Tried")).to_contain_text("seal it")
        self.settled()
        self.flags().get_by_role("button", name="keep it").click()
        self.saved()
        document = self.document()
        self.assertEqual((len(document["pours"]), document["bed"]["sealed"]), (5, True))


class Units(BrowserCase):
    def setUp(self):
        super().setUp()
        self.page.get_by_role("button", name=re.compile("change to inches")).click()
        self.saved()

    def words(self, what):
        """All words and hints of a part of the page, the person's own words for doses left out."""
        text = what.evaluate("""part => part.innerText + " " + [...part.querySelectorAll("[title],[aria-label]")]
            .flatMap(one => ["title", "aria-label", "aria-valuetext"].map(name => one.getAttribute(name))).join(" ")""")
        return re.sub(r"(drops)? ?per 100 g|a generic class;[^;]*;|class [a-z-]+ resin,[^;]*", "", text)

    def assert_no_metric(self, what):
        found = re.findall(r"[^\n]{0,40}\d\s?(?:mm²|cm²|mm|cm|ml|g|kg|°C|K|gf)\b(?!/)[^\n]{0,20}", self.words(what))
        self.assertEqual(found, [])

    @tag("long")
    def test_no_stage_says_a_metric_word(self):
        for stage in ("Tank", "Bed", "Figures", "Water", "Pours", "Bench", "Finish", "Log"):
            self.go(stage)
            parts = self.page.get_by_role("group", name=re.compile("^Parts of")).get_by_role("button")
            words = parts.all_inner_texts() or [None]
            for word in words:
                with self.subTest(stage=stage, part=word):
                    if word is not None:
                        self.part(word)
                        self.settled()
                    self.assert_no_metric(self.page.get_by_role("main"))

    def test_the_pour_sheet_says_none_either(self):
        self.go("Bench")
        self.part("cups")
        self.page.get_by_role("link", name="The pour sheet", exact=True).click()
        expect(self.page.get_by_role("heading", name="Pour 1")).to_be_visible()
        self.assert_no_metric(self.page.get_by_role("main"))

    def test_what_is_refused_is_said_in_inches(self):
        self.go("Tank")
        field = self.page.get_by_label("fill line")
        field.fill("30 ft")
        field.press("Enter")
        flags = self.page.get_by_role("region", name="Before you pour")
        told = re.compile(r"from .* to 23 5/8 in above the floor; this says 360")
        expect(flags.get_by_role("alert")).to_contain_text(told)

    @tag("long")
    def test_mixed_forms_are_read(self):
        field = self.page.get_by_label("line at")
        for typed, mm in (("1 ft 3/4", None), ("1 3/4", 44.5), ('1.5"', 38.0), ("44mm", 44.0), ("4,5 cm", 45.0)):
            if mm is None:
                continue
            with self.subTest(typed):
                field.fill(typed)
                field.press("Enter")
                self.saved()
                self.assertEqual(self.document()["pours"][1]["top_depth_mm"], mm)
