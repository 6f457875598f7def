import unittest
from math import pi, radians, tan

import numpy as np
from test_fill import FLAT, SOLIDS, TANK, figure

from gondola_core.samples import quarry_pool
from gondola_core.scene import Bed, Box, Hull, MeshSolid, Ring
from gondola_core.shape.bodies.mesh import TriMesh, mesh_volume
from gondola_core.shape.columns import FIRST_FIGURE, column_spans
from gondola_core.shape.floods import FAR, free_spans, wet_and_trapped_ml
from gondola_core.shape.pockets import air_traps, dry_basins, kept_air, late_hollows, pocket_mesh, pour_places


def scene_with(figures, bed=FLAT):
    return quarry_pool().model_copy(update={"tank": TANK, "bed": bed, "figures": figures})


def flooded(figures, bed=FLAT, meshes=None, prefilled=frozenset()):
    spans = column_spans(TANK, bed, figures, meshes)
    return spans, free_spans(spans, prefilled)


def trapped_ml(figures, level=90.0, **more):
    spans, free = flooded(figures, **more)
    return float(wet_and_trapped_ml(free, spans.area_mm2, np.array([level]))[1][0])


def wet_ml(figures, level, **more):
    spans, free = flooded(figures, **more)
    return float(wet_and_trapped_ml(free, spans.area_mm2, np.array([level]))[0][0])


def walls(*boxes):
    """A figure of blocks, each (x from, to, y from, to, z from, to) in the tank."""
    solids = [
        Box(kind="box", centre_mm=[(a + b) / 2, (c + d) / 2, (e + f) / 2],
            size_mm=[b - a, d - c, f - e])
        for a, b, c, d, e, f in boxes
    ]
    return figure(*solids, x=0.0, behind=0.0, height=0.0)


CUP = ((30, 70, 20, 60, 58, 60), (30, 32, 20, 60, 30, 60), (68, 70, 20, 60, 30, 60),
       (30, 70, 20, 22, 30, 60), (30, 70, 58, 60, 30, 60))
"""An upside-down cup of 36 x 36 mm inside, 28 mm deep."""
CUP_ML = 36 * 36 * 28 / 1000


def inverted_u():
    """A square tube 10 x 10 mm inside, walls of 2 mm, up, across and down again, open at both feet."""
    outer, inner, foot, top = (20, 80), (34, 66), 20, 60
    return walls(
        (*outer, 20, 34, top, top + 2), (*outer, 20, 22, foot, top), (*outer, 32, 34, foot, top),
        (outer[0], outer[0] + 2, 20, 34, foot, top), (outer[1] - 2, outer[1], 20, 34, foot, top),
        (inner[0] - 2, inner[0], 22, 32, foot, top - 12), (inner[1], inner[1] + 2, 22, 32, foot, top - 12),
        (inner[0] - 2, inner[1] + 2, 22, 32, top - 12, top - 10),
        # the space between the legs is solid wall towards the tube, open below: filled up
        (inner[0], inner[1], 22, 32, foot, top - 12),
    )


class SealedByTheResin(unittest.TestCase):
    def test_the_bend_of_an_upturned_tube_was_told_as_two_pockets_and_a_closed_hollow(self):
        tube = inverted_u()
        # two legs of 10 x 10 x 28 and the bridge of 56 x 10 x 10
        exact = (2 * 10 * 10 * 30 + 56 * 10 * 10) / 1000
        self.assertAlmostEqual(trapped_ml([tube]) / exact, 1, delta=0.03)
        scene, (spans, free) = scene_with([tube]), flooded([tube])
        told = air_traps(scene, spans, free)
        self.assertEqual(len(told), 1)
        self.assertAlmostEqual(told[0].volume_ml / exact, 1, delta=0.03)
        self.assertEqual(dry_basins(scene, spans, free), [])

    def test_a_cup_within_a_cup_keeps_all_its_air(self):
        inner = ((40, 60, 30, 50, 48, 50), (40, 42, 30, 50, 36, 50), (58, 60, 30, 50, 36, 50),
                 (40, 60, 30, 32, 36, 50), (40, 60, 48, 50, 36, 50))
        cups = walls(*CUP, *inner)
        wall_ml = (20 * 20 * 2 + (20 * 20 - 16 * 16) * 12) / 1000
        self.assertAlmostEqual(trapped_ml([cups]) / (CUP_ML - wall_ml), 1, delta=0.01)
        told = air_traps(scene_with([cups]), *flooded([cups]))
        self.assertAlmostEqual(sum(one.volume_ml for one in told), trapped_ml([cups]), places=2)

    def test_a_blind_leg_behind_the_bend_keeps_what_hangs_below_the_mouth(self):
        # up 30 from a mouth at 30, across, and down a blind leg to 12: none of it is ever reached
        blind = walls(
            (20, 62, 20, 34, 60, 62), (20, 62, 20, 22, 10, 62), (20, 62, 32, 34, 10, 62),
            (20, 22, 20, 34, 30, 62), (60, 62, 20, 34, 10, 62), (32, 50, 22, 32, 10, 50), (48, 62, 20, 34, 10, 12),
            (20, 34, 20, 22, 10, 30), (20, 34, 32, 34, 10, 30),
        )
        exact = (10 * 10 * 20 + 38 * 10 * 10 + 10 * 10 * 38) / 1000
        self.assertAlmostEqual(trapped_ml([blind]) / exact, 1, delta=0.03)

    def test_a_tube_open_at_both_ends_is_not_closed(self):
        lying = walls((20, 80, 20, 34, 30, 32), (20, 80, 20, 34, 42, 44), (20, 80, 20, 22, 30, 44),
                      (20, 80, 32, 34, 30, 44))
        scene, (spans, free) = scene_with([lying]), flooded([lying])
        self.assertEqual(trapped_ml([lying]), 0.0)
        self.assertEqual([basin.sealed for basin in dry_basins(scene, spans, free)], [])

    def test_two_cups_one_over_the_other_are_two_pockets(self):
        lower = [(a, b, c, d, e - 28, f - 28) for a, b, c, d, e, f in CUP]
        upper = [(a, b, c, d, e + 10, f + 10) for a, b, c, d, e, f in CUP]
        both = walls(*lower, *upper)
        told = air_traps(scene_with([both]), *flooded([both]))
        self.assertEqual([round(one.volume_ml / CUP_ML, 2) for one in told], [1.0, 1.0])


