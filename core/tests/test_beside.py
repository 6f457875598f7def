"""Two plans beside each other: what is gained, what is given, and that a plan gains nothing over itself."""

import unittest

from changed import changed

from gondola_core.samples import ferry_landing, quarry_pool
from gondola_core.studies.beside import beside
from gondola_core.studies.front.way import Way, laid

STAGED = {"resin_ids": ("deep",) * 4, "mix_c": 22.0, "fan": True, "sealed": True, "aim": 0.4}


def said(parts):
    return " ".join(str(one) for one in parts)


class Differences(unittest.TestCase):
    def test_a_plan_gains_and_gives_nothing_over_itself(self):
        told = beside(quarry_pool(), quarry_pool())
        self.assertEqual((told.gains, told.gives, told.new_lines), ([], [], []))
        self.assertIn("As hot in both", said(told.same))

    def test_what_one_gains_the_other_gives(self):
        scene = ferry_landing()
        staged = laid(scene, Way(tops_mm=(150.0, 100.0, 50.0, 0.0), **STAGED))
        there, back = beside(scene, staged), beside(staged, scene)
        for words, other in (("cooler", "hotter"), ("No longer stopped", "Stopped now"), ("later", "sooner")):
            with self.subTest(words):
                whole = said(there.gains + there.gives)
                self.assertIn(words, whole)
                self.assertIn(other, said(back.gains + back.gives))
        self.assertIn("cooler", said(there.gains))
        self.assertIn("hotter", said(back.gives))
        self.assertEqual([line.depth_mm for line in there.new_lines], [150.0, 100.0, 50.0])

    def test_what_it_asks_for_besides_is_told(self):
        scene = quarry_pool()
        asks = laid(scene, Way(tops_mm=(90.0, 60.0, 30.0, 0.0), box_c=30.0, **STAGED))
        asks = asks.model_copy(update={"figures": [
            one.model_copy(update={"holding": "wire"}) if one.id == "pike" else one for one in asks.figures
        ]})
        whole = said(beside(scene, asks).gives)
        for words in ("warm box at 30 °C", "a fan", "a seal coat", "Held another way: the pike (wire)"):
            with self.subTest(words):
                self.assertIn(words, whole)
        back = beside(asks, scene)
        self.assertNotIn("Asks for", said(back.gives + back.gains))

    def test_a_seal_coat_is_a_session_in_words_as_it_is_in_the_table(self):
        whole = beside(quarry_pool(), changed(bed__sealed=True))
        self.assertIn("1 session more at the bench: the seal coat", said(whole.gives))

    def test_a_layer_that_is_to_be_abraded_is_told(self):
        late = changed(pours__2__wait_h=150.0)
        self.assertIn("until pour 2 is hard", said(beside(quarry_pool(), late).gives))
        self.assertNotIn("abrade", said(beside(late, quarry_pool()).gives))

    def test_the_bed_is_named_where_most_bubbles_come_from_it(self):
        told = beside(quarry_pool(), changed(bed__sealed=False, brief__habits__rest_min=10))
        self.assertIn("the bed's pores", said(told.gains + told.gives + told.same))

    def test_a_new_line_is_told_where_it_shows_and_what_hides_it(self):
        scene = quarry_pool()
        tops = (92.0, 66.0, 40.0, 18.0, 0.0)
        told = beside(scene, laid(scene, Way(tops_mm=tops, **{**STAGED, "resin_ids": ("deep",) * 5})))
        self.assertEqual([line.depth_mm for line in told.new_lines], [66.0])
        self.assertRegex(str(told.new_lines[0].words), r"from the (front|left|right)")
        self.assertIn("2 sessions more", said(told.gives))
