import json
import unittest
from unittest import mock

from gondola_core.answers import march
from gondola_core.answers.kept import Keeper
from gondola_core.digests import digest
from gondola_core.evaluate import DRAFT, FINE, evaluate, outcome_json
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from


def moved(line_mm=44.0, **more):
    document = quarry_pool().model_dump(mode="json")
    document["pours"][1]["top_depth_mm"] = line_mm
    document.update(more)
    return scene_from(document)


class Composing(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.scene = quarry_pool()
        cls.keeper = Keeper()
        cls.outcome = evaluate(cls.scene, keeper=cls.keeper)

    def test_pours_fill_the_free_volume(self):
        total = sum(pour.fill.free_volume_ml for pour in self.outcome.pours)
        self.assertAlmostEqual(total, self.outcome.whole.free_volume_ml, delta=0.1)
        self.assertLess(total, 180 * 110 * 120 / 1000)

    def test_the_last_level_to_gel_is_when_the_pour_has(self):
        heat = self.outcome.heat
        for pour in self.outcome.pours:
            with self.subTest(pour.number):
                levels = [
                    hours for hours, number in zip(heat.gel_h, heat.pour_number, strict=True)
                    if number == pour.number
                ]
                self.assertEqual(max(levels), pour.heat.cure.gel_h)

    def test_energy_balances_in_every_run(self):
        self.assertLess(self.outcome.march.imbalance_fraction, 1e-3)

    def test_profiles_share_the_depth_axis(self):
        heat, history = self.outcome.heat, self.outcome.history
        self.assertEqual(heat.depth_mm, sorted(heat.depth_mm))
        self.assertEqual(len(history.hottest_c[0]), len(heat.depth_mm))
        self.assertEqual(len(history.at_h), len(history.hottest_c))
        for pour in self.outcome.pours:
            levels = [
                peak for peak, number in zip(heat.peak_c, heat.pour_number, strict=True)
                if number == pour.number
            ]
            self.assertAlmostEqual(max(levels), pour.heat.cure.peak_c, places=2)

    def test_tack_opens_before_it_closes_before_hard_before_out(self):
        for pour in self.outcome.pours:
            with self.subTest(pour.number):
                cure = pour.heat.cure
                self.assertLess(cure.tack_opens_h, cure.tack_closes_h)
                self.assertLessEqual(cure.tack_closes_h, cure.hard_h)
                self.assertLessEqual(cure.hard_h, cure.demould_h)
                self.assertLess(cure.demould_h, cure.full_cure_d * 24)
                self.assertLessEqual(pour.heat.peak_band.low_c, cure.peak_c)
                self.assertGreaterEqual(pour.heat.peak_band.high_c, cure.peak_c)

    def test_json_is_the_same_each_time(self):
        again = outcome_json(evaluate(self.scene, keeper=Keeper()))
        self.assertEqual(outcome_json(self.outcome), again)
        self.assertEqual(json.loads(again)["grade"], "draft")

    def test_moving_a_layer_line_rasterises_nothing_again(self):
        keeper = Keeper()
        evaluate(quarry_pool(), keeper=keeper)
        evaluate(moved(), keeper=keeper)
        self.assertEqual(keeper.computed["spans"], 1)
        self.assertEqual(keeper.computed["silhouette-front"], 4 + 4)
        self.assertEqual(keeper.computed["march"], 2)

    def test_moving_a_dose_marches_nothing_again(self):
        keeper = Keeper()
        evaluate(quarry_pool(), keeper=keeper)
        document = quarry_pool().model_dump(mode="json")
        document["pours"][1]["doses"][0]["dose_drops_per_100g"] = 1.0
        evaluate(scene_from(document), keeper=keeper)
        self.assertEqual(keeper.computed["march"], 1)
        self.assertEqual(keeper.computed["water"], 2)

    def test_draft_and_fine_agree_and_fine_reports_progress(self):
        seen = []
        fine = evaluate(self.scene, FINE, keeper=Keeper(), progress=seen.append)
        for draft, close in zip(self.outcome.pours, fine.pours, strict=True):
            with self.subTest(draft.number):
                self.assertAlmostEqual(draft.heat.cure.peak_c, close.heat.cure.peak_c, delta=1.5)
                self.assertAlmostEqual(draft.heat.cure.tack_opens_h, close.heat.cure.tack_opens_h, delta=1)
        self.assertGreater(len(seen), 3)
        self.assertEqual(seen, sorted(seen))

    def test_a_pour_that_is_all_bed_is_said_so(self):
        document = quarry_pool().model_dump(mode="json")
        document["bed"]["heights_mm"] = [[60, 60], [60, 60]]
        outcome = evaluate(scene_from(document))
        self.assertIsNone(outcome.pours[0].heat.cure)
        self.assertAlmostEqual(outcome.pours[0].fill.free_volume_ml, 0, places=3)
        self.assertIsNotNone(outcome.pours[1].heat.cure)

    def test_odd_plans_are_answered(self):
        rows = [
            ("one pour", [0.0], 120), ("ten pours", [108 - 12.0 * n for n in range(10)], 120),
            ("thin film", [1.0, 0.0], 120),
        ]
        for name, lines, _ in rows:
            with self.subTest(name):
                document = quarry_pool().model_dump(mode="json")
                pour = document["pours"][0]
                document["pours"] = [
                    {**pour, "id": f"pour-{n}", "top_depth_mm": line, "wait_h": 24.0}
                    for n, line in enumerate(lines, start=1)
                ]
                outcome = evaluate(scene_from(document), DRAFT, Keeper())
                self.assertEqual(len(outcome.pours), len(lines))

    def test_a_large_tank_gets_larger_cells_and_says_so(self):
        document = quarry_pool().model_dump(mode="json")
        document["tank"].update(
            inner_width_mm=900, inner_behind_mm=600, fill_height_mm=120, wall_height_mm=140
        )
        outcome = evaluate(scene_from(document), DRAFT, Keeper())
        self.assertGreater(outcome.march.cell_mm, 15)
        self.assertLess(outcome.march.cells_count, 20_000)

    def test_a_bed_that_fills_the_tank_leaves_no_resin(self):
        document = quarry_pool().model_dump(mode="json")
        document["bed"]["heights_mm"] = [[120, 120], [120, 120]]
        outcome = evaluate(scene_from(document), DRAFT, Keeper())
        self.assertTrue(all(pour.heat.cure is None for pour in outcome.pours))
        self.assertIn("no_room", [flag.code for flag in outcome.flags])


class Keeping(unittest.TestCase):
    def test_oldest_answers_are_forgotten(self):
        keeper = Keeper(most=2)
        for value in (1, 2, 3, 1):
            keeper.keep("square", str(value), lambda value=value: value**2)
        self.assertEqual(keeper.computed["square"], 4)
        keeper.keep("square", "1", lambda: self.fail("kept"))

    def test_a_subject_of_large_answers_keeps_only_its_latest(self):
        keeper = Keeper(most=10)
        keeper.keep("small", "0", lambda: "stays")
        for value in (1, 2, 3):
            keeper.keep("large", str(value), lambda value=value: value, most=2)
        keeper.keep("small", "0", lambda: self.fail("kept"))
        keeper.keep("large", "3", lambda: self.fail("kept"), most=2)
        keeper.keep("large", "1", lambda: 1, most=2)
        self.assertEqual(keeper.computed["large"], 4)

    def test_digest_tells_inputs_apart(self):
        scene = quarry_pool()
        self.assertEqual(digest(scene), digest(quarry_pool()))
        self.assertNotEqual(digest([scene.tank, 1]), digest([scene.tank, 2]))
        with self.assertRaises(ValueError):
            digest(object())

    def test_a_failing_answer_is_not_kept(self):
        keeper = Keeper()
        with self.assertRaises(ZeroDivisionError):
            keeper.keep("bad", "1", lambda: 1 / 0)
        self.assertEqual(keeper.keep("bad", "1", lambda: 7), 7)

    def test_every_grade_is_kept_apart(self):
        with mock.patch.object(march, "march_pours", wraps=march.march_pours) as marched:
            keeper = Keeper()
            evaluate(quarry_pool(), DRAFT, keeper)
            evaluate(quarry_pool(), DRAFT, keeper)
        self.assertEqual(marched.call_count, 4)