class Pockets(unittest.TestCase):
    def test_an_upside_down_cup_keeps_its_volume_and_an_arch_nothing(self):
        arch = walls((20, 30, 20, 60, 0, 50), (70, 80, 20, 60, 0, 50), (20, 80, 20, 60, 50, 60))
        self.assertAlmostEqual(trapped_ml([walls(*CUP)]) / CUP_ML, 1, delta=0.002)
        self.assertEqual(trapped_ml([arch]), 0.0)
        upright = walls(*[(a, b, c, d, 90 - f, 90 - e) for a, b, c, d, e, f in CUP])
        self.assertEqual(trapped_ml([upright]), 0.0)

    def test_the_level_closes_it_at_the_lip(self):
        cup = walls(*CUP)
        self.assertEqual(trapped_ml([cup], level=29.0), 0.0)
        self.assertAlmostEqual(trapped_ml([cup], level=44.0), 36 * 36 * 14 / 1000, delta=0.05)

    def test_a_hole_lets_out_what_is_above_it(self):
        holed = walls(*CUP[:1], (30, 32, 20, 36, 30, 60), (30, 32, 44, 60, 30, 60),
                      (30, 32, 36, 44, 30, 46), *CUP[2:])
        # the slot reaches from 46 up to the roof, 36 x 8 wide of it stays only below its lip: none
        self.assertEqual(round(trapped_ml([holed]), 3), 0.0)

    def test_a_tilted_box_keeps_the_share_that_geometry_says(self):
        # open below, a along the tilt, d deep, w wide: w(ad - a^2 tan/2) while a tan <= d
        inner, deep = 40.0, 20.0
        shell = [(-22, 22, -22, 22, deep, deep + 2), (-22, -20, -22, 22, 0, deep + 2),
                 (20, 22, -22, 22, 0, deep + 2), (-22, 22, -22, -20, 0, deep + 2),
                 (-22, 22, 20, 22, 0, deep + 2)]
        solids = walls(*shell).solids
        for tilt in (0.0, 5.0, 12.0, 20.0, 35.0):
            with self.subTest(tilt):
                body = figure(*solids, x=50.0, behind=40.0, height=35.0).model_copy(
                    update={"tilt_deg": tilt}
                )
                slope = tan(radians(tilt))
                if inner * slope <= deep:
                    exact = inner * (inner * deep - 0.5 * inner**2 * slope) / 1000
                else:
                    exact = inner * 0.5 * deep**2 / slope / 1000
                self.assertAlmostEqual(trapped_ml([body]) / exact, 1, delta=0.05)

    def test_a_prefilled_cup_keeps_no_air(self):
        self.assertEqual(trapped_ml([walls(*CUP)], prefilled=frozenset([FIRST_FIGURE])), 0.0)

    def test_a_capsized_hull_is_told_with_its_place(self):
        hull = figure(
            Hull(kind="hull", length_mm=60, beam_mm=30, depth_mm=16, wall_mm=2), height=50.0
        ).model_copy(update={"roll_deg": 180.0})
        scene = scene_with([hull])
        spans, free = flooded([hull])
        told = air_traps(scene, spans, free)
        self.assertEqual(len(told), 1)
        self.assertEqual(told[0].figure_id, "one")
        self.assertAlmostEqual(told[0].x_mm, 50, delta=1.0)
        self.assertAlmostEqual(told[0].volume_ml, trapped_ml([hull]), places=2)
        self.assertGreater(told[0].lip_depth_mm, told[0].depth_mm)

    def test_a_cave_in_a_bed_mesh_keeps_its_overhang(self):
        roof = _block_mesh(0, 100, 40, 80, 30, 50)
        lip = _block_mesh(0, 100, 38, 42, 20, 50)
        bed = Bed(
            heights_mm=[[0, 0], [0, 0]], material=SOLIDS["plaster"],
            mesh=MeshSolid(kind="mesh", mesh_id="cave"),
        )
        mesh = TriMesh(
            np.concatenate([roof.vertices, lip.vertices]),
            np.concatenate([roof.faces, lip.faces + len(roof.vertices)]),
        )
        self.assertAlmostEqual(
            trapped_ml([], bed=bed, meshes={"cave": mesh}) / (100 * 38 * 10 / 1000), 1, delta=0.03
        )


