"""Layer lines: what draws them, from which side they are seen, and what makes them show less."""

import unittest
from dataclasses import replace

from changed import changed

from gondola_core.evaluate import evaluate
from gondola_core.samples import ferry_landing, quarry_pool
from gondola_core.scene import scene_from
from gondola_core.tint.lines import (
    DE00_OF_STEP,
    MIRRORED,
    Joint,
    climb_de00,
    dust_de00,
    dust_from_above_de00,
    index_de00,
    mirrored_fraction,
    shrink_de00,
    together,
)

PLAIN = Joint(
    index_step=0.0, open_h=20.0, covered=True, bond_fraction=1.0, shrunk=0.0, climb_mm=2.2, viewing_mm=400.0
)


class Parts(unittest.TestCase):
    def test_all_is_mirrored_below_the_critical_look(self):
        for step, low, high in ((0.0, 0.0, 0.0), (0.001, 0.2, 0.4), (0.03, 1.0, 1.0)):
            with self.subTest(step):
                self.assertTrue(low <= round(mirrored_fraction(step), 6) <= high)

    def test_each_grows_with_what_draws_it(self):
        rows = [
            ("index", index_de00, {"index_step": 0.001}, {"index_step": 0.01}),
            ("dust by hours", lambda one: dust_de00(one, 100), {"open_h": 5.0}, {"open_h": 50.0}),
            ("dust by cover", lambda one: dust_de00(one, 100), {"covered": True}, {"covered": False}),
            ("bond", climb_de00, {"bond_fraction": 0.9}, {"bond_fraction": 0.2}),
            ("shrink", lambda one: shrink_de00(one, 100, True), {"shrunk": 0.0005}, {"shrunk": 0.002}),
        ]
        for name, of, less, more in rows:
            with self.subTest(name):
                self.assertLess(of(replace(PLAIN, **less)), of(replace(PLAIN, **more)))

    def test_dust_is_seen_along_a_line_and_hardly_from_above(self):
        open_day = replace(PLAIN, covered=False, open_h=24.0)
        self.assertGreater(dust_de00(open_day, 100), 100 * dust_from_above_de00(open_day))

    def test_what_is_sanded_shows_no_step(self):
        self.assertEqual(shrink_de00(replace(PLAIN, shrunk=0.005), 100, False), 0.0)

    def test_nothing_shows_more_than_all_that_it_could_mirror(self):
        worst = replace(PLAIN, index_step=0.2, covered=False, open_h=1e6, bond_fraction=0.0, shrunk=1.0)
        for of in (index_de00(worst), dust_de00(worst, 1000), climb_de00(worst), shrink_de00(worst, 1000, True)):
            self.assertLessEqual(of, DE00_OF_STEP * MIRRORED)

    def test_parts_add_by_their_squares(self):
        self.assertEqual(together([3.0, 4.0]), 5.0)


class OfAScene(unittest.TestCase):
    def test_every_line_is_told_from_every_side_that_is_seen(self):
        scene = quarry_pool()
        lines = evaluate(scene).lines
        self.assertEqual([line.pour_number for line in lines], [1, 2, 3])
        for line in lines:
            self.assertEqual([side.side for side in line.sides], scene.brief.viewing_sides)
            for side in line.sides:
                self.assertAlmostEqual(side.de00, together([part.de00 for part in side.parts]), delta=0.02)
                self.assertEqual(side.parts, sorted(side.parts, key=lambda part: -part.de00))

    def test_a_longer_way_through_shows_a_step_in_colour_more(self):
        """From the left one looks through 180 mm, from the front through 110."""
        sides = {side.side: side for side in evaluate(quarry_pool()).lines[0].sides}
        colour = {
            name: next(part.de00 for part in side.parts if part.name == "colour")
            for name, side in sides.items() if name != "above"
        }
        self.assertGreater(colour["left"], colour["front"])

    def test_late_pours_leave_steps_and_early_ones_do_not(self):
        """The Ferry Landing waits days between pours; most of its lines is what drew back."""
        late = evaluate(ferry_landing()).lines
        self.assertEqual({line.sides[0].parts[0].name for line in late}, {"shrink"})
        document = ferry_landing().model_dump(mode="json")
        document["brief"]["sides"] = "sanded"
        for before, after in zip(late, evaluate(scene_from(document)).lines, strict=True):
            self.assertLess(after.sides[0].de00, before.sides[0].de00)

    def test_two_resins_meet_in_a_line_that_mirrors(self):
        other = changed(resins__1__refractive_index=1.50, pours__3__resin_id="casting")
        index = [
            next(part.de00 for part in line.sides[0].parts if part.name == "index")
            for line in evaluate(other).lines
        ]
        self.assertGreater(index[2], 5 * index[1])

    def test_figures_hide_some_of_it(self):
        hidden = [line.sides[0].hidden_fraction for line in evaluate(quarry_pool()).lines]
        self.assertTrue(any(0 < one < 1 for one in hidden))
