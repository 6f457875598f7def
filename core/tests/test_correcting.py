"""Recipe arithmetic at the scale: rounding, over-pours, and what an error leaves, against hand arithmetic."""

import unittest

from gondola_core.bench.correcting import corrected, ratio_error, too_dark, top_up, weighed
from gondola_core.bench.mixing import mix_for
from gondola_core.errors import GondolaError
from gondola_core.materials import load_library
from gondola_core.materials.resin import MixRatio

DEEP = load_library().resins["deep"]


def resin(by, a, b, density_a=1.1, density_b=1.1):
    return DEEP.model_copy(update={
        "ratio": MixRatio(by=by, part_a=a, part_b=b), "density_a_g_ml": density_a, "density_b_g_ml": density_b,
        "measured_density_g_ml": None,
    })


class Scale(unittest.TestCase):
    def test_worked_recipes(self):
        rows = [
            # ratio, volume, step, A, B, error in percent
            (resin("volume", 2, 1, 1.15, 0.98), 258.0, 0.1, 197.8, 84.3, 0.02),
            (resin("mass", 100, 45), 44.0, 1.0, 33.0, 15.0, 1.0),
            (resin("volume", 1, 1), 100.0, 0.1, 55.0, 55.0, 0.0),
            (resin("mass", 100, 83), 100.0, 0.1, 60.1, 49.9, 0.0),
        ]
        for one, volume, step, a, b, error in rows:
            with self.subTest(ratio=one.ratio, step=step):
                told = weighed(one, mix_for(volume, one).part_a_g, step)
                self.assertAlmostEqual(told.part_a_g, a, places=3)
                self.assertAlmostEqual(told.part_b_g, b, places=3)
                self.assertAlmostEqual(100 * told.error_fraction, error, delta=0.05)

    def test_no_step_spoils_a_cup_that_is_large_enough(self):
        """B of step/2 (1 + b/a)/0.01 keeps within 1 %: 72.5 g at 1 g, 7.25 at a tenth."""
        one = resin("mass", 100, 45)
        for step in (1.0, 0.1, 0.01):
            least_b = step / 2 * 1.45 / 0.01
            for more in (1.0, 1.37, 2.9):
                with self.subTest(step=step, more=more):
                    told = weighed(one, more * least_b / 0.45, step)
                    self.assertLessEqual(abs(told.error_fraction), 0.0101)


class OverPoured(unittest.TestCase):
    def test_the_part_that_is_short_is_added(self):
        one = resin("mass", 100, 45)
        rows = [
            # poured A, B; what is added, of which; error if left; over what was wanted (290 g)
            (212.0, 90.0, "b", 5.4, -0.057, 17.4), (200.0, 99.0, "a", 20.0, 0.10, 29.0),
        ]
        for a, b, add, add_g, error, over in rows:
            with self.subTest(a=a, b=b):
                told = corrected(one, a, b, 290.0, 25.0)
                self.assertEqual(told.add, add)
                self.assertAlmostEqual(told.add_g, add_g, delta=0.01)
                self.assertAlmostEqual(told.error_fraction, error, delta=1e-3)
                self.assertAlmostEqual(told.over_g, over, delta=0.1)
                put_right = (a + told.add_g, b) if add == "a" else (a, b + told.add_g)
                self.assertAlmostEqual(ratio_error(one, *put_right), 0.0, delta=1e-4)

    def test_before_b_has_come_a_is_taken_out_or_b_poured_to_it(self):
        told = corrected(resin("mass", 100, 45), 212.0, 0.0, 290.0, 25.0)
        self.assertAlmostEqual(told.take_out_g, 12.0, delta=0.01)
        self.assertAlmostEqual(told.add_g, 95.4, delta=0.01)
        self.assertIn("still to come", str(told.left_words))

    def test_what_an_error_leaves_is_told_in_its_grades(self):
        one = resin("mass", 100, 50)
        for off, words in (
            (1.0, "nobody sees"), (0.99, "nobody sees"), (0.97, "a little softer: too much A"),
            (1.06, "clearly softer"), (0.88, "like rubber"), (1.17, "too much B"),
        ):
            with self.subTest(off=off):
                self.assertIn(words, str(corrected(one, 100.0, 50.0 * off, 150.0, 25.0).left_words))

    def test_a_volume_ratio_read_as_weight_is_the_commonest_ruin(self):
        """2:1 by volume weighed as 2:1: part B is 17.3 % too much."""
        one = resin("volume", 2, 1, 1.15, 0.98)
        self.assertAlmostEqual(corrected(one, 200.0, 100.0, 300.0, 25.0).error_fraction, 0.173, delta=1e-3)

    def test_it_mixes_in_for_a_tenth_of_the_working_time_and_sooner_when_warm(self):
        cool, warm = (corrected(DEEP, 100.0, 60.0, 150.0, mix_c).until_min for mix_c in (25.0, 35.0))
        self.assertAlmostEqual(cool, 0.1 * DEEP.working_min, delta=0.06)
        self.assertLess(warm, cool)

    def test_nothing_poured_is_refused(self):
        for a, b in ((0.0, 10.0), (10.0, -1.0), (60_000.0, 10.0)):
            with self.subTest(a=a, b=b), self.assertRaisesRegex(GondolaError, "part A first"):
                corrected(DEEP, a, b, 100.0, 25.0)


class TooMuchColour(unittest.TestCase):
    def test_clear_resin_brings_a_cup_back_or_the_pour_above_makes_up_for_it(self):
        ink = ("red", "red ink")
        # 300 g with 6 drops where 4 were wanted: half as much again of plain mix
        told = too_dark(ink, 4.0, 6.0, 300.0, (1.2, 2.0))
        self.assertAlmostEqual(told.clear_g, 150.0)
        # 0.667 drops per 100 g too much here, over a pour twice as thick: 0.333 less of it there
        self.assertAlmostEqual(told.next_drops, 1.2 - 2 / 3 / 2, places=3)
        self.assertIn("give the pour above", str(told.words))
        for above in (None, (0.1, 0.5)):
            with self.subTest(above=above):
                self.assertIsNone(too_dark(ink, 4.0, 6.0, 300.0, above).next_drops)
        self.assertIsNone(too_dark(ink, 4.0, 4.5, 300.0))

    def test_short_of_the_line_is_topped_up_in_the_ratio(self):
        one = resin("mass", 100, 45)
        told = top_up(one, 2.0, 150.0, 25.0)
        self.assertAlmostEqual(told.volume_ml, 30.0)
        self.assertAlmostEqual(told.part_b_g / told.part_a_g, 0.45, delta=0.01)
        self.assertAlmostEqual(told.part_a_g + told.part_b_g, 30.0 * one.density_g_ml, delta=0.11)
        self.assertIsNone(top_up(one, 0.2, 150.0, 25.0))
