import unittest

import numpy as np

from gondola_core.errors import GondolaError
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from
from gondola_core.tint import water_of
from gondola_core.tint.colour import colour_difference, encode_srgb, hex_of, lab_of_linear, linear_of_hex
from gondola_core.tint.paint import nearest_paint, paint_answer, reads_as

BLUE_GREEN = [("turquoise-ink", 0.9), ("leaf-green-ink", 0.5)]


def in_blue_green(depth_mm=100.0):
    document = quarry_pool().model_dump(mode="json")
    for pour in document["pours"]:
        pour["doses"] = [
            {"colourant_id": key, "dose_drops_per_100g": dose} for key, dose in BLUE_GREEN
        ]
    pike = next(one for one in document["figures"] if one["id"] == "pike")
    pike["place"]["height_mm"] = document["tank"]["fill_height_mm"] - depth_mm
    return scene_from(document)


class Reciprocity(unittest.TestCase):
    def test_paint_read_and_wished_gives_the_paint(self):
        water = water_of(quarry_pool())
        for code in ("#8a4b32", "#6f7440", "#d9cfa8", "#5a6a8a", "#b03a2c"):
            for depth, behind in ((5.0, 4.0), (40.0, 30.0), (110.0, 80.0)):
                with self.subTest(code, depth=depth, behind=behind):
                    read = hex_of(reads_as(water, code, depth, behind))
                    paint, gap, possible = nearest_paint(water, read, depth, behind)
                    self.assertEqual(possible, "paintable")
                    again = reads_as(water, hex_of(paint), depth, behind)
                    off = colour_difference(lab_of_linear(again), lab_of_linear(linear_of_hex(read)))
                    self.assertLess(float(off), 1.2)
                    self.assertLess(gap, 0.6)
                    back = np.abs(encode_srgb(paint) - encode_srgb(linear_of_hex(code)))
                    self.assertLess(back.max(), 9)  # reads are rounded to whole codes in dim light

    def test_paint_in_clear_resin_is_the_wish(self):
        document = quarry_pool().model_dump(mode="json")
        for pour in document["pours"]:
            pour["doses"] = []
        for resin in document["resins"]:
            resin["yellow_per_cm"] = 0.0
        water = water_of(scene_from(document))
        paint, gap, _ = nearest_paint(water, "#8a4b32", 60, 40)
        self.assertEqual(gap, 0.0)
        np.testing.assert_allclose(encode_srgb(paint), [0x8A, 0x4B, 0x32], atol=1.5)


class RedInBlueGreen(unittest.TestCase):
    def test_no_paint_makes_it_red_at_100_mm_and_nearer_is_better(self):
        found = paint_answer(in_blue_green(), "pike", "#c03020")
        self.assertEqual(found.possible, "no paint at all")
        self.assertGreater(found.gap_de00, 10)
        self.assertIn("the water takes that light away", found.sentence)
        self.assertEqual(len(found.places), 4)
        self.assertEqual(found.places, sorted(found.places, key=lambda place: place.gap_de00))
        self.assertLess(found.places[0].gap_de00, found.gap_de00)
        self.assertIn("half as deep, close", found.places[0].words)
        for place in found.places:
            with self.subTest(place.words):
                water = water_of(in_blue_green())
                _, gap, _ = nearest_paint(water, "#c03020", place.depth_mm, place.behind_mm)
                self.assertAlmostEqual(gap, place.gap_de00, delta=0.06)

    def test_nothing_reads_brighter_than_white_there(self):
        found = paint_answer(in_blue_green(), "pike", "#ffffff")
        white, read = linear_of_hex(found.white_reads_srgb), linear_of_hex(found.reads_srgb)
        self.assertTrue((read <= white + 0.01).all())

    def test_every_painted_zone_is_told(self):
        found = paint_answer(quarry_pool(), "pike", "#6f7440")
        self.assertEqual([zone.zone for zone in found.zones], ["flank", "back", "belly"])

    def test_no_such_figure(self):
        with self.assertRaises(GondolaError) as caught:
            paint_answer(quarry_pool(), "crab", "#c03020")
        self.assertEqual(caught.exception.field, "figure_id")
