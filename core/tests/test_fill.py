import unittest
from math import pi

import numpy as np

from gondola_core.materials import load_library
from gondola_core.scene import Base, Bed, Box, Capsule, Ellipsoid, Figure, Place, Tank, Wall
from gondola_core.shape import figure_chords, solid_volume
from gondola_core.shape.columns import BED, column_spans, free_surface_cm2, free_volume_ml, solid_fractions

SOLIDS = load_library().solids
TANK = Tank(
    inner_width_mm=100, inner_behind_mm=80, wall_height_mm=100, fill_height_mm=90,
    wall=Wall(material=SOLIDS["acrylic"], thickness_mm=3),
    base=Base(material=SOLIDS["wood"], thickness_mm=18),
)
FLAT = Bed(heights_mm=[[0, 0], [0, 0]], material=SOLIDS["plaster"])


def figure(*solids, x=50.0, behind=40.0, height=45.0, turn=0.0, key="one"):
    return Figure(
        id=key, name=key, solids=list(solids), turn_deg=turn,
        place=Place(x_mm=x, behind_mm=behind, height_mm=height),
        material=SOLIDS["polymer-clay"], paint_srgb="#808080",
    )


def ball(radius, centre=(0.0, 0.0, 0.0)):
    return Ellipsoid(kind="ellipsoid", centre_mm=list(centre), radii_mm=[radius] * 3)


def solid_ml(*figures, bed=FLAT):
    spans = column_spans(TANK, bed, list(figures))
    return 100 * 80 * 90 / 1000 - float(free_volume_ml(spans, np.array([90.0]))[0])


class ExactBodies(unittest.TestCase):
    def test_volume_of_simple_solids_anywhere_and_any_way_round(self):
        rows = [
            ("ball", figure(ball(20))),
            ("ball off the grid", figure(ball(20), x=47.31, behind=38.77)),
            ("ellipsoid", figure(
                Ellipsoid(kind="ellipsoid", centre_mm=[0, 0, 0], radii_mm=[30, 15, 20],
                          pitch_deg=33), turn=27)),
            ("bar upright", figure(
                Capsule(kind="capsule", from_mm=[0, 0, -20], to_mm=[0, 0, 20], radius_mm=14))),
            ("bar level", figure(
                Capsule(kind="capsule", from_mm=[-20, 0, 0], to_mm=[20, 0, 0], radius_mm=14))),
            ("bar aslant", figure(
                Capsule(kind="capsule", from_mm=[-14, 3, -15], to_mm=[14, -3, 15], radius_mm=13),
                turn=40)),
            ("box", figure(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[40, 30, 20]))),
        ]
        for name, body in rows:
            with self.subTest(name):
                exact = solid_volume(body.solids[0]) / 1000
                self.assertAlmostEqual(solid_ml(body) / exact, 1.0, delta=0.002)

    def test_a_turned_box_on_one_millimetre_columns(self):
        body = figure(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[40, 30, 20]), turn=31)
        self.assertAlmostEqual(solid_ml(body) / 24.0, 1.0, delta=0.004)

    def test_overlaps_count_once(self):
        radius = 18.0
        for apart in (0.0, 9.0, 20.0, 36.0, 40.0):
            with self.subTest(apart):
                pair = figure(ball(radius, (-apart / 2, 0, 0)), ball(radius, (apart / 2, 0, 0)))
                two = 2 * 4 / 3 * pi * radius**3
                lens = 0.0
                if apart < 2 * radius:
                    lens = pi * (2 * radius - apart) ** 2 * (
                        apart**2 + 4 * apart * radius
                    ) / (12 * apart) if apart else two / 2
                self.assertAlmostEqual(solid_ml(pair) / ((two - lens) / 1000), 1, delta=0.002)

    def test_half_sunk_in_the_bed(self):
        bed = Bed(heights_mm=[[45, 45], [45, 45]], material=SOLIDS["plaster"])
        whole = 100 * 80 * 45 / 1000 + 2 / 3 * pi * 20**3 / 1000
        self.assertAlmostEqual(solid_ml(figure(ball(20)), bed=bed) / whole, 1, delta=0.0005)

    def test_free_volume_grows_with_the_ball_cap(self):
        spans = column_spans(TANK, FLAT, [figure(ball(20))])
        for level in (30.0, 45.0, 52.5, 64.0):
            with self.subTest(level):
                cap = level - 25
                exact = 8.0 * level - pi * cap**2 * (60 - cap) / 3 / 1000
                found = float(free_volume_ml(spans, np.array([level]))[0])
                self.assertAlmostEqual(found / exact, 1, delta=0.001)
        disc = float(free_surface_cm2(spans, np.array([45.0]))[0])
        self.assertAlmostEqual(disc, 80 - pi * 4, delta=0.15)

    def test_slope_is_a_wedge(self):
        bed = Bed(heights_mm=[[60, 0], [60, 0]], material=SOLIDS["plaster"])
        self.assertAlmostEqual(solid_ml(bed=bed), 240.0, delta=0.05)
        spans = column_spans(TANK, bed, [])
        half = float(free_volume_ml(spans, np.array([30.0]))[0])
        self.assertAlmostEqual(half, 0.5 * 30 * 50 * 80 / 1000, delta=0.05)


class Cells(unittest.TestCase):
    def test_shares_of_a_coarse_grid_add_up_to_the_solids(self):
        bed = Bed(heights_mm=[[40, 5], [30, 0]], material=SOLIDS["plaster"])
        spans = column_spans(TANK, bed, [figure(ball(15)), figure(ball(10), x=20, key="two")])
        x, y, z = np.linspace(0, 100, 9), np.linspace(0, 80, 8), np.array([0, 20, 33.0, 90])
        shares = solid_fractions(spans, [0, 1, 2, 2], x, y, z)
        self.assertEqual(shares.shape, (3, 3, 7, 8))
        self.assertLessEqual(float(shares.sum(axis=0).max()), 1 + 1e-9)
        mid_bed = float((spans.high - spans.low)[spans.what == BED].sum() * spans.area_mm2)
        columns = np.diff(x)[None, None] * np.diff(y)[None, :, None] * np.diff(z)[:, None, None]
        self.assertAlmostEqual(float((shares[1] * columns).sum()) / mid_bed, 1, delta=0.02)

    def test_lines_that_miss_see_nothing(self):
        away = figure(ball(5), x=-50)
        x = np.arange(0.5, 100)
        self.assertEqual(figure_chords(away, x, x), [])
