"""What is needed against what is there, and the kits that cost least, checked by trying them all."""

import itertools
import unittest
from datetime import date

from changed import changed

from gondola_core.answers.book import Book
from gondola_core.answers.needs import NEEDS
from gondola_core.bench.shopping import AGED_D, Held, Kit, cheapest_kits, shopping
from gondola_core.evaluate import evaluate
from gondola_core.samples import quarry_pool
from gondola_core.words import METRIC

SCENE = quarry_pool()
TODAY = date(2027, 2, 1)


def kit(name, a, b, price, resin="deep"):
    return Kit(id=name, name=name, resin_id=resin, part_a_g=a, part_b_g=b, price=price)


SMALL, MIDDLE, LARGE = kit("small", 350, 150, 24), kit("middle", 1050, 450, 58), kit("large", 3500, 1500, 170)
ODD = kit("odd", 200, 400, 20)


def needs(scene=SCENE):
    return Book(scene).ask(NEEDS)


def amount(found, key):
    return next(one.amount for one in found if one.key == key)


class Kits(unittest.TestCase):
    def test_the_cheapest_are_those_that_trying_all_finds(self):
        kits = [SMALL, MIDDLE, LARGE, ODD]
        for a, b in ((10, 5), (351, 150), (1200, 520), (2400, 1000), (700, 1500), (3600, 1400), (0.0, 90.0)):
            with self.subTest(a=a, b=b):
                counts = cheapest_kits(kits, a, b)
                best = min(
                    sum(n * one.price for n, one in zip(many, kits, strict=True))
                    for many in itertools.product(range(9), range(5), range(3), range(6))
                    if sum(n * one.part_a_g for n, one in zip(many, kits, strict=True)) >= a
                    and sum(n * one.part_b_g for n, one in zip(many, kits, strict=True)) >= b
                )
                self.assertAlmostEqual(sum(n * one.price for n, one in zip(counts, kits, strict=True)), best)

    def test_what_costs_the_same_leaves_least_over(self):
        self.assertEqual(cheapest_kits([kit("big", 900, 400, 30), kit("fit", 500, 220, 30)], 480, 200), [0, 1])

    def test_nothing_missing_buys_nothing_and_no_kit_covers_nothing(self):
        self.assertEqual(cheapest_kits([SMALL], 0.0, 0.0), [0])
        self.assertEqual(cheapest_kits([], 10.0, 0.0), [])
        self.assertEqual(cheapest_kits([SMALL], 1e6, 0.0), [])


class Needs(unittest.TestCase):
    def test_resin_adds_up_to_the_cups_and_pieces_multiply_it(self):
        mixed = sum(pour.cup.mix.mix_g for pour in evaluate(SCENE).pours)
        found = needs()
        self.assertAlmostEqual(amount(found, "a:deep") + amount(found, "b:deep"), mixed, delta=0.3)
        many = needs(changed(brief__pieces_count=4))
        self.assertAlmostEqual(amount(many, "a:deep") / amount(found, "a:deep"), 4.0, delta=0.01)

    def test_a_container_that_stays_needs_no_sheet_and_no_paper(self):
        keys = {one.key.partition(":")[0] for one in needs(changed(tank__walls_stay=True))}
        self.assertTrue({"sheet", "papers"}.isdisjoint(keys))
        self.assertTrue({"sheet", "papers", "cups", "gloves", "ink", "seal"} <= {
            one.key.partition(":")[0] for one in needs()
        })


class Lists(unittest.TestCase):
    def shop(self, held=(), kits=()):
        return shopping(SCENE, needs(), held, kits, TODAY)

    def line(self, found, key):
        return next(one for one in found.lines if one.key == key)

    def test_what_is_there_is_taken_off_and_what_is_missing_priced(self):
        held = [Held(key="gloves", name="gloves", amount=3, unit="pairs", price=0.4)]
        line = self.line(self.shop(held), "gloves")
        self.assertEqual(line.missing, line.need - 3)
        self.assertAlmostEqual(line.cost, 0.4 * line.missing)

    def test_kits_cover_both_parts_and_say_what_is_left(self):
        held = [Held(key="b:deep", name="part B", amount=900)]
        found = self.shop(held, [SMALL, MIDDLE, ODD])
        a, b = amount(needs(), "a:deep"), amount(needs(), "b:deep")
        bought = {one.kit_id: one.count for one in found.kits}
        given = {one.id: one for one in (SMALL, MIDDLE, ODD)}
        self.assertGreaterEqual(sum(n * given[key].part_a_g for key, n in bought.items()), a)
        left = 900 + sum(n * given[key].part_b_g for key, n in bought.items()) - b
        self.assertAlmostEqual(found.kits[0].left_b_g, left, delta=0.1)
        self.assertNotIn("part A of deep-pour resin", [one.said(METRIC) for one in found.unpriced])

    def test_what_has_no_price_is_named_and_not_counted(self):
        found = self.shop()
        self.assertEqual((found.buy_cost, found.kits), (0.0, []))
        self.assertIn("nitrile gloves", [one.said(METRIC) for one in found.unpriced])

    def test_the_piece_costs_what_goes_into_it(self):
        found = self.shop(kits=[MIDDLE])
        mixed = amount(needs(), "a:deep") + amount(needs(), "b:deep")
        self.assertAlmostEqual(found.piece_cost, mixed * 58 / 1500, delta=0.05)
        self.assertGreater(found.buy_cost, found.piece_cost)

    def test_an_old_part_b_is_told_of(self):
        rows = [("b:deep", AGED_D + 1, None, "yellow"), ("b:deep", AGED_D - 1, None, None),
                ("a:deep", 400, 365, "opened 400 days ago"), ("b:deep", 40, 30, "test cup")]
        for key, days, shelf, said in rows:
            with self.subTest(key, days=days):
                opened = date.fromordinal(TODAY.toordinal() - days)
                held = [Held(key=key, name="bottle", amount=100, opened_on=opened, shelf_d=shelf)]
                old = self.line(self.shop(held), key).old
                if said is None:
                    self.assertIsNone(old)
                else:
                    self.assertIn(said, old.said(METRIC))


if __name__ == "__main__":
    unittest.main()
