"""Vertical chords of simple solids against closed forms and against a point test along the line."""

import unittest

import numpy as np

from gondola_core.samples import quarry_pool
from gondola_core.scene import Box, Capsule, Ellipsoid, Place
from gondola_core.shape.bodies.chords import box_chord, capsule_chord, ellipsoid_chord, solid_volume
from gondola_core.shape.bodies.frame import figure_matrix, pitch_matrix, roll_matrix, to_tank, turn_matrix

RNG = np.random.default_rng(11)


def along(inside, x, y, low=-60.0, high=60.0, steps=24_001):
    """First and last height at which a point of the line is inside."""
    z = np.linspace(low, high, steps)
    hit = inside(np.stack([np.full_like(z, x), np.full_like(z, y), z], axis=1))
    return (np.nan, np.nan) if not hit.any() else (z[hit][0], z[hit][-1])


class Chords(unittest.TestCase):
    def agree(self, law, inside, tries=40, reach=14.0):
        met = 0
        for _ in range(tries):
            x, y = RNG.uniform(-reach, reach, 2)
            low, high = law(np.array(x), np.array(y))
            walked = along(inside, x, y)
            if np.isnan(walked[0]):
                # a chord shorter than the walk's step may be missed by it
                self.assertTrue(np.isnan(low) or float(high - low) < 0.02)
                continue
            met += 1
            self.assertAlmostEqual(float(low), walked[0], delta=0.011)
            self.assertAlmostEqual(float(high), walked[1], delta=0.011)
        self.assertGreater(met, 2)

    def test_ellipsoids_at_any_turn(self):
        for angles in ((0, 0, 0), (30, 0, 0), (25, 40, 0), (-70, 15, 55)):
            turn = turn_matrix(angles[0]) @ pitch_matrix(angles[1]) @ roll_matrix(angles[2])
            radii, centre = np.array([18.0, 9.0, 12.0]), np.array([2.0, -3.0, 4.0])
            shape = turn @ np.diag(radii**2) @ turn.T

            def inside(points, turn=turn, radii=radii, centre=centre):
                return (((points - centre) @ turn / radii) ** 2).sum(axis=1) <= 1

            with self.subTest(angles):
                self.agree(lambda x, y, c=centre, s=shape: ellipsoid_chord(x, y, c, s), inside)

    def test_capsules_level_upright_and_slanted(self):
        for start, end in (
            ([-10, 0, 0], [12, 3, 0]), ([1, 2, -15], [1, 2, 20]), ([-8, -6, -4], [9, 4, 16]),
            ([3, 3, 3], [3, 3, 3]),
        ):
            a, b = np.array(start, dtype=float), np.array(end, dtype=float)

            def inside(points, a=a, b=b):
                axis = b - a
                share = np.clip((points - a) @ axis / max(float(axis @ axis), 1e-12), 0, 1)
                return np.linalg.norm(points - a - share[:, None] * axis, axis=1) <= 6.0

            with self.subTest(start=start, end=end):
                self.agree(lambda x, y, a=a, b=b: capsule_chord(x, y, a, b, 6.0), inside)

    def test_boxes_turned_about_the_vertical(self):
        centre, size = np.array([1.0, 2.0, 3.0]), np.array([24.0, 10.0, 14.0])
        for turn_deg in (0.0, 20.0, 90.0, -135.0):
            back = turn_matrix(-turn_deg)

            def inside(points, back=back):
                return (np.abs((points - centre) @ back.T) <= size / 2 + 1e-9).all(axis=1)

            with self.subTest(turn_deg):
                self.agree(lambda x, y, t=turn_deg: box_chord(x, y, centre, size, t), inside)

    def test_chords_over_a_grid_sum_to_the_volume(self):
        step = 0.1
        x, y = np.meshgrid(np.arange(-30, 30, step), np.arange(-30, 30, step))
        ball = Ellipsoid(kind="ellipsoid", centre_mm=[0, 0, 0], radii_mm=[20, 12, 8])
        bar = Capsule(kind="capsule", from_mm=[-10, 0, 0], to_mm=[10, 5, 6], radius_mm=5)
        rows = [
            (ball, ellipsoid_chord(x, y, np.zeros(3), np.diag([400.0, 144.0, 64.0]))),
            (bar, capsule_chord(x, y, np.array([-10.0, 0, 0]), np.array([10.0, 5, 6]), 5.0)),
        ]
        for solid, (low, high) in rows:
            with self.subTest(solid.kind):
                found = np.nansum(high - low) * step * step
                self.assertAlmostEqual(found / solid_volume(solid), 1, delta=5e-4)
        self.assertEqual(solid_volume(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[2, 3, 4])), 24)


class Frames(unittest.TestCase):
    def test_each_turn_moves_its_axis_the_way_it_says(self):
        rows = [
            (turn_matrix(90), [1, 0, 0], [0, 1, 0]),      # right end goes to the back
            (pitch_matrix(90), [1, 0, 0], [0, 0, 1]),     # nose up
            (roll_matrix(90), [0, 1, 0], [0, 0, 1]),      # back side up
        ]
        for matrix, before, after in rows:
            with self.subTest(after):
                np.testing.assert_allclose(matrix @ before, after, atol=1e-12)
                np.testing.assert_allclose(matrix @ matrix.T, np.eye(3), atol=1e-12)

    def test_points_are_turned_then_put_in_place(self):
        figure = quarry_pool().figures[0].model_copy(
            update={"turn_deg": 90.0, "tilt_deg": 0.0, "roll_deg": 0.0,
                    "place": Place(x_mm=50, behind_mm=40, height_mm=10)}
        )
        np.testing.assert_allclose(to_tank(np.array([[5.0, 0, 2]]), figure), [[50, 45, 12]], atol=1e-9)
        tilted = figure.model_copy(update={"turn_deg": 0.0, "tilt_deg": 30.0, "roll_deg": 20.0})
        np.testing.assert_allclose(
            figure_matrix(tilted), pitch_matrix(30) @ roll_matrix(20), atol=1e-12
        )
