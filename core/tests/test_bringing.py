import io
import re
import unittest

import numpy as np
import trimesh
from test_fill import TANK

from gondola_core.errors import GondolaError
from gondola_core.scene import MeasuredDepth
from gondola_core.shape.bedform import STARTERS, map_heights, measured_heights, starter_heights
from gondola_core.shape.bodies.bringing import MOST_TRIANGLES, bring_mesh
from gondola_core.shape.bodies.estimated import LEAST_POINTS, MOST_LOOKS, MOST_POINTS, _field
from gondola_core.shape.bodies.lids import LARGEST_LIDS
from gondola_core.shape.bodies.mending import _open_edges
from gondola_core.shape.bodies.mesh import TriMesh, mesh_volume
from gondola_core.shape.bodies.winding import _sums, winding_numbers, winding_tree

BALL = trimesh.creation.icosphere(4, 14.0)
BALL_ML = float(BALL.volume) / 1000


def stl(mesh):
    return mesh.export(file_type="stl")


def with_faces(faces):
    return trimesh.Trimesh(BALL.vertices, faces, process=False)


def capped(height):
    """The ball without what stands above a height: a flat hole."""
    return with_faces(BALL.faces[BALL.triangles_center[:, 2] < height])


def scanned(holes, seed=3):
    """A lumpy body of 82,000 triangles with ragged holes in its base, as scans have, and its volume in ml."""
    body = trimesh.creation.icosphere(6, 20.0)
    rng = np.random.default_rng(seed)
    lumps = rng.normal(size=(14, 3))
    lumps /= np.linalg.norm(lumps, axis=1)[:, None]
    way = body.vertices / 20.0
    swell = 1 + 0.12 * np.exp(4 * (way @ lumps.T - 1)).sum(axis=1)
    body.vertices = way * (20 * swell)[:, None] * [1.6, 1.0, 0.9]
    volume = float(body.volume) / 1000
    keep = np.ones(len(body.faces), dtype=bool)
    centres = body.triangles_center
    for _ in range(holes):
        at = centres[rng.choice(np.flatnonzero(centres[:, 2] < -10))]
        away = np.linalg.norm((centres - at) * [0.5, 2.0, 0.5], axis=1)
        keep &= away > rng.uniform(1.5, 4.0) * (1 + 0.25 * np.sin(9 * centres[:, 0]))
    return trimesh.Trimesh(body.vertices, body.faces[keep], process=False), volume


