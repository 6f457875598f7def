"""Chances: seeded draws, bands that the draws fill, and what narrows or widens them."""

import unittest

import numpy as np
from changed import changed

from gondola_core.answers.book import Book
from gondola_core.answers.cups import CUPS
from gondola_core.answers.kept import Keeper
from gondola_core.errors import GondolaError
from gondola_core.evaluate import evaluate
from gondola_core.samples import eelgrass, quarry_pool
from gondola_core.studies.chances import COVERS, LATE_H, chances, draws_of, ratio_spread

KEEPER = Keeper(most=900)


def sure_of(scene):
    """The scene with nothing off but the person and the ratio."""
    resins = [
        one.model_copy(update={"rate_spread_fraction": 0.0, "heat_spread_fraction": 0.0}) for one in scene.resins
    ]
    room = scene.brief.room.model_copy(update={"spread_k": 0.0})
    return scene.model_copy(update={"resins": resins, "brief": scene.brief.model_copy(update={"room": room})})


class Draws(unittest.TestCase):
    def test_the_same_seed_draws_the_same_and_another_does_not(self):
        scene = quarry_pool()
        self.assertEqual(draws_of(scene, 64, 3, 0.02), draws_of(scene, 64, 3, 0.02))
        self.assertNotEqual(draws_of(scene, 64, 3, 0.02), draws_of(scene, 64, 4, 0.02))

    def test_they_are_spread_as_is_said(self):
        scene = quarry_pool()
        draws = draws_of(scene, 1024, 1, 0.02)
        room = np.array([one.room_k for one in draws])
        self.assertAlmostEqual(room.mean(), 0.0, delta=0.02)
        inside = (np.abs(room) <= scene.brief.room.spread_k).mean()
        self.assertAlmostEqual(inside, 0.90, delta=0.01)
        self.assertAlmostEqual(room.std(), scene.brief.room.spread_k / COVERS, delta=0.03)
        late = np.array([one.late_h for one in draws])
        self.assertEqual(late.shape, (1024, 3))
        self.assertGreaterEqual(late.min(), 0.0)
        self.assertAlmostEqual(late.mean(), LATE_H * np.sqrt(2 / np.pi), delta=0.01)

    def test_a_coarse_scale_spoils_small_cups_and_marked_cups_spoil_all(self):
        """Half a step on 5 g of part B, on 50 g; and what eyes read off a cup."""
        cups = {mass: Book(scene, keeper=KEEPER).ask(CUPS) for mass, scene in (
            (0.1, changed(brief__habits__scale_step_g=0.1)), (1.0, changed(brief__habits__scale_step_g=1.0)),
        )}
        fine, coarse = (
            ratio_spread(changed(brief__habits__scale_step_g=step), cups[step]) for step in (0.1, 1.0)
        )
        least = min(cup.mix.cup_part_b_g for cup in cups[0.1])
        self.assertAlmostEqual(coarse - fine, 0.9 / (2 * least), places=6)
        self.assertEqual(ratio_spread(changed(brief__habits__measures="volume"), cups[1.0]), 0.04)

    def test_doses_are_drawn_for_each_colourant(self):
        scene = quarry_pool()
        doses = np.array([one.doses for one in draws_of(scene, 1024, 1, 0.02)])
        self.assertEqual(doses.shape, (1024, len(scene.colourants)))
        self.assertAlmostEqual(doses.mean(), 1.0, delta=0.01)
        self.assertGreaterEqual(doses.min(), 0.0)

    def test_a_figure_near_to_lost_is_lost_in_some_draws(self):
        """The pike in its paint is seen; in the colour of the water behind it a drop too many hides it."""
        scene = quarry_pool()
        pike = next(at for at, one in enumerate(scene.figures) if one.id == "pike")
        faint = changed(**{f"figures__{pike}__paint_srgb": "#a0dcc8"})
        lost = [one for one in chances(faint, 32, keeper=KEEPER).troubles if one.code == "figure_lost"]
        seen = [one for one in chances(scene, 32, keeper=KEEPER).troubles if one.code == "figure_lost"]
        self.assertEqual(seen, [])
        self.assertEqual(len(lost), 1)
        self.assertTrue(0 < lost[0].chance_fraction < 1)

    def test_counts_that_are_not_balanced_are_refused(self):
        for count in (8, 100, 4096):
            with self.subTest(count), self.assertRaisesRegex(GondolaError, "power of two"):
                chances(quarry_pool(), count, keeper=KEEPER)


