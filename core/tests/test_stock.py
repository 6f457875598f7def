"""Doses as they are measured: whole drops, stocks, part A booked, what rounding costs."""

import unittest

from gondola_core.bench.doses import FACTORS, LEAST_DROPS, MOST_DROPS, measured_pour
from gondola_core.bench.stocks import SEEN_DE00
from gondola_core.evaluate import evaluate
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from


def dosed(*pairs):
    document = quarry_pool().model_dump(mode="json")
    document["pours"][1]["doses"] = [
        {"colourant_id": key, "dose_drops_per_100g": dose} for key, dose in pairs
    ]
    return scene_from(document)


class Stocks(unittest.TestCase):
    def measured(self, dose, batch_g, key="turquoise-ink"):
        return measured_pour(dosed((key, dose)), 2, batch_g, 0.7 * batch_g).doses[0]

    def test_weakest_stock_that_needs_ten_drops(self):
        for dose in (0.004, 0.02, 0.1, 0.35, 1.2, 5.0):
            for batch in (40.0, 200.0, 900.0):
                with self.subTest(dose=dose, batch=batch):
                    one = self.measured(dose, batch)
                    neat = dose * batch / 100
                    self.assertIn(one.factor, FACTORS)
                    self.assertAlmostEqual(one.neat_drops, neat, delta=5e-4)
                    if one.weighed:
                        self.assertGreater(neat * one.factor, MOST_DROPS)
                        continue
                    self.assertAlmostEqual(one.drops, max(1, neat * one.factor), delta=0.5)
                    lower = FACTORS[FACTORS.index(one.factor) - 1] if one.factor != FACTORS[0] else 0
                    self.assertLess(neat * lower, LEAST_DROPS)

    def test_rounded_dose_is_off_by_what_it_says(self):
        one = self.measured(0.123, 300.0)
        given = one.drops / one.factor
        self.assertAlmostEqual(given / (0.123 * 3) - 1, one.off_fraction, delta=1e-4)
        self.assertLess(abs(one.off_fraction), 0.5 / LEAST_DROPS + 1e-6)

    def test_part_a_of_the_stock_is_booked_in_the_batch(self):
        scene = dosed(("turquoise-ink", 0.05), ("red-ink", 0.02))
        pour = measured_pour(scene, 2, 400.0, 280.0)
        brought = sum(one.stock_g * (1 - 1 / one.factor) for one in pour.doses)
        self.assertAlmostEqual(pour.plain_part_a_g + brought, 280.0, delta=0.02)
        self.assertGreater(brought, 0.1)

    def test_a_drop_more_and_less_frame_the_rounding(self):
        pour = measured_pour(dosed(("burnt-umber-ink", 0.2)), 2, 350.0, 245.0)
        one = pour.doses[0]
        self.assertGreater(one.more_de00, 0)
        self.assertGreater(one.less_de00, 0)
        self.assertLessEqual(pour.rounding_de00, max(one.more_de00, one.less_de00))

    def test_smaller_batches_cost_more_at_the_least_stock(self):
        tiny = measured_pour(dosed(("red-ink", 0.002)), 2, 12.0, 8.0)
        large = measured_pour(dosed(("red-ink", 0.002)), 2, 1200.0, 800.0)
        self.assertGreaterEqual(tiny.rounding_de00, large.rounding_de00)
        self.assertIn("below what can be measured", tiny.doses[0].risk.said())

    def test_nothing_dosed_or_nothing_mixed(self):
        plain = measured_pour(dosed(), 2, 500.0, 350.0)
        self.assertEqual((plain.doses, plain.rounding_de00, plain.plain_part_a_g), ([], 0.0, 350.0))
        empty = measured_pour(dosed(("red-ink", 0.3)), 2, 0.0, 0.0)
        self.assertEqual(empty.doses, [])

    def test_words_of_the_test_cup_hold_the_same_dose(self):
        words = measured_pour(dosed(("red-ink", 0.5)), 2, 500.0, 350.0).cup_words.said()
        density = quarry_pool().resins[0].density_g_ml
        self.assertIn(f"{20 * density:.1f} g of mixed resin", words)
        # 0.11 neat drops are 5.5 of the strongest stock that needs three or more
        self.assertIn(f"{0.5 * 20 * density / 100 * 50:.0f} drops of red ink 1:50", words)
        strong = measured_pour(dosed(("red-ink", 20.0)), 2, 500.0, 350.0).cup_words.said()
        self.assertIn("4 drops of red ink.", strong)

    def test_risks_by_form(self):
        rows = [
            ("black-paste", 0.8, "dense: stir it into a little part A first"),
            ("white-craft-paint", 2.0, "milky: craft paint turns clear resin to milk"),
        ]
        from gondola_core.materials import load_library

        for key, dose, words in rows:
            document = quarry_pool().model_dump(mode="json")
            document["colourants"].append(load_library().colourants[key].model_dump(mode="json"))
            document["pours"][1]["doses"] = [{"colourant_id": key, "dose_drops_per_100g": dose}]
            with self.subTest(key):
                pour = measured_pour(scene_from(document), 2, 500.0, 350.0)
                self.assertIn(words, pour.doses[0].risk.said())


class OneBottle(unittest.TestCase):
    def test_one_stock_serves_every_pour_of_the_demo(self):
        outcome = evaluate(quarry_pool())
        self.assertEqual(len(outcome.stocks), 4)
        for stock in outcome.stocks:
            taken = 0.0
            for pour in outcome.pours:
                one = next(dose for dose in pour.cup.measured.doses if dose.colourant_id == stock.colourant_id)
                with self.subTest(stock.name, pour=pour.number):
                    self.assertEqual(one.factor, stock.factor)
                taken += one.stock_g
            with self.subTest(stock.name):
                self.assertLessEqual(stock.rounding_de00, SEEN_DE00)
                self.assertGreaterEqual(stock.make_g, taken)
                self.assertAlmostEqual(
                    stock.make_g, stock.factor * (stock.make_g - stock.part_a_g), delta=0.02 * stock.factor
                )

    def test_a_stronger_bottle_would_be_seen_or_not_be_counted(self):
        scene, outcome = quarry_pool(), evaluate(quarry_pool())
        for stock in outcome.stocks:
            if stock.factor == FACTORS[0]:
                continue
            stronger = {stock.colourant_id: FACTORS[FACTORS.index(stock.factor) - 1]} | {
                other.colourant_id: 250 for other in outcome.stocks if other is not stock
            }
            made = [
                measured_pour(scene, pour.number, pour.cup.mix.mix_g, pour.cup.mix.part_a_g, stronger)
                for pour in outcome.pours
            ]
            fewest = min(
                one.drops for pour in made for one in pour.doses if one.colourant_id == stock.colourant_id
            )
            worst = max(pour.rounding_de00 for pour in made)
            with self.subTest(stock.name):
                self.assertTrue(worst > 0.8 * SEEN_DE00 or fewest < LEAST_DROPS)

    def test_what_is_weighed_goes_by_the_steps_of_the_scale(self):
        one = measured_pour(dosed(("turquoise-ink", 0.5)), 2, 900.0, 630.0, {"turquoise-ink": 50}).doses[0]
        self.assertTrue(one.weighed)
        self.assertAlmostEqual(one.stock_g / 0.1, round(one.stock_g / 0.1), places=6)
        self.assertLess(abs(one.off_fraction), 0.02)