class Scans(unittest.TestCase):
    def test_a_scan_with_ragged_holes_in_its_base_was_refused(self):
        for holes in (1, 3, 7):
            with self.subTest(holes):
                mesh, volume = scanned(holes)
                self.assertGreater(len(mesh.faces), 69_000)
                brought = bring_mesh(stl(mesh), "stl")
                self.assertAlmostEqual(brought.volume_ml / volume, 1, delta=0.01)
                self.assertIsNone(brought.estimate)
                self.assertIn("lid", " ".join(map(str, brought.words)))

    def test_a_hole_over_an_edge_gets_a_smooth_lid(self):
        fin = trimesh.creation.icosphere(6, 1.0)
        fin.vertices = fin.vertices * [20.0, 3.0, 12.0]
        gone = np.linalg.norm(fin.triangles_center - [0.0, 0.0, 12.0], axis=1) < 2.5
        open_fin = trimesh.Trimesh(fin.vertices, fin.faces[~gone], process=False)
        brought = bring_mesh(stl(open_fin), "stl")
        self.assertIn("1 hole was closed with a smooth lid", str(brought.words[0]))
        # what a cut across would lose there is some 3 thousandths; a skin loses less
        self.assertAlmostEqual(brought.volume_ml / (float(fin.volume) / 1000), 1, delta=0.003)

    def test_what_lids_do_not_close_becomes_an_estimated_solid_with_its_spread(self):
        loose = BALL.triangles.reshape(-1, 3) + np.random.default_rng(2).normal(0, 0.3, (len(BALL.faces) * 3, 3))
        mesh, volume = scanned(0)
        ragged = mesh.triangles_center[:, 2] > -9 + 3 * np.sin(0.4 * mesh.triangles_center[:, 0])
        rows = [
            ("loose triangles", trimesh.Trimesh(loose, np.arange(len(loose)).reshape(-1, 3), process=False),
             BALL_ML, 0.03),
            ("a large ragged hole", trimesh.Trimesh(mesh.vertices, mesh.faces[ragged], process=False), volume, 0.30),
        ]
        for name, open_mesh, true_ml, within in rows:
            with self.subTest(name):
                brought = bring_mesh(stl(open_mesh), "stl")
                self.assertAlmostEqual(brought.volume_ml / true_ml, 1, delta=within)
                self.assertIn("estimated solid", str(brought.words[0]))
                self.assertLess(brought.estimate.least_ml, brought.volume_ml)
                self.assertGreater(brought.estimate.most_ml, brought.volume_ml)
                made = trimesh.Trimesh(brought.mesh.vertices, brought.mesh.faces, process=False)
                self.assertEqual(len(_open_edges(brought.mesh.faces.astype(np.int64), len(made.vertices))), 0)
                self.assertAlmostEqual(float(made.volume) / 1000, brought.volume_ml, places=3)
                self.assertLess(mesh_volume(brought.estimate.less), mesh_volume(brought.estimate.more))

    def test_one_denominator_for_lids(self):
        # lids of a flat hole in a ball: share of the closed skin
        for height, closes in ((11.0, True), (7.0, False)):
            with self.subTest(height):
                mesh = capped(height)
                hole = np.pi * (14.0**2 - height**2)
                share = hole / (float(mesh.area) + hole)
                self.assertEqual(share < LARGEST_LIDS, closes)
                brought = bring_mesh(stl(mesh), "stl")
                self.assertEqual(brought.estimate is None, closes)
                if not closes:
                    told = int(re.search(r"would make (\d+)%", str(brought.words[0])).group(1))
                    self.assertGreater(told, 100 * LARGEST_LIDS)

    def test_widths_are_said_in_the_unit_of_the_file(self):
        fin = trimesh.creation.icosphere(5, 1.0)
        fin.vertices = fin.vertices * [20.0, 3.0, 12.0] / 25.4
        gone = np.linalg.norm(fin.triangles_center - [0.0, 0.0, 12.0 / 25.4], axis=1) < 6 / 25.4
        words = bring_mesh(stl(trimesh.Trimesh(fin.vertices, fin.faces[~gone], process=False)), "stl", "in").words[0]
        self.assertRegex(str(words), r"a hole 0\.\d+ in wide is neither flat nor small")
        self.assertIn("estimated solid", words)

    def test_winding_numbers_by_branches_are_those_of_every_triangle(self):
        scan, _ = scanned(2)
        nested = [trimesh.creation.icosphere(2, radius) for radius in (40.0, 36.0, 31.0)]
        four = trimesh.util.concatenate([*nested, nested[0]])
        rows = [
            ("a scan, one triangle of forty", scan.vertices, scan.faces[::40], 1),
            ("balls in one another", four.vertices, four.faces, 4),
            ("and inside out", four.vertices, four.faces[:, ::-1], 4),
            ("triangles across everything", four.vertices, tangled(four, 300), 1),
        ]
        points = np.random.default_rng(1).uniform(-40, 40, (400, 3))
        most = {}
        for name, vertices, faces, sheets in rows:
            with self.subTest(name):
                part = TriMesh(np.asarray(vertices), np.asarray(faces, dtype=np.int32))
                a, b, c = (part.vertices[part.faces[:, corner]] for corner in range(3))
                exact = [_winding(point, a, b, c) for point in points]
                found = winding_numbers(winding_tree(part), points)[0]
                np.testing.assert_allclose(found, exact, atol=0.01 * sheets)
                most[name] = np.abs(found).max()
        self.assertAlmostEqual(most["balls in one another"], 4, delta=0.04)
        self.assertAlmostEqual(most["and inside out"], 4, delta=0.04)

    def test_a_handful_of_triangles_is_of_the_same_kind_to_the_compiler(self):
        # columns of a table of one line were of another kind: five seconds to compile them anew, at a person's file
        for few in (4, 900):
            winding_tree(TriMesh(np.asarray(BALL.vertices), np.asarray(BALL.faces[:few])))
        self.assertEqual(len(_sums.signatures), 1)

    def test_a_tangled_mesh_is_asked_at_fewer_points(self):
        # every point has to look at every triangle there, which took a minute
        ragged = np.sin(9 * BALL.triangles_center[:, 0]) < 0.9
        for name, faces, all_points in (("torn", BALL.faces[ragged], True), ("tangled", tangled(BALL, 1200), False)):
            with self.subTest(name):
                mesh = TriMesh(np.asarray(BALL.vertices), np.asarray(faces, dtype=np.int32))
                _, _, winding = _field(mesh, winding_tree(mesh))
                self.assertEqual(winding.size > MOST_POINTS, all_points)
                self.assertGreater(winding.size, LEAST_POINTS)
                if not all_points:
                    self.assertLess(winding.size, 2 * MOST_LOOKS / 1200)


