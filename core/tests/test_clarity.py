"""Bubbles that are seen: closed forms, monotony of each measure, and what differs between beds."""

import unittest
from dataclasses import replace
from math import pi

import numpy as np
from changed import changed

from gondola_core.answers.book import Book
from gondola_core.cure.bubbles import escape_diameter
from gondola_core.cure.clarity import (
    FOLDED_PER_ML,
    SIZES_MM,
    Gas,
    Handling,
    Liquid,
    gas_seen,
    left_fraction,
    pressed,
    release,
    stirred_seen,
    surfaces_after,
    thick_after,
    veil_fraction,
)
from gondola_core.evaluate import evaluate
from gondola_core.samples import ferry_landing, quarry_pool
from gondola_core.views.bubbles import seen_bubbles

PLAIN = Handling(stirs="slow", pours="low", rest_min=0.0, vacuum=False, pot_bar=0.0)


def liquid(smallest_mm=0.25, height_mm=50.0, **more):
    """A pour from whose foot a bubble of a size just leaves."""
    gap = 1100.0
    flown = (height_mm * 1e-3) / (gap * 9.80665 / 18 * (smallest_mm * 1e-3) ** 2)
    held = {
        "height": height_mm * 1e-3, "density_gap": gap, "flown": flown, "viscosity": 0.7, "cup": 0.1,
        "volume_ml": 500.0,
    }
    return Liquid(**{**held, **more})


class ClosedForms(unittest.TestCase):
    def test_what_the_kept_bubbles_stand_before(self):
        """Over 100 mm of a pour from whose foot 0.25 mm just leaves: 1.6 % of the sight."""
        pour = liquid(0.25, cup=1e9)
        self.assertAlmostEqual(veil_fraction(pour, (), PLAIN, 0.1), 0.016, delta=3e-4)
        self.assertGreater(veil_fraction(pour, (), PLAIN, 0.2), 1.9 * veil_fraction(pour, (), PLAIN, 0.1))

    def test_a_pressure_pot_makes_bubbles_smaller(self):
        for bar, expected in ((0.0, 1.0), (2.0, 0.695), (2.76, 0.645), (4.14, 0.581)):
            with self.subTest(bar=bar):
                self.assertAlmostEqual(pressed(bar), expected, delta=1e-3)

    def test_share_that_is_left(self):
        pour = liquid(0.25)
        self.assertAlmostEqual(escape_diameter(pour.height, pour.density_gap, pour.flown), 0.25e-3, delta=1e-7)
        for size, expected in ((0.05, 0.96), (0.1, 0.84), (0.2, 0.36), (0.25, 0.0), (0.5, 0.0)):
            with self.subTest(size=size):
                left = left_fraction(size * 1e-3, pour.height, pour.density_gap, pour.flown)
                self.assertAlmostEqual(float(left), expected, delta=1e-3)

    def test_worked_case_of_stirred_in_bubbles(self):
        """Classes of 20, 10, 5, 1, 0.1 per ml with d* of 0.25 mm: 10.2 are left per ml from 0.1 mm on."""
        seen = stirred_seen(liquid(0.25), PLAIN)
        self.assertAlmostEqual(seen, 10 * (10 * 0.84 + 5 * 0.36), delta=0.1)
        self.assertEqual(len(SIZES_MM), len(FOLDED_PER_ML))

    def test_gas_of_plaster_as_bubbles(self):
        """100 ml of plaster with 0.4 of pores from 20 to 50 degrees C give 4.09 ml: 7800 bubbles of 1 mm."""
        volume = 0.4 * 100 * (323.15 / 293.15 - 1)
        self.assertAlmostEqual(volume, 4.09, delta=0.01)
        late = Gas(volume_ml=volume, left=np.zeros(1), shares=np.ones(1))
        count = gas_seen(liquid(), late, PLAIN) * 500.0 / 10.0
        self.assertAlmostEqual(count, volume * 1e3 / (pi / 6), delta=1)
        self.assertAlmostEqual(count, 7800, delta=30)

    def test_gas_that_comes_early_leaves(self):
        at = np.linspace(0, 3600, 50)
        thickens = 0.5 * np.exp(at / 600)
        left, shares = release(at, 20 + at / 100, thickens)
        self.assertAlmostEqual(left[0], float(np.trapezoid(1 / thickens, at)), delta=1e-9)
        self.assertTrue((np.diff(left) <= 0).all())
        self.assertAlmostEqual(shares.sum(), 1.0)
        early, _ = release(at, np.minimum(20 + at / 10, 40), thickens)
        warm_first = release(at, np.minimum(20 + at / 10, 40), thickens)[1]
        pour = liquid(height_mm=20.0)
        seen = [
            gas_seen(pour, Gas(volume_ml=1.0, left=early, shares=each), PLAIN) for each in (warm_first, shares)
        ]
        self.assertLess(seen[0], seen[1])


