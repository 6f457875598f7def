import dataclasses
import unittest

import numpy as np

from gondola_core.cure.cells import whole_box
from gondola_core.cure.cooling import PourCooling, pour_cooling
from gondola_core.cure.cup import stand_cup
from gondola_core.cure.light import cure_depth, light_answer
from gondola_core.cure.losses import Surroundings
from gondola_core.cure.march import TimedPour, Tolerance, march_pours, steady_room
from gondola_core.cure.stress import pour_stress, shell_stress, tempering_stress
from gondola_core.errors import GondolaError
from gondola_core.learning.sheet import DataSheet, from_sheet
from gondola_core.materials import load_library

LIBRARY = load_library()
RESINS = LIBRARY.resins
BOX = Surroundings(
    wall=LIBRARY.solids["acrylic"], wall_thickness=0.003, base=LIBRARY.solids["wood"],
    base_thickness=0.018,
)


class Cups(unittest.TestCase):
    def test_pot_life_of_100_g_by_room(self):
        rows = [  # class, room, minutes from a round cup in two dimensions
            ("deep", 20, 467), ("deep", 25, 305), ("deep", 30, 199), ("casting", 20, 101),
            ("casting", 25, 46.7), ("casting", 30, 26), ("coating", 20, 46), ("coating", 25, 27.0),
            ("coating", 30, 16),
        ]
        for resin, room, minutes in rows:
            with self.subTest(resin, room=room):
                found = stand_cup(RESINS[resin], 100, room, room).working_min
                self.assertAlmostEqual(found / minutes, 1, delta=0.05)

    def test_larger_cups_come_to_50_degrees_sooner(self):
        rows = [  # class, room, grams, minutes to 50 degrees
            ("deep", 23, 1000, 223), ("deep", 28, 1000, 114), ("deep", 23, 2000, 181),
            ("casting", 23, 500, 46), ("casting", 23, 1000, 44), ("coating", 23, 1000, 29),
            ("coating", 18, 1000, 45),
        ]
        for resin, room, mass, minutes in rows:
            with self.subTest(resin, room=room, mass=mass):
                cup = stand_cup(RESINS[resin], mass, room, room)
                self.assertAlmostEqual(cup.warm_50_min / minutes, 1, delta=0.06)
                self.assertIn("Pour it within", cup.advice)

    def test_peak_of_a_kilogram_of_deep_resin(self):
        for room, peak in ((18, 39), (23, 88), (28, 127)):
            with self.subTest(room):
                self.assertAlmostEqual(stand_cup(RESINS["deep"], 1000, room, room).peak_c, peak, delta=4)

    def test_a_tray_stays_cool(self):
        cup = stand_cup(RESINS["casting"], 500, 23, 23)
        tray = stand_cup(RESINS["casting"], 500, 23, 23, "tray")
        self.assertLess(tray.peak_c, cup.peak_c - 50)

    def test_bad_cups(self):
        for changes, words in (
            ({"mass_g": 0}, "from 5 to 20000 g"), ({"vessel": "hat"}, "this says 'hat'"),
            ({"room_c": -4}, "from 5 to 60 °C; it says -4"),
        ):
            given = {"mass_g": 100, "mix_c": 23, "room_c": 23} | changes
            with self.subTest(words), self.assertRaisesRegex(GondolaError, words):
                stand_cup(RESINS["deep"], **given)
        with self.assertRaisesRegex(GondolaError, "keeps in the dark"):
            stand_cup(RESINS["light-cured"], 100, 23, 23)


class Sheets(unittest.TestCase):
    def sheet(self, **changes):
        return DataSheet(**{
            "id": "mine", "name": "mine", "pot_life_min": 305.0, "most_pour_mm": 50.0,
            "viscosity_mpa_s": 300.0,
        } | changes)

    def test_the_class_comes_back_from_its_own_statements(self):
        for key, life, depth in (("deep", 305, 50), ("casting", 45, 15), ("coating", 27, 5)):
            with self.subTest(key):
                fit = from_sheet(
                    self.sheet(pot_life_min=float(life), most_pour_mm=float(depth)), RESINS[key], BOX
                )
                self.assertAlmostEqual(fit.pot_life_min / life, 1, delta=0.02)
                self.assertAlmostEqual(fit.rate_factor, 1, delta=0.25)
                self.assertAlmostEqual(fit.heat_factor, 1, delta=0.15)

    def test_spread_is_what_the_sheet_leaves_open(self):
        deep = from_sheet(self.sheet(), RESINS["deep"], BOX)
        self.assertAlmostEqual(deep.rate_spread_fraction, 0.10, delta=0.03)
        self.assertAlmostEqual(deep.heat_spread_fraction, 0.07, delta=0.03)
        thin = from_sheet(self.sheet(pot_life_min=27.0, most_pour_mm=5.0), RESINS["coating"], BOX)
        self.assertEqual(thin.heat_factor, 1.0)
        self.assertIn("does not tell its heat", thin.words)

    def test_a_longer_pot_life_is_a_slower_resin(self):
        slow = from_sheet(self.sheet(pot_life_min=420.0), RESINS["deep"], BOX)
        quick = from_sheet(self.sheet(pot_life_min=200.0), RESINS["deep"], BOX)
        self.assertLess(slow.rate_factor, quick.rate_factor)

    def test_what_no_resin_of_the_class_can_do(self):
        with self.assertRaisesRegex(GondolaError, "choose another class"):
            from_sheet(self.sheet(pot_life_min=10.0, most_pour_mm=60.0), RESINS["casting"], BOX)


