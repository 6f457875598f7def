import unittest
from math import pi, sqrt, tan

import numpy as np
from test_fill import FLAT, TANK

from gondola_core.answers.kept import Keeper
from gondola_core.errors import SceneError
from gondola_core.evaluate import evaluate
from gondola_core.polygon import polygon_area, polygon_perimeter, pushed_out
from gondola_core.samples import eelgrass
from gondola_core.scene import Chamfered, FreeShape, Regular, Round, Rounded, read_scene
from gondola_core.shape import tank_plan
from gondola_core.shape.columns import column_spans, free_volume_ml


def tank(**changes):
    return TANK.model_copy(update=changes)


class Outlines(unittest.TestCase):
    def test_areas(self):
        rows = [
            (TANK.shape, 8000),
            (Chamfered(kind="chamfered", corner_mm=10), 8000 - 4 * 50),
            (Rounded(kind="rounded", corner_mm=20), 8000 - (4 - pi) * 400),
            (Round(kind="round"), pi * 50 * 40),
            (FreeShape(kind="free", points_mm=[[0, 0], [100, 0], [0, 80]]), 4000),
        ]
        for shape, area in rows:
            with self.subTest(shape.kind):
                plan = tank_plan(tank(shape=shape))
                self.assertAlmostEqual(polygon_area(plan) / area, 1, delta=1e-9)
                spans = column_spans(tank(shape=shape), FLAT, [])
                volume = float(free_volume_ml(spans, np.array([90.0]))[0])
                self.assertAlmostEqual(volume / (area * 90 / 1000), 1, delta=1e-9)

    def test_regular_polygon_fits_its_box(self):
        side = 60.0
        hexagon = tank_plan(tank(
            shape=Regular(kind="regular", sides_count=6), inner_width_mm=2 * side,
            inner_behind_mm=sqrt(3) * side,
        ))
        lengths = np.linalg.norm(np.roll(hexagon, -1, axis=0) - hexagon, axis=1)
        np.testing.assert_allclose(lengths, side, atol=1e-9)
        # the flat side is to the front
        self.assertAlmostEqual(sorted(hexagon[:, 1])[1], 0.0)

    def test_pushed_out_square(self):
        grown = pushed_out(tank_plan(TANK), 5.0)
        self.assertAlmostEqual(polygon_area(grown), 110 * 90)
        self.assertAlmostEqual(polygon_perimeter(grown), 400)

    def test_leaning_walls_hold_a_frustum(self):
        for shape in (TANK.shape, Round(kind="round")):
            with self.subTest(shape.kind):
                leaning = tank(shape=shape, taper_deg=8.0, inner_behind_mm=100)
                out = 90 * tan(np.radians(8))
                grow = 2 * out / 100
                exact = 100 * 100 * (1 if shape.kind == "box" else pi / 4) * 90 * (
                    1 + (1 + grow) + (1 + grow) ** 2
                ) / 3 / 1000
                spans = column_spans(leaning, FLAT, [])
                found = float(free_volume_ml(spans, np.array([90.0]))[0])
                self.assertAlmostEqual(found / exact, 1, delta=0.002)


class InTheScene(unittest.TestCase):
    def test_a_round_tank_of_the_same_size_holds_less_and_stays_cooler(self):
        square = eelgrass()
        rounded = square.model_copy(
            update={"tank": square.tank.model_copy(update={"shape": Round(kind="round")})}
        )
        whole, less = (evaluate(one, keeper=Keeper()) for one in (square, rounded))
        share = less.whole.free_volume_ml / whole.whole.free_volume_ml
        self.assertAlmostEqual(share, pi / 4, delta=0.03)
        self.assertLessEqual(
            max(p.heat.cure.peak_c for p in less.pours), max(p.heat.cure.peak_c for p in whole.pours) + 0.3
        )
        self.assertLess(less.march.imbalance_fraction, 1e-3)

    def test_bad_shapes_get_a_sentence(self):
        document = eelgrass().model_dump(mode="json")
        rows = [
            ({"kind": "rounded", "corner_mm": 40}, "too large for its sides: 30 mm at most"),
            ({"kind": "free", "points_mm": [[0, 0], [60, 60], [60, 0], [0, 60]]}, "crosses"),
            ({"kind": "free", "points_mm": [[0, 0], [90, 0], [0, 60]]}, "outside its inner size"),
            ({"kind": "regular", "sides_count": 99}, "sides"),
            ({"kind": "star"}, "shape of the tank has to be 'box'"),
        ]
        import json

        for shape, words in rows:
            document["tank"]["shape"] = shape
            with self.subTest(words), self.assertRaises(SceneError) as caught:
                read_scene(json.dumps(document))
            self.assertIn(words, caught.exception.message)

    def test_a_scene_of_version_1_gets_its_shape(self):
        import json

        document = eelgrass().model_dump(mode="json")
        document["version"] = 1
        del document["tank"]["shape"]
        document["tank"]["kind"] = "box"
        self.assertEqual(read_scene(json.dumps(document)).tank.shape.kind, "box")