class Flames(unittest.TestCase):
    def test_the_last_useful_pass_of_a_mix_that_thickens_exponentially(self):
        """15 mm of 0.7 Pa s, ten times as thick after 45 min: 1 mm takes 18 s, 0.5 mm 72 s, 0.2 mm 548 s."""
        at = np.linspace(0, 6 * 3600, 20001)
        thickens = 0.7 * np.exp(at / (45 * 60 / np.log(10)))
        for size, expected in ((1.0, 18), (0.5, 72), (0.2, 548), (0.1, None)):
            with self.subTest(size=size):
                found = surfaces_after(size * 1e-3, 0.015, 1100.0, at, thickens)
                if expected is None:
                    self.assertIsNone(found)
                else:
                    self.assertAlmostEqual(found, expected, delta=0.02 * expected + 1)
        self.assertAlmostEqual(thick_after(at, thickens), 45 * 60, delta=2)
        self.assertIsNone(thick_after(at[:100], thickens[:100]))

    def test_a_quick_resin_leaves_less_time(self):
        slow, quick = (evaluate(scene).clarity[1].flame for scene in (quarry_pool(), ferry_landing()))
        self.assertGreater(slow.until_min, quick.until_min)
        self.assertEqual(slow.passes_min, [2.0, 10.0, 20.0])
        self.assertTrue(all(one <= quick.until_min for one in quick.passes_min))


class Monotony(unittest.TestCase):
    def test_each_measure_lessens_what_stirring_leaves(self):
        pour = liquid(0.4)
        plain = stirred_seen(pour, PLAIN)
        rows = [
            replace(PLAIN, rest_min=10.0), replace(PLAIN, vacuum=True), replace(PLAIN, pot_bar=2.0),
        ]
        for handling in rows:
            with self.subTest(handling):
                self.assertLess(stirred_seen(pour, handling), plain)
        self.assertLess(stirred_seen(replace(pour, height=pour.height / 2), PLAIN), plain)
        amounts = [stirred_seen(pour, replace(PLAIN, stirs=way)) for way in ("slow", "brisk", "paddle")]
        self.assertEqual(amounts, sorted(amounts))
        rests = [stirred_seen(pour, replace(PLAIN, rest_min=rest)) for rest in (0, 2, 5, 10, 30)]
        self.assertEqual(rests, sorted(rests, reverse=True))


