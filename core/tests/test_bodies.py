"""Closed bodies against exact volumes, by closed forms and by an independent boolean kernel."""

import unittest
from math import pi

import manifold3d
import numpy as np
import trimesh
from test_fill import FLAT, SOLIDS, TANK, ball, figure

from gondola_core.errors import GondolaError
from gondola_core.scene import Bed, Box, Capsule, Eel, Fish, Hull, Ladder, MeshSolid, Ring, Tuft, Vent, Wagon
from gondola_core.shape import figure_bulk, figure_mesh, mesh_area, mesh_spans, mesh_volume
from gondola_core.shape.bodies.mesh import TriMesh, joined, pack_mesh, unpack_mesh
from gondola_core.shape.bodies.shapes import solid_mesh
from gondola_core.shape.columns import column_spans, free_volume_ml

MADE = [
    Fish(kind="fish", length_mm=34, height_mm=8, thick_mm=4, bend_deg=20),
    Eel(kind="eel", length_mm=60, thick_mm=5, wave_mm=6),
    Hull(kind="hull", length_mm=80, beam_mm=26, depth_mm=16, sheer_mm=5, wall_mm=1.5),
    Wagon(kind="wagon", length_mm=30, width_mm=16, height_mm=18, wall_mm=1),
    Ladder(kind="ladder", length_mm=70, width_mm=9, rail_mm=1.6, rungs_count=8),
    Ring(kind="ring", outer_mm=40, thick_mm=9),
    Tuft(kind="tuft", height_mm=30, spread_mm=22, blade_mm=2, blades_count=11),
    Box(kind="box", centre_mm=[0, 0, 10], size_mm=[20, 12, 16]),
    Capsule(kind="capsule", from_mm=[0, 0, 6], to_mm=[12, 5, 20], radius_mm=5),
]


def solid_ml(*figures, bed=FLAT, meshes=None):
    spans = column_spans(TANK, bed, list(figures), meshes)
    return 100 * 80 * 90 / 1000 - float(free_volume_ml(spans, np.array([90.0]))[0])


def manifold_of(mesh):
    return manifold3d.Manifold(
        manifold3d.Mesh(mesh.vertices.astype(np.float32), mesh.faces.astype(np.uint32))
    )


class Made(unittest.TestCase):
    def test_every_kind_is_closed_and_counts_what_it_encloses(self):
        for solid in MADE:
            with self.subTest(solid.kind):
                mesh = solid_mesh(solid)
                low, high = mesh.vertices.min(axis=0), mesh.vertices.max(axis=0)
                x = np.linspace(low[0] - 0.1, high[0] + 0.13, 173)
                y = np.linspace(low[1] - 0.1, high[1] + 0.13, 171)
                spans = mesh_spans(mesh, x, y)
                self.assertEqual(spans.unbalanced, 0)
                self.assertGreater(spans.hit, 200)
                found = float((spans.high - spans.low).sum()) * (x[1] - x[0]) * (y[1] - y[0])
                self.assertLess(found, 1.01 * mesh_volume(mesh))
                self.assertGreater(found, 0)

    def test_measures_are_kept(self):
        rows = [
            (Fish(kind="fish", length_mm=40, height_mm=10, thick_mm=5), [40, 5, 10], 0.04),
            (Hull(kind="hull", length_mm=80, beam_mm=26, depth_mm=16, wall_mm=1), [80, 26, 16], 0),
            (Ring(kind="ring", outer_mm=40, thick_mm=9), [40, 40, 9], 0.01),
            (Ladder(kind="ladder", length_mm=70, width_mm=9, rail_mm=1.6, rungs_count=8),
             [1.6, 9, 70], 0.01),
        ]
        for solid, size, within in rows:
            with self.subTest(solid.kind):
                found = np.ptp(solid_mesh(solid).vertices, axis=0)
                np.testing.assert_allclose(found, size, rtol=within + 1e-6)


