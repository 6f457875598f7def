"""Tank outlines: their area, what lies inside, and how leaning walls widen them."""

import unittest

import numpy as np

from gondola_core.polygon import polygon_area, polygon_perimeter, pushed_out
from gondola_core.samples import quarry_pool
from gondola_core.scene import BoxShape, Chamfered, FreeShape, Regular, Round, Rounded
from gondola_core.shape import plan_box, tank_plan, wall_heights

SHAPES = {
    "box": BoxShape(kind="box"),
    "chamfered": Chamfered(kind="chamfered", corner_mm=20),
    "rounded": Rounded(kind="rounded", corner_mm=20),
    "round": Round(kind="round"),
    "hexagon": Regular(kind="regular", sides_count=6),
    "free": FreeShape(kind="free", points_mm=[[0, 0], [100, 0], [100, 80], [40, 80]]),
}
AREAS = {
    "box": 100 * 80,
    "chamfered": 100 * 80 - 4 * 0.5 * 20**2,
    "rounded": 100 * 80 - (4 - np.pi) * 20**2,
    "round": np.pi * 50 * 40,
    # a regular hexagon, stretched: 3/4 of the box around it
    "hexagon": 0.75 * 100 * 80,
    "free": 0.5 * (100 + 60) * 80,
}


def tank(shape, taper=0.0):
    made = quarry_pool().tank
    return made.model_copy(update={
        "shape": SHAPES[shape], "inner_width_mm": 100.0, "inner_behind_mm": 80.0,
        "fill_height_mm": 50.0, "wall_height_mm": 60.0, "taper_deg": taper,
    })


class Outlines(unittest.TestCase):
    def test_areas_in_closed_form(self):
        for name, area in AREAS.items():
            with self.subTest(name):
                self.assertAlmostEqual(polygon_area(tank_plan(tank(name))) / area, 1, delta=1e-9)

    def test_outlines_lie_in_their_box_and_touch_it(self):
        for name in AREAS:
            with self.subTest(name):
                plan = tank_plan(tank(name))
                slack = 0.1 if name in ("round", "rounded") else 1e-9  # polygons of the arc's own area
                np.testing.assert_allclose(plan.min(axis=0), [0, 0], atol=slack)
                np.testing.assert_allclose(plan.max(axis=0), [100, 80], atol=slack)

    def test_a_grid_inside_counts_the_same_area(self):
        x = np.arange(0.25, 100, 0.5)
        y = np.arange(0.25, 80, 0.5)
        for name, area in AREAS.items():
            with self.subTest(name):
                inside = np.isfinite(wall_heights(tank(name), x, y)).sum() * 0.25
                self.assertAlmostEqual(inside / area, 1, delta=0.004)

    def test_points_outside_are_no_tank(self):
        for name in AREAS:
            with self.subTest(name):
                away = wall_heights(tank(name), np.array([-5.0, 120.0]), np.array([-5.0, 100.0]))
                self.assertTrue(np.isinf(away).all())

    def test_free_corners_given_clockwise_are_turned_round(self):
        points = [[0, 0], [40, 80], [100, 80], [100, 0]]
        turned = tank("free").model_copy(
            update={"shape": FreeShape(kind="free", points_mm=points)}
        )
        self.assertGreater(polygon_area(tank_plan(turned)), 0)


class Lean(unittest.TestCase):
    def test_pushed_out_square_and_its_perimeter(self):
        square = np.array([[0, 0], [10, 0], [10, 10], [0, 10]], dtype=float)
        out = pushed_out(square, 2.0)
        self.assertAlmostEqual(polygon_area(out), 196)
        self.assertAlmostEqual(polygon_perimeter(out), 56)
        np.testing.assert_allclose(pushed_out(out, -2.0), square, atol=1e-12)

    def test_area_grows_with_height_as_sides_and_corners_do(self):
        # A(h) = A + P d + sum tan(turn / 2) d^2 for mitred corners
        for name in ("box", "chamfered", "hexagon"):
            with self.subTest(name):
                leaning = tank(name, taper=5.0)
                floor = tank_plan(leaning)
                d = 50 * np.tan(np.radians(5.0))
                ahead = np.roll(floor, -1, axis=0) - floor
                ahead /= np.linalg.norm(ahead, axis=1)[:, None]
                before = np.roll(ahead, 1, axis=0)
                turn = np.arctan2(
                    before[:, 0] * ahead[:, 1] - before[:, 1] * ahead[:, 0],
                    (before * ahead).sum(axis=1),
                )
                whole = polygon_area(floor) + polygon_perimeter(floor) * d
                whole += np.tan(turn / 2).sum() * d * d
                self.assertAlmostEqual(polygon_area(tank_plan(leaning, 50.0)), whole, delta=1e-6)

    def test_height_at_which_a_leaning_wall_is_met(self):
        leaning = tank("box", taper=10.0)
        heights = wall_heights(leaning, np.array([-3.0, 50.0, 103.0]), np.array([40.0]))[0]
        steep = np.tan(np.radians(10.0))
        np.testing.assert_allclose(heights, [3 / steep, 0, 3 / steep], atol=1e-9)

    def test_box_around_the_fill_line(self):
        out = 50 * np.tan(np.radians(8.0))
        np.testing.assert_allclose(
            plan_box(tank("box", taper=8.0)), [-out, 100 + out, -out, 80 + out]
        )