class Light(unittest.TestCase):
    def test_working_curve(self):
        self.assertEqual(cure_depth(5.0, 2.0, 10.0), 0.0)
        light = RESINS["light-cured"].light
        thin, thick = light_answer(light, 2.0, 0.0), light_answer(light, 14.0, 0.3)
        self.assertTrue(thin.cures_through)
        self.assertFalse(thick.cures_through)
        self.assertLess(thin.lamp_min, 1)
        self.assertGreater(thick.lamp_min, 10 * thin.lamp_min)


class Stress(unittest.TestCase):
    """Cooling through the glass temperature, gradient and hard bed are in it; no limit of 90 degrees is."""

    AROUND = Surroundings(
        wall=load_library().solids["acrylic"], wall_thickness=0.003,
        base=load_library().solids["wood"], base_thickness=0.018,
    )

    def marched(self, key, depth_mm, room_c, size=(0.15, 0.10)):
        end = 14 * 86400.0
        return march_pours(
            whole_box(size, [depth_mm / 1000], 0.010, 4), self.AROUND, [RESINS[key]],
            [TimedPour(start=0.0, mix_c=room_c, resin=0)], steady_room(room_c, end), end,
            Tolerance(temperature_k=0.2, degree=2e-3),
        )

    def marched_stress(self, key, depth_mm, room_c, on_hard=False):
        resin, marched = RESINS[key], self.marched(key, depth_mm, room_c)
        peak = float(np.nanmax(marched.peak_c))
        cooling = pour_cooling(marched, 0, resin)
        return peak, pour_stress(resin, peak, cooling, room_c, 0.95, 150.0, depth_mm, on_hard)

    def test_cool_pours_keep_whole_and_hot_cores_pull_at_their_skins(self):
        rows = [
            ("deep", 30, 23.0, 0.0, 0.05), ("deep", 50, 23.0, 0.0, 0.1),
            ("deep", 80, 28.0, 0.3, 0.9), ("casting", 50, 23.0, 1.0, 1.5),
        ]
        peaks, indices = [], []
        for key, depth, room, least, most in rows:
            with self.subTest(key, depth=depth):
                peak, stress = self.marched_stress(key, depth, room)
                self.assertGreaterEqual(stress.stress_index, least)
                self.assertLessEqual(stress.stress_index, most)
                self.assertTrue(stress.cause)
                peaks.append(peak)
                indices.append(stress.stress_index)
        self.assertEqual(sorted(peaks), peaks)
        self.assertEqual(sorted(indices), indices)

    def test_where_the_rows_of_the_history_lie_moves_the_pull_little(self):
        for key, depth, room in (("casting", 50, 23.0), ("deep", 80, 28.0)):
            marched = self.marched(key, depth, room)
            pulls = []
            for rows in (slice(0, None, 2), slice(1, None, 2)):
                thinned = dataclasses.replace(
                    marched, history_at=marched.history_at[rows], history_plane_c=marched.history_plane_c[rows],
                    history_plane_degree=marched.history_plane_degree[rows],
                )
                pulls.append(pour_cooling(thinned, 0, RESINS[key]).shed_k)
            with self.subTest(key, pulls=pulls):
                self.assertAlmostEqual(pulls[0], pulls[1], delta=0.15 * max(pulls))

    def test_a_hard_bed_holds_what_soft_walls_let_follow(self):
        _, free = self.marched_stress("deep", 30, 23.0)
        _, held = self.marched_stress("deep", 30, 23.0, on_hard=True)
        self.assertGreaterEqual(held.stress_mpa, free.stress_mpa)

    def test_shrinkage_and_pulls_in_closed_form(self):
        # a quarter of a percent linear by cooling alone, from 50 to 20 degrees with Tg at 45
        resin = RESINS["deep"].model_copy(update={"shrink_fraction": 0.0, "tg_full_c": 45.0})
        cooling = PourCooling(frozen_at_c=45.0, frozen_gap_k=0.0, shed_k=0.0)
        made = pour_stress(resin, 50, cooling, 20, 0.93, 200, 20, False)
        self.assertAlmostEqual(made.after_gel_fraction, 65e-6 * 25 + 2.3 * 65e-6 * 5, delta=2e-5)
        self.assertAlmostEqual(made.gap_mm, 0.24, delta=0.01)
        self.assertAlmostEqual(tempering_stress(30.0, 65e-6, 2.5e9) / 1e6, 65e-6 * 30 * 2500 / 0.65 / 3)
        self.assertAlmostEqual(shell_stress(60.0, 65e-6) / 1e6, 0.45 * 2500 * 3 * 2.3 * 65e-6 * 60)