class ExactVolumes(unittest.TestCase):
    def test_torus(self):
        ring = figure(Ring(kind="ring", outer_mm=60, thick_mm=16))
        exact = mesh_volume(solid_mesh(ring.solids[0])) / 1000
        self.assertAlmostEqual(exact / (2 * pi**2 * 22 * 64 / 1000), 1, delta=0.02)
        self.assertAlmostEqual(solid_ml(ring) / exact, 1, delta=0.002)

    def test_tilted_box(self):
        box = figure(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[40, 30, 20]))
        for tilt, roll, turn in ((20, 0, 0), (33, 17, 41), (90, 45, 10)):
            with self.subTest(tilt=tilt, roll=roll, turn=turn):
                tipped = box.model_copy(
                    update={"tilt_deg": tilt, "roll_deg": roll, "turn_deg": turn}
                )
                self.assertAlmostEqual(solid_ml(tipped) / 24.0, 1, delta=0.002)

    def test_hollow_hull(self):
        hull = figure(
            Hull(kind="hull", length_mm=80, beam_mm=40, depth_mm=24, sheer_mm=4, wall_mm=4),
            height=10.0,
        )
        exact = mesh_volume(solid_mesh(hull.solids[0])) / 1000
        self.assertAlmostEqual(figure_bulk(hull, {}).volume_ml / exact, 1, delta=1e-9)
        self.assertAlmostEqual((720 - solid_ml(hull)) / (720 - exact), 1, delta=0.0005)

    def test_overlapping_shells_count_once(self):
        bodies = [
            figure(Ring(kind="ring", outer_mm=50, thick_mm=12), key="a"),
            figure(Fish(kind="fish", length_mm=60, height_mm=24, thick_mm=14), key="b"),
            figure(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[30, 10, 22]), key="c").model_copy(
                update={"tilt_deg": 30.0}
            ),
        ]
        union = manifold3d.Manifold()
        for body in bodies:
            for solid in body.solids:
                mesh = figure_mesh(body, {})
                if solid.kind == "fish":
                    # its fins are shells of their own: join them first
                    shells = manifold_of(mesh).decompose()
                    union = manifold3d.Manifold.batch_boolean(
                        [union, *shells], manifold3d.OpType.Add
                    )
                else:
                    union += manifold_of(mesh)
        exact = union.volume() / 1000
        self.assertAlmostEqual((720 - solid_ml(*bodies)) / (720 - exact), 1, delta=0.0005)

    def test_half_sunk_figure_against_exact_booleans_at_every_level(self):
        ring = figure(Ring(kind="ring", outer_mm=60, thick_mm=20), height=30.0).model_copy(
            update={"tilt_deg": 35.0}
        )
        bed = Bed(heights_mm=[[34, 20], [40, 26]], material=SOLIDS["plaster"])
        spans = column_spans(TANK, bed, [ring])
        body = manifold_of(figure_mesh(ring, {}))
        steps = 80
        x, y = np.linspace(0, 100, steps + 1), np.linspace(0, 80, steps + 1)
        top = np.array([[34 + (20 - 34) * a / 100 + (6 * b / 80) for a in x] for b in y])
        ground = manifold_of(_terrain(x, y, top))
        solid = body + ground
        for level in (30.0, 41.0, 55.0, 70.0):
            with self.subTest(level):
                box = manifold3d.Manifold.cube([100, 80, level])
                exact = (box - solid).volume() / 1000
                found = float(free_volume_ml(spans, np.array([level]))[0])
                self.assertAlmostEqual(found / exact, 1, delta=0.002)

    def test_bulk_agrees_with_closed_forms(self):
        rows = [
            (figure(ball(20)), 4 / 3 * pi * 8, 4 * pi * 4),
            (figure(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[40, 30, 20])), 24, 52),
        ]
        for body, volume, area in rows:
            with self.subTest(body.solids[0].kind):
                bulk = figure_bulk(body, {})
                self.assertAlmostEqual(bulk.volume_ml / volume, 1, delta=1e-9)
                self.assertAlmostEqual(bulk.area_cm2 / area, 1, delta=0.01)


