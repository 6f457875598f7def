"""Places on a photograph: the map of four corners against a camera whose place is known."""

import unittest

import numpy as np

from gondola_core.errors import GondolaError
from gondola_core.shape.photographed import photographed_depths, places_mm

SIZE = (180.0, 110.0)
PLAN = np.array([[0, 0], [180, 0], [180, 110], [0, 110]], dtype=float)


def seen(points, height=0.0, camera=(60.0, -240.0, 380.0), focal=900.0):
    """Pixels of places on the plan, by a pinhole that looks at the middle of the tank."""
    eye = np.array(camera)
    towards = np.array([90.0, 55.0, height]) - eye
    towards /= np.linalg.norm(towards)
    right = np.cross(towards, [0, 0, 1.0])
    right /= np.linalg.norm(right)
    down = np.cross(towards, right)
    rays = np.column_stack([points, np.full(len(points), height)]) - eye
    return focal * np.column_stack([rays @ right, rays @ down]) / (rays @ towards)[:, None] + [640, 400]


class Photograph(unittest.TestCase):
    def test_a_pinhole_is_undone(self):
        rng = np.random.default_rng(4)
        for camera in ((60.0, -240.0, 380.0), (250.0, -100.0, 300.0), (90.0, 55.0, 500.0)):
            with self.subTest(camera=camera):
                points = rng.uniform([0, 0], SIZE, (20, 2))
                corners = seen(PLAN, camera=camera) if camera[0] != 90 else PLAN[::1] * 3.0
                pixels = seen(points, camera=camera) if camera[0] != 90 else points * 3.0
                np.testing.assert_allclose(places_mm(SIZE, corners, pixels), points, atol=1e-6)

    def test_depths_come_where_they_were_clicked(self):
        pixels = seen(np.array([[20.0, 30.0], [150.0, 90.0]]))
        depths = [(float(u), float(v), depth) for (u, v), depth in zip(pixels, (60.0, 95.0), strict=True)]
        found = photographed_depths(SIZE, seen(PLAN), depths)
        self.assertEqual([(one.x_mm, one.behind_mm, one.depth_mm) for one in found], [(20, 30, 60), (150, 90, 95)])

    def test_corners_that_make_no_dam(self):
        rows = [
            [[0, 0], [100, 0], [200, 0], [0, 100]], [[0, 0], [100, 100], [100, 0], [0, 100]],
            [[0, 0], [0, 0], [100, 100], [0, 100]],
        ]
        for corners in rows:
            with self.subTest(corners), self.assertRaisesRegex(GondolaError, "on a line"):
                places_mm(SIZE, corners, [[5, 5]])

    def test_outside(self):
        with self.assertRaisesRegex(GondolaError, "outside the dam"):
            photographed_depths(SIZE, PLAN * 2, [(400.0, 10.0, 20.0)])