def tangled(mesh, count):
    """So many triangles between any three corners of a mesh."""
    return np.random.default_rng(4).integers(0, len(mesh.vertices), (count, 3))


def _winding(point, a, b, c):
    a, b, c = a - point, b - point, c - point
    la, lb, lc = (np.linalg.norm(one, axis=1) for one in (a, b, c))
    top = np.einsum("ij,ij->i", a, np.cross(b, c))
    below = la * lb * lc + (a * b).sum(1) * lc + (b * c).sum(1) * la + (c * a).sum(1) * lb
    return float(np.arctan2(top, below).sum() / (2 * np.pi))


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
            ("two boxes that overlap", crossing, 12.0, "the 4 ml that they share count once"),
            ("cavity", trimesh.util.concatenate([BALL, inner]),
             BALL_ML + float(inner.volume) / 1000, ""),
        ]
        for name, mesh, volume, words in rows:
            with self.subTest(name):
                brought = bring_mesh(stl(mesh), "stl")
                self.assertAlmostEqual(brought.volume_ml / volume, 1, delta=0.005)
                self.assertIn(words, " ".join(map(str, brought.words)))
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

    def test_a_file_is_known_by_what_it_holds(self):
        box = trimesh.creation.box((0.01, 0.02, 0.03))
        glb, ply = box.export(file_type="glb"), trimesh.creation.box((10, 20, 30)).export(file_type="ply")
        for content, kind, size in ((glb, "stl", [10, 30, 20]), (ply, "obj", [10, 20, 30]), (ply, "", [10, 20, 30])):
            with self.subTest(kind):
                np.testing.assert_allclose(bring_mesh(content, kind).size_mm, size, atol=0.02)

    def test_refusals_say_what_to_change(self):
        sheet = trimesh.Trimesh([[0, 0, 0], [10, 0, 0], [10, 10, 0], [0, 10, 0]],
                                [[0, 1, 2], [0, 2, 3]])
        half = with_faces(BALL.faces[BALL.triangles_center[:, 2] < 0])
        rows = [
            (b"", "stl", {}, "empty"),
            (b"hello", "obj", {}, "triangles|read"),
            # every corner has one number
            (b"v 1\nv 2\nv 3\nf 1 2 3\n", "obj", {}, "cannot be read as OBJ"),
            (b"\x00" * 300, "glb", {}, "cannot be read as GLB"),
            (stl(BALL), "blend", {}, "has to be stl, obj, glb, ply; this one says 'blend'"),
            (stl(sheet), "stl", {}, "open surface with no inside"),
            (stl(half), "stl", {}, "open surface with no inside"),
            (stl(capped(0.0)), "stl", {"unit": "cm"}, "lids over its holes would make"),
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
        self.assertEqual(map_heights(out.getvalue(), "named-badly.csv", 10, 60, TANK), heights.tolist())
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
            (b"\xff\x00\xfe\x01", "a.csv", "no text"), (b"\xff\xfe\x00\x01", "a.csv", "which is no height"),
        ]
        for content, name, words in rows:
            with self.subTest(words), self.assertRaisesRegex(GondolaError, words):
                map_heights(content, name, 0, 50, TANK)
        with self.assertRaisesRegex(GondolaError, "black the lower"):
            map_heights(b"x", "a.png", 50, 20, TANK)
