"""The next pour planned anew, and a pour under a thermometer."""

import unittest
from datetime import timedelta

from changed import changed
from told import poured, told

from gondola_core.answers.joints import Meets
from gondola_core.bench.happened import as_happened
from gondola_core.bench.mixing import mass_ratio
from gondola_core.errors import GondolaError
from gondola_core.evaluate import evaluate
from gondola_core.samples import quarry_pool
from gondola_core.studies.replan import replan, with_waits
from gondola_core.studies.watching import MARGIN_K, Reading, judged, watched

SCENE = quarry_pool()
FIRST = SCENE.pours[0].id
BEGAN = SCENE.brief.first_pour_at


def after(hours):
    return BEGAN + timedelta(hours=hours)


class Replanned(unittest.TestCase):
    def test_what_went_as_planned_stays_as_planned(self):
        found = replan(SCENE, as_happened(SCENE, poured(FIRST, 0.0)), 1, after(1))
        self.assertEqual((found.pour_number, found.missed), (2, False))
        self.assertAlmostEqual(found.moved_h, 0.0, delta=0.02)
        self.assertEqual(found.ways[0].way, "planned")
        self.assertEqual(found.waits_h[1], SCENE.pours[1].wait_h)

    def test_a_cold_room_moves_the_window(self):
        cold = told(*((hours, "measured", {"what": "room", "measured_c": 17.0}) for hours in range(0, 12)))
        happened = as_happened(SCENE, poured(FIRST, 0.0) + cold)
        found = replan(SCENE, happened, 1, after(12))
        self.assertGreater(found.moved_h, 3.0)
        self.assertIn("later than planned", found.words.said())
        opens = evaluate(happened).pours[0].heat.cure.tack_opens_h
        self.assertAlmostEqual((found.opens_at - BEGAN) / timedelta(hours=1), opens, delta=0.02)

    def test_a_pour_that_was_late_moves_it_as_much_but_another_first_day_moves_nothing(self):
        second = SCENE.pours[1]
        events = poured(FIRST, 0.0) + poured(second.id, second.wait_h + 3.0)
        found = replan(SCENE, as_happened(SCENE, events), 2, after(second.wait_h + 4))
        self.assertAlmostEqual(found.moved_h, 3.0, delta=1.0)
        other_day = replan(SCENE, as_happened(SCENE, poured(FIRST, 240.0)), 1, after(241))
        self.assertAlmostEqual(other_day.moved_h, 0.0, delta=0.1)

    def test_where_the_plan_is_too_early_it_is_poured_well_inside_the_tack(self):
        cold = told(*((hours, "measured", {"what": "room", "measured_c": 16.0}) for hours in range(0, 30)))
        found = replan(SCENE, as_happened(SCENE, poured(FIRST, 0.0) + cold), 1, after(20))
        self.assertEqual(found.ways[0].way, "in_tack")
        self.assertGreater(found.ways[0].start_at, found.opens_at + timedelta(hours=1))
        self.assertLess(found.ways[0].start_at, found.closes_at - timedelta(hours=1))

    def test_a_wrong_ratio_below_is_warned_of(self):
        ratio = mass_ratio(SCENE.resin_of(SCENE.pours[0]))
        for error, said in ((0.0, None), (-0.08, "too much part A"), (0.08, "too much part B")):
            with self.subTest(error=error):
                events = poured(FIRST, 0.0, a=100.0, b=100.0 * ratio * (1 + error))
                warning = replan(SCENE, as_happened(SCENE, events), 1, after(2)).warning
                self.assertIn(said, warning.said()) if said else self.assertIsNone(warning)

    def test_a_missed_window_asks_for_abrasion_and_the_plan_then_bonds_no_more(self):
        happened = as_happened(SCENE, poured(FIRST, 0.0))
        closes = evaluate(happened).pours[0].heat.cure.tack_closes_h
        found = replan(SCENE, happened, 1, after(closes + 2))
        self.assertTrue(found.missed)
        self.assertEqual([one.way for one in found.ways], ["after_hard"])
        self.assertTrue(found.ways[0].abrade)
        self.assertIn("abrade", found.ways[0].words.said())
        anew = evaluate(with_waits(happened, found.waits_h))
        self.assertEqual(anew.pours[1].joint.meets, Meets.TOO_LATE)

    def test_a_free_hour_is_looked_for(self):
        scene = changed(brief__free={"weekday": [18.0, 22.0], "weekend": [8.0, 22.0]})
        found = replan(scene, as_happened(scene, poured(FIRST, 6.0)), 1, after(7))
        for one in found.ways:
            if one.way != "planned":
                hours = (18, 22) if one.start_at.weekday() < 5 else (8, 22)
                with self.subTest(one.way):
                    self.assertTrue(hours[0] <= one.start_at.hour + one.start_at.minute / 60 <= hours[1] + 0.02)

    def test_nothing_before_the_first_and_after_the_last(self):
        self.assertIsNone(replan(SCENE, SCENE, 0, BEGAN))
        self.assertIsNone(replan(SCENE, SCENE, len(SCENE.pours), BEGAN))


class Watching(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.band = watched(SCENE, 2)

    def test_the_band_holds_what_the_march_says_of_the_peak(self):
        cure = evaluate(SCENE).pours[1].heat.cure
        self.assertAlmostEqual(max(self.band.middle_c), cure.peak_c, delta=0.15 * cure.peak_c)
        for low, middle, high in zip(self.band.low_c, self.band.middle_c, self.band.high_c, strict=True):
            self.assertTrue(low <= middle <= high)
        self.assertEqual(self.band.at_h[0], 0.0)
        self.assertAlmostEqual(self.band.middle_c[0], SCENE.pours[1].mix_c, delta=3.0)

    def test_leaving_it_upward_is_a_stop_once_it_is_sure(self):
        at = [2.0, 3.0, 4.0]

        def high(hours):
            return self.band.high_c[self.band.at_h.index(hours)]

        rows = [
            ([], "none", False), ([(2.0, high(2.0))], "within", False),
            ([(2.0, high(2.0)), (3.0, high(3.0) + MARGIN_K + 1)], "within", False),
            ([(h, high(h) + MARGIN_K + 1) for h in at], "above", True),
            ([(h, 5.0) for h in at], "below", False),
        ]
        for readings, state, stop in rows:
            with self.subTest(state, readings=readings):
                told_now = judged(self.band, [Reading(at_h=h, measured_c=c) for h, c in readings])
                self.assertEqual((told_now.state, told_now.stop), (state, stop))
                if stop:
                    self.assertIn("never in a closed bin", told_now.words.said())

    def test_there_is_no_pour_nine(self):
        with self.assertRaises(GondolaError):
            watched(SCENE, 9)


if __name__ == "__main__":
    unittest.main()
