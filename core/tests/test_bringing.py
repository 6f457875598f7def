import io
import unittest

import numpy as np
import trimesh
from test_fill import TANK

from gondola_core.bedform import STARTERS, map_heights, measured_heights, starter_heights
from gondola_core.errors import GondolaError
from gondola_core.geometry.bringing import MOST_TRIANGLES, bring_mesh
from gondola_core.scene import MeasuredDepth

BALL = trimesh.creation.icosphere(4, 14.0)
BALL_ML = float(BALL.volume) / 1000


def stl(mesh):
    return mesh.export(file_type="stl")


def with_faces(faces):
    return trimesh.Trimesh(BALL.vertices, faces, process=False)


class Meshes(unittest.TestCase):
    def test_sound_and_mendable_files(self):
        faces = BALL.faces
        inverted = BALL.copy()
        inverted.invert()
        flipped = np.array(faces)
        flipped[::3] = flipped[::3, ::-1]
        rng = np.random.default_rng(1)
        pinholes = faces[rng.random(len(faces)) > 0.025]
        inner = trimesh.creation.icosphere(3, 7.0)
        inner.invert()
        shaken = BALL.triangles.reshape(-1, 3) + rng.normal(0, 0.006, (3 * len(faces), 3))
        soup = trimesh.Trimesh(shaken, np.arange(len(shaken)).reshape(-1, 3), process=False)
        crossing = trimesh.util.concatenate([
            trimesh.creation.box((20, 20, 20)),
            trimesh.creation.box((20, 20, 20), trimesh.transformations.translation_matrix([10, 0, 0])),
        ])
        hole = faces[BALL.triangles_center[:, 2] < 12.5]
        rows = [
            ("sound", BALL, BALL_ML, ""),
            ("inside out", inverted, BALL_ML, "inside out"),
            ("every third flipped", with_faces(flipped), BALL_ML, "wrong way"),
            ("pinholes", with_faces(pinholes), BALL_ML, "holes were closed"),
            ("one hole", with_faces(hole), BALL_ML - 0.09, "1 hole was closed with a flat lid"),
            ("every shell twice", trimesh.util.concatenate([BALL, BALL]), BALL_ML, ""),
            ("soup, corners 0.01 mm off", soup, BALL_ML, "Torn edges were sewn"),
            ("two boxes that overlap", crossing, 12.0, "the 4.00 ml that they share count once"),
            ("cavity", trimesh.util.concatenate([BALL, inner]),
             BALL_ML + float(inner.volume) / 1000, ""),
        ]
        for name, mesh, volume, words in rows:
            with self.subTest(name):
                brought = bring_mesh(stl(mesh), "stl")
                self.assertAlmostEqual(brought.volume_ml / volume, 1, delta=0.005)
                self.assertIn(words, " ".join(brought.words))
                self.assertEqual(bool(words), bool(brought.words))
                low = brought.mesh.vertices.min(axis=0)
                self.assertAlmostEqual(low[2], 0.0, places=6)
                self.assertAlmostEqual(low[0], -brought.size_mm[0] / 2, places=2)

    def test_formats_units_and_upright_axis(self):
        box = trimesh.creation.box((10, 20, 30))
        rows = [
            ("stl", box.export(file_type="stl"), None, [10, 20, 30]),
            ("ply", box.export(file_type="ply"), "mm", [10, 20, 30]),
            ("obj", box.export(file_type="obj").encode(), None, [10, 30, 20]),
            ("glb", trimesh.creation.box((0.01, 0.02, 0.03)).export(file_type="glb"), None,
             [10, 30, 20]),
            ("stl", trimesh.creation.box((0.5, 0.5, 1)).export(file_type="stl"), "in",
             [12.7, 12.7, 25.4]),
        ]
        for kind, content, unit, size in rows:
            with self.subTest(kind, unit=unit):
                np.testing.assert_allclose(bring_mesh(content, kind, unit).size_mm, size, atol=0.02)

    def test_refusals_say_what_to_change(self):
        sheet = trimesh.Trimesh([[0, 0, 0], [10, 0, 0], [10, 10, 0], [0, 10, 0]],
                                [[0, 1, 2], [0, 2, 3]])
        half = with_faces(BALL.faces[BALL.triangles_center[:, 2] < 0])
        soup = BALL.triangles.reshape(-1, 3) + np.random.default_rng(2).normal(
            0, 0.3, (len(BALL.faces) * 3, 3)
        )
        soup = trimesh.Trimesh(soup, np.arange(len(soup)).reshape(-1, 3), process=False)
        rows = [
            (b"", "stl", {}, "empty"),
            (b"hello", "obj", {}, "triangles|read"),
            (b"\x00" * 300, "glb", {}, "cannot be read as GLB"),
            (stl(BALL), "blend", {}, "has to be stl, obj, glb, ply; this one says 'blend'"),
            (stl(sheet), "stl", {}, "open surface with no inside"),
            (stl(half), "stl", {}, "open surface with no inside"),
            (stl(soup), "stl", {}, "open surface|torn"),
            (stl(trimesh.creation.box((0.4, 0.4, 0.9))), "stl", {}, "would be 0.9 mm"),
            (stl(trimesh.creation.box((4000, 4, 4))), "stl", {}, "say whether"),
            (stl(BALL), "stl", {"unit": "cubit"}, "unit has to be mm, cm, m, in"),
        ]
        for content, kind, more, words in rows:
            with self.subTest(words), self.assertRaisesRegex(GondolaError, words):
                bring_mesh(content, kind, **more)

    def test_too_many_triangles(self):
        count = MOST_TRIANGLES + 1
        record = np.zeros(count, dtype=[("n", "<f4", 3), ("v", "<f4", (3, 3)), ("a", "<u2")])
        content = b"\0" * 80 + np.uint32(count).tobytes() + record.tobytes()
        with self.assertRaisesRegex(GondolaError, "1,000,001 triangles: reduce it"):
            bring_mesh(content, "stl")


