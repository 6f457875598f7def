"""A draft is bounded: too much work is begun anew on rougher cells, and said so; nothing leaves its bounds."""

import unittest
from itertools import pairwise
from unittest import mock

from worst_scenes import largest, with_resins

from gondola_core.answers.book import Book
from gondola_core.answers.grades import DRAFT, FINE, LADDER, least_work, rungs
from gondola_core.answers.heat import HEAT, MARCH
from gondola_core.answers.kept import Keeper
from gondola_core.cure.kinetics import FASTEST_PER_S, rate_constant
from gondola_core.cure.march import run
from gondola_core.cure.march.run import STEP_WORK
from gondola_core.cure.moments import widest_cell
from gondola_core.samples import ferry_landing


def work_of(marched):
    """Cells times stages, as the budget counts them, if all cells were there from the start."""
    levels, rows, cells = marched.resin.shape
    return levels * (rows + 2) * (cells + 2) * (marched.stages + STEP_WORK * (marched.steps + marched.refused))


class Rungs(unittest.TestCase):
    def test_each_is_rougher_than_the_one_before_and_only_the_last_is_not_bounded(self):
        found = rungs(DRAFT)
        self.assertEqual([one.tolerance.most_work for one in found], [*LADDER["draft"], None])
        for finer, rougher in pairwise(found):
            self.assertEqual(rougher.cell_mm, 2 * finer.cell_mm)
            self.assertEqual(rougher.tolerance.temperature_k, 2 * finer.tolerance.temperature_k)
        self.assertEqual(rungs(FINE), [FINE])

    def test_what_cannot_be_ended_is_not_begun(self):
        self.assertGreater(least_work(15_700, 40), LADDER["draft"][0])
        self.assertLess(least_work(8_000, 4), LADDER["draft"][0])


class Drafts(unittest.TestCase):
    WORST = {
        "the largest": lambda: largest(),
        "a year of pours": lambda: largest(240.0, order_n=0.5),
        "a month between any two": lambda: largest(720.0),
        "whole in no time": lambda: with_resins(order_n=0.5),
        "quick": lambda: with_resins(k1_per_s=0.1, k2_per_s=0.1, order_n=0.5),
        "all of it": lambda: largest(
            240.0, order_n=0.5, diffusion_sharpness=200.0, heat_of_cure_j_g=600.0, activation_1_kj_mol=120.0,
            activation_2_kj_mol=120.0,
        ),
    }

    def test_the_worst_take_no_more_work_than_a_draft_may_and_stay_within_physics(self):
        for name, scene in self.WORST.items():
            with self.subTest(name):
                book = Book(scene(), DRAFT, Keeper(most=20))
                one = book.ask(MARCH)
                marched = one.marched
                self.assertLess(work_of(marched), 2 * LADDER["draft"][0])
                self.assertLessEqual(marched.degree_of_cure.max(), 1.0)
                self.assertLess(marched.temperature_c.max(), 600.0)
                self.assertLess(one.cures[0].peak_c, 600.0)

    def test_a_rough_draft_says_by_how_much_and_doubts_itself_more(self):
        rough = Book(with_resins(order_n=0.5), DRAFT, Keeper(most=20)).ask(HEAT)
        usual = Book(ferry_landing(), DRAFT, Keeper(most=20)).ask(HEAT)
        self.assertGreaterEqual(rough.rough_mm, 19.0)
        self.assertIsNone(usual.rough_mm)
        self.assertTrue(all(doubt is not None and doubt.peak_k > 0.0 for doubt in rough.doubts))

    def test_no_rung_is_begun_that_must_run_out(self):
        """All of their work would be lost: none of it is done where it is plain from the start."""
        taken, real = [], run.advance
        scene = largest(720.0)

        def counted(*given):
            taken.append(real(*given))
            return taken[-1]

        with mock.patch.object(run, "advance", counted):
            own = Book(scene, DRAFT, Keeper(most=20)).ask(MARCH).marched
        self.assertEqual(sum(one.stages for one in taken), own.stages)

    def test_on_the_roughest_cells_its_doubt_is_a_share_of_rise_and_times(self):
        book = Book(largest(720.0), DRAFT, Keeper(most=20))
        told = book.ask(HEAT)
        self.assertEqual(book.ask(MARCH).grade.roughened, 3)
        for cure, doubt in zip(told.cures, told.doubts, strict=True):
            self.assertGreater(doubt.peak_k, 0.25 * (cure.peak_c - told.mean_room_c))
            self.assertAlmostEqual(doubt.gel_h, (0.12 + 1.0 * widest_cell(told.cells)) * cure.gel_h)


class Rates(unittest.TestCase):
    def test_no_constant_grows_beyond_the_fastest(self):
        for temperature_c, activation in ((25.0, 58.0), (120.0, 58.0), (300.0, 58.0), (450.0, 150.0)):
            with self.subTest(temperature_c=temperature_c, activation=activation):
                self.assertLessEqual(float(rate_constant(9.5e-5, temperature_c, activation)), FASTEST_PER_S)
        self.assertLess(float(rate_constant(9.5e-5, 240.0, 58.0)), 2.0)


if __name__ == "__main__":
    unittest.main()
