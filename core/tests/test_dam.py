import io
import unittest
from math import pi, tan

import ezdxf
from test_fill import SOLIDS, TANK

from gondola_core.dam import (
    PourOnDam,
    bulge,
    cut_list,
    dam_facts,
    least_thickness,
    nest,
    plate_coefficients,
    top_load_share,
)
from gondola_core.dam.facts import climb_height_mm, climb_mm2
from gondola_core.dam.nest import dxf_of, svg_of
from gondola_core.dam.plates import warm_stiffness_gpa
from gondola_core.errors import GondolaError
from gondola_core.scene import Chamfered, Cutting, FreeShape, Regular, Round, Rounded


def tank(**changes):
    return TANK.model_copy(update=changes)


def with_wall(thickness, **changes):
    return tank(wall=TANK.wall.model_copy(update={"thickness_mm": thickness}), **changes)


class Plates(unittest.TestCase):
    def test_table_rows_and_between(self):
        rows = [("CCCF", 2, 0.00845), ("CCCF", 4, 0.0275), ("SSSF", 1, 0.00382),
                ("SSCF", 3, 0.02602), ("SSSS", 1, 0.00205)]
        for edges, ratio, alpha in rows:
            with self.subTest(edges, ratio=ratio):
                self.assertAlmostEqual(
                    plate_coefficients(ratio, edges)[0] / alpha, 1, delta=0.003
                )
        between = plate_coefficients(2.4, "CCCF")[0]
        self.assertTrue(0.00845 < between < 0.0201)

    def test_bulge_of_known_panels(self):
        rows = [  # length, depth, thickness mm; stiffness GPa; firm and loose bulge mm
            (200, 50, 3, 3.0, 0.01, 0.10), (200, 100, 3, 3.0, 0.12, 0.54),
            (300, 100, 3, 0.9, 0.94, 5.3), (300, 150, 5, 8.0, 0.07, 0.33),
            (500, 150, 10, 1.4, 0.14, 0.90),
        ]
        for length, depth, thick, stiff, firm, loose in rows:
            with self.subTest(length=length, depth=depth, thick=thick):
                given = (length / 1e3, depth / 1e3, thick / 1e3, stiff * 1e9, 1100.0)
                self.assertAlmostEqual(bulge(*given, "CCCF")[0] * 1e3, firm, delta=0.02 * firm + .006)
                self.assertAlmostEqual(bulge(*given, "SSSF")[0] * 1e3, loose, delta=0.02 * loose + .006)

    def test_least_thickness_gives_just_that_bulge(self):
        rows = [(200, 100, 3.0, "SSCF", 2.3), (300, 100, 0.9, "SSCF", 4.0),
                (300, 150, 8.0, "SSCF", 3.3), (500, 150, 1.4, "CCCS", 3.1)]
        for length, depth, stiff, edges, expected in rows:
            with self.subTest(length=length, edges=edges):
                given = (length / 1e3, depth / 1e3)
                thick = least_thickness(*given, stiff * 1e9, 1100.0, edges, 5e-4)
                self.assertAlmostEqual(thick * 1e3, expected, delta=0.06)
                self.assertAlmostEqual(
                    bulge(*given, thick, stiff * 1e9, 1100.0, edges)[0] * 1e3, 0.5, places=6
                )

    def test_sheets_soften_and_creep(self):
        pp = SOLIDS["polypropylene"]
        cold, warm = warm_stiffness_gpa(pp, 20, 0.1), warm_stiffness_gpa(pp, 60, 24)
        self.assertAlmostEqual(cold, 1.4)
        self.assertAlmostEqual(cold / warm, 1 / (0.4 * 0.45), places=6)
        self.assertIsNone(warm_stiffness_gpa(SOLIDS["plaster"], 20))


