"""The depth buffer: what is nearest, where, how far, and facing which way."""

import unittest

import numpy as np

from gondola_core.shape.bodies.shapes import block
from gondola_core.views.raster import corner_attributes, draw

FRONT = ((0, 2, 1), (0.0, 50.0, 0.0), (1.0, -1.0, 1.0))
ABOVE = ((0, 1, 2), (0.0, 40.0, 50.0), (1.0, -1.0, -1.0))


def seen(bodies, view=FRONT, rows=100, columns=120, scale=2.0):
    ready = [(mesh, corner_attributes(mesh, np.eye(3))) for mesh in bodies]
    return draw(ready, rows, columns, *view, scale)


class Blocks(unittest.TestCase):
    def setUp(self):
        self.near = block([10, 5, 10], [30, 15, 30])
        self.far = block([20, 20, 0], [50, 35, 40])

    def test_the_nearest_wins_whatever_the_order(self):
        for order in ((0, 1), (1, 0)):
            with self.subTest(order):
                bodies = [(self.near, self.far)[i] for i in order]
                buffer = seen(bodies)
                # x 25 and height 20 is covered by both; x 40 by the far one only
                self.assertEqual(buffer.what[60, 50], order.index(0))
                self.assertAlmostEqual(float(buffer.away[60, 50]), 5, places=4)
                self.assertEqual(buffer.what[60, 80], order.index(1))
                self.assertAlmostEqual(float(buffer.away[60, 80]), 20, places=4)

    def test_pixels_count_the_face_and_nothing_more(self):
        buffer = seen([self.near])
        self.assertEqual(int((buffer.what == 0).sum()), 40 * 40)
        self.assertTrue(np.isinf(buffer.away[buffer.what < 0]).all())
        rows, columns = np.nonzero(buffer.what == 0)
        self.assertEqual((rows.min(), rows.max(), columns.min(), columns.max()), (40, 79, 20, 59))

    def test_faces_look_where_they_do(self):
        front, top = seen([self.near]), seen([self.near], ABOVE, rows=80)
        np.testing.assert_allclose(front.carried[60, 40, :3], [0, -1, 0], atol=1e-6)
        np.testing.assert_allclose(top.carried[60, 40, :3], [0, 0, 1], atol=1e-6)
        self.assertAlmostEqual(float(top.away[60, 40]), 20, places=4)

    def test_place_on_the_body_runs_from_end_to_end(self):
        buffer = seen([self.near])
        along = buffer.carried[60, 20:60, 4]
        np.testing.assert_allclose(along, (np.arange(40) + 0.5) / 40, atol=1e-5)
        up = buffer.carried[40:80, 40, 5]
        np.testing.assert_allclose(up, 1 - (np.arange(40) + 0.5) / 40, atol=1e-5)

    def test_what_lies_outside_the_view_is_left_out(self):
        buffer = seen([block([200, 0, 0], [210, 5, 5]), block([-9, -9, -9], [-1, -1, -1])])
        self.assertEqual(int((buffer.what >= 0).sum()), 0)

    def test_smooth_bodies_have_smooth_normals_and_blocks_sharp_ones(self):
        from gondola_core.scene import Ellipsoid
        from gondola_core.shape.bodies.shapes import solid_mesh

        ball = solid_mesh(Ellipsoid(kind="ellipsoid", centre_mm=[30, 20, 25], radii_mm=[15] * 3))
        buffer = seen([ball])
        rows, columns = np.nonzero(buffer.what == 0)
        x, z = (columns + 0.5) / 2, 50 - (rows + 0.5) / 2
        y = buffer.away[rows, columns]
        outward = np.stack([x - 30, y - 20, z - 25], axis=1) / 15
        inner = np.hypot(x - 30, z - 25) < 12
        off = np.abs(buffer.carried[rows, columns, :3] - outward)[inner]
        self.assertLess(off.max(), 0.12)