class Scenes(unittest.TestCase):
    def test_an_open_bed_feeds_them_and_a_seal_helps_most(self):
        first = evaluate(quarry_pool()).clarity[0]
        self.assertEqual(first.amount, "many")
        self.assertGreater(first.bed_fraction, 0.9)
        self.assertEqual(first.helps[0].words.id, "clarity.seal")
        sealed = evaluate(changed(bed__sealed=True)).clarity[0]
        self.assertAlmostEqual(sealed.seen_count, first.helps[0].seen_count, delta=0.02 * first.seen_count)
        self.assertNotIn("clarity.seal", [one.words.id for one in sealed.helps])

    def test_a_bare_tank_of_quick_resin_is_helped_by_other_things(self):
        thick = evaluate(ferry_landing()).clarity[2]
        self.assertGreater(thick.stirring_fraction, 0.9)
        self.assertIn(thick.helps[0].words.id, ("clarity.pot", "clarity.thinner"))
        counts = [one.seen_count for one in thick.helps]
        self.assertEqual(counts, sorted(counts))
        self.assertLess(max(counts), thick.seen_count)

    def test_shares_make_a_whole_and_the_range_is_wide(self):
        for scene in (quarry_pool(), ferry_landing()):
            for one in evaluate(scene).clarity:
                with self.subTest(scene.name, pour=one.pour_number):
                    if one.seen_count > 0:
                        whole = one.stirring_fraction + one.bed_fraction + one.figures_fraction
                        self.assertAlmostEqual(whole, 1.0, delta=0.002)
                    self.assertLessEqual(one.seen_low_count, one.seen_count)
                    self.assertGreaterEqual(one.seen_high_count, one.seen_count)

    def test_stirring_marches_nothing_anew(self):
        from gondola_core.answers.kept import Keeper

        keeper = Keeper(most=400)
        slow = evaluate(ferry_landing(), keeper=keeper)
        marches = keeper.computed["march"]
        document = ferry_landing()
        habits = document.brief.habits.model_copy(update={"stirs": "paddle"})
        brief = document.brief.model_copy(update={"habits": habits})
        brisk = evaluate(document.model_copy(update={"brief": brief}), keeper=keeper)
        self.assertEqual(keeper.computed["march"], marches)
        self.assertGreater(brisk.clarity[2].seen_count, 5 * slow.clarity[2].seen_count)


class Pictured(unittest.TestCase):
    def test_the_same_bubbles_hang_there_every_time_and_others_for_another_seed(self):
        book = Book(quarry_pool())
        self.assertEqual(seen_bubbles(book), seen_bubbles(book))
        self.assertNotEqual(seen_bubbles(book), seen_bubbles(book, seed=2))

    def test_as_many_are_drawn_as_are_told(self):
        scene = quarry_pool()
        drawn, told = seen_bubbles(Book(scene)), evaluate(scene)
        expected = sum(
            one.seen_count * pour.fill.resin_volume_ml / 10
            for one, pour in zip(told.clarity, told.pours, strict=True)
        )
        self.assertAlmostEqual(len(drawn.size_mm), drawn.drawn_fraction * expected, delta=0.3 * len(drawn.size_mm))
        self.assertLess(drawn.drawn_fraction, 1.0)

    def test_they_hang_in_the_resin_and_are_seen(self):
        scene = quarry_pool()
        drawn = seen_bubbles(Book(scene))
        self.assertGreaterEqual(min(drawn.size_mm), 0.1)
        self.assertTrue(all(0 <= x <= scene.tank.inner_width_mm for x in drawn.x_mm))
        self.assertTrue(all(0 <= depth <= scene.tank.fill_height_mm for depth in drawn.depth_mm))

    def test_a_sealed_bed_leaves_fewer(self):
        sealed = seen_bubbles(Book(changed(bed__sealed=True)))
        plain = seen_bubbles(Book(quarry_pool()))
        self.assertLess(
            len(sealed.size_mm) / sealed.drawn_fraction, 0.5 * len(plain.size_mm) / plain.drawn_fraction
        )


class Streams(unittest.TestCase):
    def test_a_broken_stream_brings_most_and_a_thin_one_from_a_hand_up_least(self):
        seen = [stirred_seen(liquid(0.25), replace(PLAIN, pours=way)) for way in ("high", "low", "broken")]
        self.assertEqual(seen, sorted(seen))

    def test_air_that_stays_and_flat_undersides_are_told_beside(self):
        told = evaluate(ferry_landing())
        for one, pour in zip(told.clarity, told.pours, strict=True):
            self.assertAlmostEqual(one.trapped_ml, pour.fill.trapped_ml, delta=0.01)
        flat = sum(fact.flat_underside_cm2 for fact in told.figures)
        self.assertAlmostEqual(sum(one.undersides_cm2 for one in told.clarity), flat, delta=0.1)