class CutLists(unittest.TestCase):
    def test_a_box_closes_exactly_in_any_thickness(self):
        for thick in (0.8, 3, 5, 6.35):
            for corner in ("front_over_sides", "pinwheel"):
                with self.subTest(thick, corner=corner):
                    cuts = cut_list(with_wall(thick, cutting=Cutting(corner=corner)))
                    front, sides, base = cuts.panels
                    over = 2 * thick if corner == "front_over_sides" else thick
                    self.assertAlmostEqual(front.width_mm - over, 100)
                    side_over = 0 if corner == "front_over_sides" else thick
                    self.assertAlmostEqual(sides.width_mm - side_over, 80)
                    # outer faces: along the front, and from front to back
                    across = front.width_mm + (0 if corner == "front_over_sides" else thick)
                    away = sides.width_mm + (2 * thick if corner == "front_over_sides" else thick)
                    self.assertAlmostEqual(across, base.width_mm)
                    self.assertAlmostEqual(away, base.height_mm)
                    self.assertAlmostEqual(cuts.outer_width_mm, across)

    def test_worked_example(self):
        example = with_wall(
            5.0, inner_width_mm=200, inner_behind_mm=120, wall_height_mm=72, fill_height_mm=60,
        )
        cuts = cut_list(example)
        self.assertEqual(
            [(p.count, p.width_mm, p.height_mm) for p in cuts.panels],
            [(2, 210, 72), (2, 120, 72), (1, 210, 130)],
        )
        self.assertEqual(cuts.strip_mm, 666)

    def test_hexagon(self):
        # inner radius to the corner 60, sheet 5: inner face 60, outer 60 + 2*5*tan(30)
        width = 120.0
        cuts = cut_list(with_wall(
            5.0, inner_width_mm=width, inner_behind_mm=width * 3**0.5 / 2,
            shape=Regular(kind="regular", sides_count=6),
        ))
        panel = cuts.panels[0]
        self.assertEqual(sum(p.count for p in cuts.panels[:-1]), 6)
        self.assertAlmostEqual(panel.width_mm, 60 + 10 * tan(pi / 6), delta=0.01)
        self.assertAlmostEqual(panel.bevel_left_deg, 30, delta=0.01)

    def test_round_and_other_shapes(self):
        rolled = cut_list(with_wall(
            1.0, inner_width_mm=110, inner_behind_mm=110, shape=Round(kind="round")
        ))
        self.assertAlmostEqual(rolled.panels[0].width_mm, 363.72, delta=0.01)
        rows = [(Chamfered(kind="chamfered", corner_mm=15), 8),
                (Rounded(kind="rounded", corner_mm=15), 1),
                (FreeShape(kind="free", points_mm=[[0, 0], [100, 0], [100, 80], [40, 60]]), 4)]
        for shape, walls in rows:
            with self.subTest(shape.kind):
                cuts = cut_list(tank(shape=shape))
                self.assertEqual(sum(p.count for p in cuts.panels if p.from_sheet == "wall"), walls)
        self.assertEqual(cut_list(tank(taper_deg=5.0)).panels, [])


class Sheets(unittest.TestCase):
    def test_nested_panels_keep_a_saw_cut_apart_and_inside(self):
        for shape in (TANK.shape, Regular(kind="regular", sides_count=5)):
            with self.subTest(shape.kind):
                one = tank(shape=shape)
                cuts = cut_list(one)
                sheets = nest(cuts, one)
                self.assertEqual(
                    sum(len(sheet.laid) for sheet in sheets), sum(p.count for p in cuts.panels)
                )
                for sheet in sheets:
                    for i, a in enumerate(sheet.laid):
                        self.assertGreaterEqual(min(a.x_mm, a.y_mm), 0)
                        self.assertLessEqual(a.x_mm + a.width_mm, sheet.width_mm + 0.01)
                        self.assertLessEqual(a.y_mm + a.height_mm, sheet.height_mm + 0.01)
                        for b in sheet.laid[i + 1:]:
                            gap = max(
                                b.x_mm - a.x_mm - a.width_mm, a.x_mm - b.x_mm - b.width_mm,
                                b.y_mm - a.y_mm - a.height_mm, a.y_mm - b.y_mm - b.height_mm,
                            )
                            self.assertGreaterEqual(gap, 2.0 - 0.01)

    def test_dxf_opens_and_its_audit_finds_nothing(self):
        for shape in (TANK.shape, Regular(kind="regular", sides_count=7), Round(kind="round")):
            with self.subTest(shape.kind):
                one = tank(shape=shape)
                cuts = cut_list(one)
                text = dxf_of(cuts, nest(cuts, one))
                document = ezdxf.read(io.StringIO(text))
                self.assertEqual(document.audit().errors, [])
                cut = [e for e in document.modelspace() if e.dxf.layer == "CUT"]
                self.assertEqual(len(cut), sum(p.count for p in cuts.panels))

    def test_svg_is_to_scale(self):
        cuts = cut_list(TANK)
        drawn = svg_of(nest(cuts, TANK), "cut list")
        self.assertIn('width="600mm"', drawn)
        self.assertIn("front and back 10", drawn)

    def test_a_panel_larger_than_the_sheet_is_named(self):
        small = tank(cutting=Cutting(sheet_mm=[90.0, 90.0]))
        with self.assertRaisesRegex(GondolaError, "Front and back of 106 mm x 100 mm does not fit"):
            nest(cut_list(small), small)