class Bands(unittest.TestCase):
    def test_with_nothing_off_they_close_about_the_draft(self):
        scene = sure_of(quarry_pool())
        drawn = chances(scene, 16, keeper=KEEPER)
        told = evaluate(scene, keeper=KEEPER)
        for one, pour in zip(drawn.pours, told.pours, strict=True):
            with self.subTest(pour=one.pour_number):
                self.assertLess(one.peak_high_c - one.peak_low_c, 5.0)
                self.assertLess(abs(one.peak_high_c - pour.heat.cure.peak_c), 2.5)
                self.assertAlmostEqual(one.opens_low_h, pour.heat.cure.tack_opens_h, delta=0.6)

    def test_they_lie_in_the_quick_bands_that_take_all_at_once(self):
        scene = quarry_pool()
        drawn = chances(scene, 64, keeper=KEEPER)
        for one, pour in zip(drawn.pours, evaluate(scene, keeper=KEEPER).pours, strict=True):
            with self.subTest(pour=one.pour_number):
                self.assertLess(one.peak_high_c, pour.heat.peak_band.high_c + 1.0)
                self.assertGreater(one.peak_low_c, pour.heat.peak_band.low_c - 1.0)
                self.assertLess(one.peak_low_c, pour.heat.cure.peak_c)
                self.assertGreater(one.peak_high_c, pour.heat.cure.peak_c)

    def test_few_draws_tell_what_many_tell(self):
        few, many = (chances(eelgrass(), count, keeper=KEEPER) for count in (128, 512))
        for one, other in zip(few.pours, many.pours, strict=True):
            with self.subTest(pour=one.pour_number):
                self.assertAlmostEqual(one.peak_low_c, other.peak_low_c, delta=1.5)
                self.assertAlmostEqual(one.peak_high_c, other.peak_high_c, delta=1.5)
                self.assertAlmostEqual(one.opens_low_h, other.opens_low_h, delta=1.0)
                self.assertAlmostEqual(one.opens_high_h, other.opens_high_h, delta=1.0)


class Troubles(unittest.TestCase):
    def chance(self, scene, code, number):
        drawn = chances(scene, 64, keeper=KEEPER)
        return sum(one.chance_fraction for one in drawn.troubles if (one.code, one.pour_number) == (code, number))

    def test_waiting_longer_makes_early_less_likely_and_late_more(self):
        rows = [changed(pours__1__wait_h=wait) for wait in (20.0, 24.0, 28.0, 36.0)]
        early = [self.chance(scene, "too_early", 2) for scene in rows]
        late = [self.chance(scene, "too_late", 2) for scene in rows]
        self.assertEqual(early, sorted(early, reverse=True))
        self.assertEqual(late, sorted(late))
        self.assertGreater(early[0], 0.3)
        self.assertGreater(late[-1], 0.3)

    def test_what_is_told_of_a_joint_adds_up(self):
        drawn = chances(eelgrass(), 64, keeper=KEEPER)
        for pour in drawn.pours[:-1]:
            missed = sum(
                one.chance_fraction for one in drawn.troubles
                if one.pour_number == pour.pour_number + 1 and one.code in ("too_early", "too_late")
            )
            self.assertAlmostEqual(pour.bonds_fraction, 1 - missed, delta=0.002)
        self.assertIsNone(drawn.pours[-1].bonds_fraction)

    def test_progress_is_told_and_may_end_it(self):
        shares = []

        def stop_half_way(share):
            shares.append(share)
            if share > 0.5:
                raise InterruptedError

        with self.assertRaises(InterruptedError):
            chances(eelgrass(), 64, keeper=KEEPER, told=stop_half_way)
        self.assertEqual(shares, sorted(shares))
