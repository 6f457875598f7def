import unittest

import numpy as np
from test_fill import TANK, ball, figure

from gondola_core.materials import load_library
from gondola_core.scene import Bed, Box, Capsule, Ellipsoid
from gondola_core.shape import bed_area_cm2, bed_heights, figure_mesh, outlines
from gondola_core.shape.bodies.mesh import TriMesh
from gondola_core.shape.bodies.outline import silhouette

PLASTER = load_library().solids["plaster"]


def area(points):
    x, y = np.array(points).T
    return 0.5 * abs(float(x @ np.roll(y, -1) - y @ np.roll(x, -1)))


class Outlines(unittest.TestCase):
    def test_projected_areas(self):
        rows = [
            ("ball", ball(10), "front", np.pi * 100),
            ("box", Box(kind="box", centre_mm=[0, 0, 0], size_mm=[20, 10, 6]), "front", 120),
            ("box side", Box(kind="box", centre_mm=[0, 0, 0], size_mm=[20, 10, 6]), "side", 60),
            ("bar", Capsule(kind="capsule", from_mm=[-10, 0, 0], to_mm=[10, 0, 0], radius_mm=4),
             "above", 160 + np.pi * 16),
            ("fish", Ellipsoid(kind="ellipsoid", centre_mm=[0, 0, 0], radii_mm=[12, 3, 5]),
             "front", np.pi * 60),
        ]
        for name, solid, view, exact in rows:
            with self.subTest(name):
                drawn = outlines(figure(solid), view, {})[0]
                self.assertAlmostEqual(area(drawn.points_mm) / exact, 1, delta=0.02)

    def test_nearest_part_and_two_separate_lines(self):
        pair = figure(ball(5, (20, 20, 0)), ball(5, (0, -20, 0)))
        drawn = outlines(pair, "front", {})
        self.assertEqual([round(outline.nearest_mm) for outline in drawn], [15, 15])
        self.assertEqual(round(outlines(pair, "above", {})[0].nearest_mm), -50)

    def test_a_mesh_of_many_triangles_has_the_same_shadow(self):
        import trimesh

        round_ball = trimesh.creation.icosphere(5, 10.0)
        mesh = TriMesh(np.array(round_ball.vertices), np.array(round_ball.faces, dtype=np.int32))
        lines = silhouette(mesh, 0, 2)
        self.assertEqual(len(lines), 1)
        self.assertAlmostEqual(area(lines[0]) / (np.pi * 100), 1, delta=0.01)

    def test_extent_follows_turn_and_pitch(self):
        body = figure(
            Ellipsoid(kind="ellipsoid", centre_mm=[0, 0, 0], radii_mm=[20, 2, 2], pitch_deg=90),
            turn=45,
        )
        corners = figure_mesh(body, {}).vertices
        np.testing.assert_allclose(np.ptp(corners, axis=0), [4, 4, 40], atol=0.2)

    def test_a_figure_is_rolled_then_tilted_then_turned(self):
        body = figure(Box(kind="box", centre_mm=[10, 0, 0], size_mm=[20, 4, 2])).model_copy(
            update={"tilt_deg": 90.0, "turn_deg": 90.0, "roll_deg": 90.0}
        )
        corners = figure_mesh(body, {}).vertices
        np.testing.assert_allclose(np.ptp(corners, axis=0), [2, 4, 20], atol=1e-6)
        self.assertAlmostEqual(corners[:, 2].min(), 45.0)


class BedSurface(unittest.TestCase):
    def test_bilinear_between_points_and_clipped_outside(self):
        bed = Bed(heights_mm=[[0, 10], [20, 30]], material=PLASTER)
        found = bed_heights(bed, TANK, np.array([0, 50, 100, 140]), np.array([-5, 40, 80]))
        np.testing.assert_allclose(
            found, [[0, 5, 10, 10], [10, 15, 20, 20], [20, 25, 30, 30]]
        )

    def test_area_of_a_slope(self):
        bed = Bed(heights_mm=[[75, 0], [75, 0]], material=PLASTER)
        self.assertAlmostEqual(bed_area_cm2(bed, TANK), 125 * 80 / 100, delta=0.1)