def _terrain(x, y, top):
    nx, ny = len(x), len(y)
    px, py = np.meshgrid(x, y)
    upper = np.stack([px, py, top], axis=-1).reshape(-1, 3)
    lower = upper * [1, 1, 0] - [0, 0, 1]
    faces = []
    for j in range(ny - 1):
        for i in range(nx - 1):
            a, b, c, d = j * nx + i, j * nx + i + 1, (j + 1) * nx + i, (j + 1) * nx + i + 1
            faces += [(a, b, d), (a, d, c)]
            m = nx * ny
            faces += [(m + a, m + d, m + b), (m + a, m + c, m + d)]
    rim = [
        *range(nx), *(j * nx + nx - 1 for j in range(1, ny)),
        *((ny - 1) * nx + i for i in range(nx - 2, -1, -1)), *(j * nx for j in range(ny - 2, 0, -1)),
    ]
    for p, q in zip(rim, rim[1:] + rim[:1], strict=True):
        m = nx * ny
        faces += [(p, m + q, q), (p, m + p, m + q)]
    return TriMesh(np.concatenate([upper, lower]), np.array(faces, dtype=np.int32))


class MeshFiles(unittest.TestCase):
    def test_a_mesh_of_crossing_shells_counts_what_they_share_once(self):
        balls = [trimesh.creation.icosphere(4, 10.0) for _ in range(3)]
        rows = [
            ("apart", [30, 60]), ("two touch", [12, 60]), ("all cross", [9, 18]), ("on one spot", [0, 1]),
        ]
        for name, moves in rows:
            parts = [balls[0], *(
                one.copy().apply_translation([by, 0, 0.4 * by])
                for one, by in zip(balls[1:], moves, strict=True)
            )]
            union = manifold3d.Manifold.batch_boolean([
                manifold3d.Manifold(manifold3d.Mesh(
                    one.vertices.astype(np.float32), one.faces.astype(np.uint32))) for one in parts
            ], manifold3d.OpType.Add).volume()
            whole = joined([TriMesh(np.array(one.vertices), one.faces.astype(np.int32)) for one in parts])
            body = figure(MeshSolid(kind="mesh", mesh_id="m"))
            with self.subTest(name):
                bulk = figure_bulk(body, {"m": whole})
                self.assertAlmostEqual(bulk.volume_ml * 1000 / union, 1, delta=0.002)

    def test_packing_keeps_the_mesh(self):
        mesh = solid_mesh(MADE[0])
        again = unpack_mesh(pack_mesh(mesh))
        np.testing.assert_allclose(again.vertices, mesh.vertices, atol=1e-5)
        np.testing.assert_array_equal(again.faces, mesh.faces)
        with self.assertRaisesRegex(GondolaError, "damaged"):
            unpack_mesh(b"not a mesh")

    def test_a_mesh_solid_is_scaled_and_moved(self):
        mesh = solid_mesh(Box(kind="box", centre_mm=[0, 0, 5], size_mm=[10, 10, 10]))
        body = figure(
            MeshSolid(kind="mesh", mesh_id="m1", scale_ratio=2.0, offset_mm=[0, 0, 3]), height=10.0
        )
        self.assertAlmostEqual(solid_ml(body, meshes={"m1": mesh}), 8.0, delta=0.01)
        self.assertAlmostEqual(figure_mesh(body, {"m1": mesh}).vertices[:, 2].min(), 13.0)
        with self.assertRaisesRegex(GondolaError, "not here"):
            solid_ml(body)

    def test_a_vent_opens_what_lies_above_it(self):
        box = Box(kind="box", centre_mm=[0, 0, 0], size_mm=[20, 20, 10])
        whole = figure(box)
        drilled = whole.model_copy(update={"vents": [Vent(at_mm=[0, 0, -6], width_mm=6)]})
        drilled_ml = solid_ml(whole) - solid_ml(drilled)
        self.assertAlmostEqual(drilled_ml / (pi * 9 * 10 / 1000), 1, delta=0.15)

    def test_areas_add(self):
        box = solid_mesh(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[10, 20, 30]))
        self.assertAlmostEqual(mesh_area(joined([box, box])), 2 * 2200)