def whole(of, wall_c=None):
    return pours(of, [of.fill_height_mm], wall_c)


def pours(of, lines_mm, wall_c=None):
    return [
        PourOnDam(number=number, floor_mm=floor, line_mm=line, density_g_ml=1.1, wall_c=wall_c)
        for number, (floor, line) in enumerate(zip([0.0, *lines_mm], lines_mm, strict=False), start=1)
    ]


class Staged(unittest.TestCase):
    """A pour presses by its own depth: the same bulge was told for one pour, two and four."""

    WALL = with_wall(3.0, inner_width_mm=200, fill_height_mm=100)

    def low(self, lines, release):
        of = self.WALL.model_copy(update={"release": release})
        return next(load.bulge_low_mm for load in dam_facts(of, pours(of, lines, 23.0)).loads
                    if load.name == "front and back")

    def test_share_of_a_load_on_the_upper_half(self):
        # clamped panels twice as long as high, by plate elements: 0.67
        self.assertAlmostEqual(top_load_share(0.5), 0.67, delta=0.02)
        self.assertAlmostEqual(top_load_share(1.0), 1.0)
        self.assertEqual(top_load_share(0.0), 0.0)

    def test_one_pour_two_and_four(self):
        lines = [[100.0], [50.0, 100.0], [25.0, 50.0, 75.0, 100.0]]
        bonded = [self.low(one, "none") for one in lines]
        waxed = [self.low(one, "wax") for one in lines]
        self.assertAlmostEqual(bonded[0], waxed[0])
        # bonded to the layer below, its own depth: 0.10 of the whole at one half
        self.assertAlmostEqual(bonded[1] / bonded[0], 0.10, delta=0.06)
        self.assertAlmostEqual(waxed[1] / waxed[0], 0.66, delta=0.06)
        self.assertLess(bonded[2], bonded[1])
        self.assertLess(waxed[2], waxed[1])

    def test_beyond_the_law_no_number_is_told(self):
        foam = tank(wall=TANK.wall.model_copy(update={"material": SOLIDS["pvc-foam"], "thickness_mm": 3.0}),
                    inner_width_mm=500, fill_height_mm=95)
        load = dam_facts(foam, whole(foam, 75.0)).loads[0]
        self.assertIsNone(load.bulge_high_mm)
        self.assertIsNone(load.bulge_low_mm)
        self.assertGreater(load.least_thickness_mm, 5.0)


class Facts(unittest.TestCase):
    def test_warm_walls_bulge_more_and_round_ones_not(self):
        cold, warm = dam_facts(TANK, whole(TANK, 23.0)), dam_facts(TANK, whole(TANK, 70.0))
        self.assertGreater(warm.loads[0].bulge_high_mm, 1.5 * cold.loads[0].bulge_high_mm)
        self.assertGreater(warm.loads[0].least_thickness_mm, cold.loads[0].least_thickness_mm)
        can = tank(shape=Round(kind="round"), inner_width_mm=110, inner_behind_mm=110,
                   wall=TANK.wall.model_copy(update={"thickness_mm": 1.0}), fill_height_mm=100)
        rolled = dam_facts(can, whole(can))
        self.assertEqual(rolled.loads, [])
        self.assertAlmostEqual(rolled.hoop_mpa, 0.059, delta=0.001)

    def test_ribs_are_enough(self):
        long = with_wall(2.0, inner_width_mm=500, fill_height_mm=95)
        load = dam_facts(long, whole(long, 23.0)).loads[0]
        self.assertGreater(load.ribs_count, 0)
        bay = 0.5 / (load.ribs_count + 1)
        stiff = warm_stiffness_gpa(TANK.wall.material, 23.0) * 1e9
        self.assertLessEqual(bulge(bay, 0.095, 0.002, stiff, 1100, "CCCF")[0] * 1e3, 0.5)

    def test_climb_of_resin_at_the_wall(self):
        for angle, high, area in ((0, 2.72, 3.71), (20, 2.21, 3.48), (40, 1.63, 2.84)):
            with self.subTest(angle):
                self.assertAlmostEqual(climb_height_mm(1.1, angle), high, delta=0.01)
                self.assertAlmostEqual(climb_mm2(1.1, angle), area, delta=0.01)