def point(x, y, depth):
    return MeasuredDepth(x_mm=x, behind_mm=y, depth_mm=depth)


class Beds(unittest.TestCase):
    def test_starters_fit_the_tank(self):
        for kind in STARTERS:
            with self.subTest(kind):
                heights = np.array(starter_heights(kind, TANK))
                self.assertGreater(np.ptp(heights), 5)
                self.assertGreaterEqual(heights.min(), 0)
                self.assertLess(heights.max(), 90)
        with self.assertRaisesRegex(GondolaError, "this says 'volcano'"):
            starter_heights("volcano", TANK)

    def test_measured_depths_are_met_and_a_plane_is_a_plane(self):
        plane = [point(x, y, 30 + 0.2 * x - 0.1 * y) for x in (10, 50, 90) for y in (10, 70)]
        heights = np.array(measured_heights(plane, TANK))
        x, y = np.linspace(0, 100, heights.shape[1]), np.linspace(0, 80, heights.shape[0])
        np.testing.assert_allclose(
            heights, 60 - 0.2 * x[None, :] + 0.1 * y[:, None], atol=0.02
        )
        hump = [*plane, point(52, 40, 12)]
        heights = np.array(measured_heights(hump, TANK))
        self.assertAlmostEqual(heights[10, 13], 78, delta=0.5)

    def test_few_points(self):
        self.assertEqual({*np.ravel(measured_heights([point(5, 5, 40)], TANK))}, {50.0})
        two = np.array(measured_heights([point(0, 40, 20), point(100, 40, 60)], TANK))
        np.testing.assert_allclose(two[0, [0, -1]], [70, 30], atol=0.1)
        with self.assertRaisesRegex(GondolaError, "at least one depth"):
            measured_heights([], TANK)
        with self.assertRaisesRegex(GondolaError, "1 and 2 stand at the same place"):
            measured_heights([point(5, 5, 40), point(5, 5.1, 30)], TANK)

    def test_height_maps(self):
        from PIL import Image

        grey = np.linspace(0, 65535, 40 * 30).reshape(30, 40).astype(np.uint16)
        out = io.BytesIO()
        Image.fromarray(grey).save(out, format="PNG")
        heights = np.array(map_heights(out.getvalue(), "map.png", 10, 60, TANK))
        self.assertEqual(heights.shape, (30, 40))
        self.assertAlmostEqual(heights.max(), 60)
        # the first row of the file is the back
        self.assertAlmostEqual(heights[-1, 0], 10)
        table = np.array(map_heights(b"1;2;3\n4;5;6,5\n", "bed.csv", 0, 0, TANK))
        np.testing.assert_allclose(table, [[4, 5, 6.5], [1, 2, 3]])

    def test_bad_maps_get_a_sentence(self):
        rows = [
            (b"", "a.png", "empty"),
            (b"hello there", "a.png", "no picture"),
            (b"1,2\n3,deep\n", "a.csv", "Row 2 of the CSV says 'deep'"),
            (b"1,2\n3,4,5\n", "a.csv", "Row 2 of the CSV has 3 heights"),
            (b"1,2\n", "a.csv", "at least 2 rows"),
            (b"1,2\n3,-4\n", "a.csv", "from -4 to 3"),
            (b"\xff\xfe\x00\x01", "a.csv", "no text"),
        ]
        for content, name, words in rows:
            with self.subTest(words), self.assertRaisesRegex(GondolaError, words):
                map_heights(content, name, 0, 50, TANK)
        with self.assertRaisesRegex(GondolaError, "black the lower"):
            map_heights(b"x", "a.png", 50, 20, TANK)