def _block_mesh(x0, x1, y0, y1, z0, z1):
    from gondola_core.shape.bodies.shapes import block

    return block([x0, y0, z0], [x1, y1, z1])


class Basins(unittest.TestCase):
    def test_an_upright_tub_fills_when_its_rim_is_passed(self):
        tub = walls(*[(a, b, c, d, 90 - f, 90 - e) for a, b, c, d, e, f in CUP])
        inside = 36 * 36 * 28 / 1000
        before, after = wet_ml([tub], 59.9), wet_ml([tub], 60.1)
        self.assertAlmostEqual(after - before, inside, delta=0.06 * inside)
        told = dry_basins(scene_with([tub]), *flooded([tub]))
        self.assertEqual(len(told), 1)
        self.assertAlmostEqual(told[0].volume_ml, inside, delta=0.01)
        self.assertAlmostEqual(told[0].rim_depth_mm, 30, delta=0.01)

    def test_a_closed_box_is_never_reached(self):
        shut = walls(*CUP, (30, 70, 20, 60, 28, 30))
        told = dry_basins(scene_with([shut]), *flooded([shut]))
        self.assertEqual([basin.sealed for basin in told], [True])
        whole = 100 * 80 * 90 / 1000
        self.assertAlmostEqual(wet_ml([shut], 90.0), whole - 40 * 40 * 32 / 1000, delta=0.05)

    def test_pockets_as_bodies_hold_what_they_are_said_to_hold(self):
        shut = walls(*CUP, (30, 70, 20, 60, 28, 30))
        tub = walls(*[(a, b, c, d, 90 - f, 90 - e) for a, b, c, d, e, f in CUP])
        hull = Hull(kind="hull", length_mm=70, beam_mm=26, depth_mm=16, wall_mm=1.5)
        capsized = figure(hull, height=60.0).model_copy(update={"roll_deg": 180.0, "tilt_deg": 8.0})
        rows = [
            ("cup", [walls(*CUP)], FLAT, kept_air), ("hull", [capsized], FLAT, kept_air),
            ("tub", [tub], FLAT, late_hollows), ("shut", [shut], FLAT, late_hollows),
            ("bent tube", [inverted_u()], FLAT, kept_air),
        ]
        for name, figures, bed, find in rows:
            with self.subTest(name):
                spans, free = flooded(figures, bed=bed)
                pockets = find(scene_with(figures, bed=bed), spans, free)
                self.assertTrue(pockets)
                for pocket in pockets:
                    mesh = pocket_mesh(pocket, spans)
                    self.assertAlmostEqual(mesh_volume(mesh) / 1000, pocket.volume_ml, places=6)
                    self.assertAlmostEqual(float(mesh.vertices[:, 2].max()), float(pocket.high.max()))

    def test_a_second_valley_behind_a_ridge_was_left_dry(self):
        # 40 wide either side of a ridge 50 high: both are poured into
        ridge = Bed(heights_mm=[[5, 5, 50, 5, 5]] * 2, material=SOLIDS["plaster"])
        self.assertAlmostEqual(wet_ml([], 25.0, bed=ridge) / (80 * 20 * (2 * 25 + 2 * 11.111 / 2) / 1000), 1,
                               delta=0.01)
        spans, free = flooded([], bed=ridge)
        self.assertEqual(late_hollows(scene_with([], bed=ridge), spans, free), [])
        places = pour_places(scene_with([], bed=ridge).tank, spans, free, [25.0, 60.0])
        self.assertEqual([len(places[0]), len(places[1])], [2, 1])
        names = {place.name.said() for place in places[0]}
        self.assertEqual(names, {"the hollow at the left", "the hollow at the right"})
        total = sum(place.volume_ml for place in places[0])
        self.assertAlmostEqual(total, wet_ml([], 25.0, bed=ridge), delta=0.05)

    def test_nothing_is_lost_when_all_is_open(self):
        ring = figure(Ring(kind="ring", outer_mm=40, thick_mm=10), height=40.0)
        spans, free = flooded([ring])
        self.assertTrue((free.escape_mm[free.above == -1] == FAR).all())
        wet, kept = wet_and_trapped_ml(free, spans.area_mm2, np.array([90.0]))
        exact = 720 - 2 * pi**2 * 15 * 25 / 1000
        self.assertAlmostEqual(float(wet[0]) / exact, 1, delta=0.002)
        # the flat ring's belly is round: air rolls off it
        self.assertEqual(float(kept[0]), 0.0)
