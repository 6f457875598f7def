"""What the section draws, and what is left of the cure in the room."""

import unittest

import numpy as np

from gondola_core.answers.kept import Keeper
from gondola_core.cure.kinetics import degree_at_glass_temperature, isothermal_cure
from gondola_core.cure.tail import LAST_DAY, NEARLY, full_cure, warm_end
from gondola_core.evaluate import DRAFT, evaluate
from gondola_core.materials import load_library
from gondola_core.samples import eelgrass, ferry_landing, quarry_pool
from gondola_core.units import DAY


class Sections(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.scenes = [make() for make in (quarry_pool, eelgrass, ferry_landing)]
        cls.outcomes = [evaluate(scene, DRAFT, Keeper()) for scene in cls.scenes]

    def test_farther_figures_are_drawn_first(self):
        for scene, outcome in zip(self.scenes, self.outcomes, strict=True):
            for view in (outcome.section.front, outcome.section.side, outcome.section.above):
                with self.subTest(scene.name):
                    nearest = [figure.nearest_mm for figure in view.figures]
                    self.assertEqual(nearest, sorted(nearest, reverse=True))
                    self.assertEqual(len(view.figures), len(scene.figures))

    def test_outlines_keep_to_their_figures_place(self):
        for scene, outcome in zip(self.scenes, self.outcomes, strict=True):
            for figure in scene.figures:
                drawn = next(
                    one for one in outcome.section.front.figures if one.figure_id == figure.id
                )
                points = np.concatenate([np.array(line.points_mm) for line in drawn.outlines])
                with self.subTest(scene.name, figure=figure.id):
                    self.assertLess(points[:, 0].min(), figure.place.x_mm + 1)
                    self.assertGreater(points[:, 0].max(), figure.place.x_mm - 1)

    def test_soundings_are_the_depth_over_the_bed(self):
        for scene, outcome in zip(self.scenes, self.outcomes, strict=True):
            heights = np.array(scene.bed.heights_mm)
            depths = [one.depth_mm for one in outcome.section.soundings]
            with self.subTest(scene.name):
                fill = scene.tank.fill_height_mm
                self.assertGreaterEqual(min(depths), fill - heights.max() - 0.06)
                self.assertLessEqual(max(depths), fill - heights.min() + 0.06)

    def test_cut_lines_run_from_wall_to_wall(self):
        for scene, outcome in zip(self.scenes, self.outcomes, strict=True):
            rows = [
                (outcome.section.front, scene.tank.inner_width_mm),
                (outcome.section.side, scene.tank.inner_behind_mm),
            ]
            for view, across in rows:
                with self.subTest(scene.name, across=across):
                    cut = np.array(view.bed_cut_mm)
                    self.assertEqual(cut[0, 0], 0)
                    self.assertAlmostEqual(cut[-1, 0], across, delta=0.01)
                    self.assertTrue((np.diff(cut[:, 0]) > 0).all())


class LeftToCure(unittest.TestCase):
    def setUp(self):
        self.resin = load_library().resins["deep"]

    def test_the_end_is_that_of_the_isothermal_law(self):
        for room in (18.0, 23.0, 30.0):
            with self.subTest(room):
                days, last = full_cure(0.6, 0.0, 0.0, room, self.resin)
                self.assertGreater(last, 0.6)
                self.assertLess(days, LAST_DAY)
                half_hours = int(LAST_DAY * 48)
                law = isothermal_cure(np.full(half_hours + 1, room), DAY / 48, self.resin)
                # by thirty days it no longer matters where the cure was after a day
                self.assertAlmostEqual(last, float(law[-1]), delta=0.012)

    def test_warm_rooms_finish_sooner_and_further(self):
        cool, warm = (full_cure(0.5, 0.0, 0.0, room, self.resin) for room in (17.0, 28.0))
        self.assertLess(warm[0], cool[0])
        self.assertGreater(warm[1], cool[1])

    def test_the_least_warm_box_that_gets_a_stalled_pour_hard(self):
        for room in (10.0, 15.0, 17.0):
            degree = float(degree_at_glass_temperature(30.0, self.resin))
            end = warm_end(self.resin, room, degree)
            with self.subTest(room):
                steps = round(end.warm_h * 10)
                start = self.resin.tack_free_degree
                there = isothermal_cure(np.full(steps + 1, end.warm_c), 360.0, self.resin, start)[-1]
                self.assertAlmostEqual(float(there), degree, delta=0.002)
                self.assertGreater(end.warm_c, room)
                cooler = isothermal_cure(np.full(721, end.warm_c - 1), 360.0, self.resin, start)[-1]
                self.assertTrue(float(cooler) < degree or end.warm_c - 1 <= room)
        self.assertIsNone(warm_end(self.resin, 15.0, 0.999))

    def test_a_pour_that_is_there_already_counts_from_its_start(self):
        days, last = full_cure(0.97, 5 * DAY, 2 * DAY, 23.0, self.resin)
        self.assertGreaterEqual(0.97, NEARLY * last * 0.98)
        self.assertAlmostEqual(days, 3.0, delta=0.05)
