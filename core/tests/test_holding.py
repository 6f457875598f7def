import unittest

from test_fill import figure

from gondola_core.holding.facts import figure_facts
from gondola_core.holding.laws import buckling_force, cantilever_bend, least_diameter, lift_force, shell_inside
from gondola_core.holding.load import TACK_KPA, Wetting, figure_mass_g, worst_load
from gondola_core.holding.ways import Nearby, ways_in_order
from gondola_core.materials import load_library
from gondola_core.scene import Ellipsoid, Hold, Hollow
from gondola_core.shape import Bulk, figure_bulk

LIBRARY = load_library()
DEEP_G_ML = LIBRARY.resins["deep"].density_g_ml
BALL = Ellipsoid(kind="ellipsoid", centre_mm=[0, 0, 0], radii_mm=[10, 10, 10])


def facts(body, **more):
    near = Nearby(**{
        "gap_below_mm": 40.0, "line_below_mm": 0.5, "contact_cm2": 1.0, "layer_is_stiff": True,
        "room_above_mm": 20.0, "peak_c": 32.0,
    } | more)
    bulk = figure_bulk(body, {})
    return figure_facts(body, bulk, worst_load(body, bulk, [pour(1, 0.0, 1000.0)]), near, above_ml=0.0, trapped_ml=0.0)


def pour(number, floor_mm, line_mm, air=(0.0, 0.0), resin=LIBRARY.resins["deep"]):
    return Wetting(
        number=number, resin=resin, floor_mm=floor_mm, line_mm=line_mm,
        air_below_floor_ml=air[0], air_below_line_ml=air[1],
    )


def way(fact, name):
    return next(one for one in fact.ways if one.way == name)


class Laws(unittest.TestCase):
    def test_worked_numbers(self):
        rows = [
            ("balsa fish", lift_force(20e-6, 3.2e-3, 1100), 0.1844, 1e-4),
            ("hollow print", lift_force(30e-6, 14e-3, 1100), 0.186, 1e-3),
            ("foam terrain", lift_force(1e-3, 0.035, 1100), 10.44, 0.01),
            ("steel wire", cantilever_bend(0.1844, 0.04, 0.001, 200e9) * 1e3, 0.401, 1e-3),
            ("brass inclined", cantilever_bend(0.1844 * 0.5, 0.06, 0.0008, 100e9) * 1e3, 3.30, 0.01),
            ("buckling", buckling_force(0.06, 0.0008, 200e9), 2.76, 0.01),
            ("least steel", least_diameter(0.2, 0.05, 200e9, 5e-4) * 1e3, 1.14, 0.005),
            ("least brass", least_diameter(0.2, 0.05, 100e9, 5e-4) * 1e3, 1.36, 0.005),
            ("least stem", least_diameter(0.2, 0.05, 2.5e9, 5e-4) * 1e3, 3.4, 0.05),
        ]
        for name, found, expected, within in rows:
            with self.subTest(name):
                self.assertAlmostEqual(found, expected, delta=within)

    def test_shell_of_a_ball_is_exact(self):
        volume, area = 4 / 3 * 3.14159265 * 1e3, 4 * 3.14159265 * 1e2
        self.assertAlmostEqual(shell_inside(volume, area, 2.0) / (volume * 0.8**3), 1, places=6)
        self.assertEqual(shell_inside(volume, area, 50.0), 0.0)


class Figures(unittest.TestCase):
    def test_what_floats_and_what_sinks(self):
        rows = [("balsa", "floats"), ("polystyrene", "drifts"),
                ("polymer-clay", "sinks"), ("abs", "floats"), ("steel", "sinks")]
        for material, behaves in rows:
            with self.subTest(material):
                body = figure(BALL).model_copy(update={"material": LIBRARY.solids[material]})
                self.assertEqual(facts(body).behaves, behaves)

    def test_one_gram_per_millilitre_is_one_gram_force(self):
        body = figure(BALL).model_copy(update={"mass_g": 0.001})
        fact = facts(body)
        self.assertAlmostEqual(fact.lift_gf, 4.18879 * DEEP_G_ML - 0.001, places=2)
        self.assertGreater(fact.ballast_g, fact.lift_gf)

    def test_a_light_hollow_print_floats_and_vented_sinks(self):
        clay = figure(BALL).model_copy(update={"material": LIBRARY.solids["printed-resin"]})
        sealed = clay.model_copy(update={"hollow": Hollow(wall_mm=1.0)})
        vented = clay.model_copy(update={"hollow": Hollow(wall_mm=1.0, vented=True)})
        mass, displaced, inside = figure_mass_g(sealed, figure_bulk(sealed, {}))
        self.assertAlmostEqual(inside / (4.18879 * 0.9**3), 1, delta=0.01)
        self.assertAlmostEqual(displaced, 4.18879, places=4)
        self.assertAlmostEqual(mass, 1.18 * (displaced - inside), places=6)
        self.assertAlmostEqual(
            facts(sealed).lift_gf, DEEP_G_ML * displaced - mass, delta=0.002
        )
        self.assertEqual(facts(sealed).behaves, "floats")
        self.assertEqual(facts(vented).behaves, "sinks")

    def test_each_way_passes_or_fails_with_its_number(self):
        balsa = figure(BALL).model_copy(update={"material": LIBRARY.solids["balsa"]})
        light, heavy = facts(balsa), facts(figure(BALL))
        rows = [
            ("floats off the bed", way(light, "on_bed"), False),
            ("hangs over it", way(heavy, "on_bed"), False),
            ("stands on it", way(facts(figure(BALL), gap_below_mm=0.2), "on_bed"), True),
            ("tack of 1 cm2 carries 20 gf", way(light, "staged"), True),
            ("little contact", way(facts(balsa, contact_cm2=0.1), "staged"), False),
            ("no line below", way(facts(balsa, line_below_mm=None), "staged"), False),
            ("liquid below", way(facts(balsa, layer_is_stiff=False), "staged"), False),
            ("stem of 3 mm", way(light, "stem"), True),
            ("the same stem, warm", way(facts(balsa, peak_c=70.0), "stem"), False),
            ("thin wire", way(facts(balsa.model_copy(
                update={"hold": Hold(wire_mm=0.3, wire="brass")})), "wire"), False),
            ("line against a floater", way(light, "line"), False),
            ("line for a sinker", way(heavy, "line"), True),
            ("glue spot too small", way(light, "glue_spot"), False),
            ("large enough", way(facts(balsa.model_copy(
                update={"hold": Hold(glue_mm2=60)})), "glue_spot"), True),
            ("but warm", way(facts(balsa.model_copy(
                update={"hold": Hold(glue_mm2=600)}), peak_c=48.0), "glue_spot"), False),
            ("pin far from the bed", way(light, "pin"), False),
            ("pin near it", way(facts(balsa, gap_below_mm=1.0), "pin"), True),
        ]
        for name, told, holds in rows:
            with self.subTest(name):
                self.assertEqual(told.holds, holds, told.sentence)
                self.assertTrue(told.sentence.said())

    def test_every_way_that_a_scene_can_name_is_registered(self):
        from typing import get_args

        from gondola_core.scene import Figure

        named = get_args(Figure.model_fields["holding"].annotation)
        self.assertEqual(list(ways_in_order()), list(named))
        self.assertEqual([one.way for one in facts(figure(BALL)).ways], list(named))

    def test_bulk_stands_wherever_the_figure_does(self):
        near, far = figure(BALL), figure(BALL, x=10, height=80)
        self.assertIsInstance(figure_bulk(near, {}), Bulk)
        self.assertEqual(figure_bulk(near, {}).volume_ml, figure_bulk(far, {}).volume_ml)


class Moments(unittest.TestCase):
    """Loads at each level of each pour, of a ball of 10 mm radius standing on a floor."""

    VOLUME_ML = 4.18879

    def load_gf(self, material, *pours, height=10.0):
        body = figure(BALL, height=height).model_copy(update={"material": LIBRARY.solids[material]})
        load = worst_load(body, figure_bulk(body, {}), pours)
        return load.force / 9.80665e-3, load.pour

    def test_a_ball_half_out_of_the_water_was_lifted_by_its_whole_volume(self):
        # polystyrene of 1.05: half its volume in resin of 1.10
        lift, number = self.load_gf("polystyrene", pour(1, 0.0, 10.0))
        self.assertAlmostEqual(lift, self.VOLUME_ML * (DEEP_G_ML / 2 - 1.05), delta=0.02)
        self.assertEqual(number, 1)
        whole, _ = self.load_gf("polystyrene", pour(1, 0.0, 25.0))
        self.assertAlmostEqual(whole, self.VOLUME_ML * (DEEP_G_ML - 1.05), delta=0.01)

    def test_levels_of_a_light_ball(self):
        # bottom 2 mm, centre, full, for a density of 0.5: sinks, lifts at about half, lifts
        clay = LIBRARY.solids["balsa"].model_copy(update={"density_g_ml": 0.5})
        body = figure(BALL, height=10.0).model_copy(update={"material": clay})
        resin = LIBRARY.resins["deep"].model_copy(update={"measured_density_g_ml": 1.1})
        for line, millinewton in ((2.0, -19.3), (10.0, 2.05), (20.0, 24.6)):
            with self.subTest(line):
                load = worst_load(body, figure_bulk(body, {}), [pour(1, 0.0, line, resin=resin)])
                self.assertAlmostEqual(load.force * 1e3, millinewton, delta=0.15)

    def test_what_set_resin_holds_is_taken_off(self):
        floats_whole, _ = self.load_gf("balsa", pour(1, 0.0, 20.0))
        in_two, number = self.load_gf("balsa", pour(1, 0.0, 10.0), pour(2, 10.0, 20.0))
        first, _ = self.load_gf("balsa", pour(1, 0.0, 10.0))
        self.assertLess(in_two, floats_whole)
        self.assertAlmostEqual(in_two, first, places=6)
        self.assertEqual(number, 1)
        hold_gf = TACK_KPA * 1e3 * 2 * 3.14159 * 0.01**2 / 9.80665e-3
        self.assertGreater(hold_gf, floats_whole / 2)

    def test_laid_on_a_set_layer_it_is_lifted_whole(self):
        laid, number = self.load_gf("balsa", pour(1, 0.0, 30.0), pour(2, 30.0, 60.0), height=40.0)
        self.assertAlmostEqual(laid, self.VOLUME_ML * (DEEP_G_ML - 0.16), delta=0.02)
        self.assertEqual(number, 2)

    def test_air_shut_in_under_a_hull_was_not_counted(self):
        lift, _ = self.load_gf("polymer-clay", pour(1, 0.0, 40.0, air=(0.0, 17.3)))
        without, _ = self.load_gf("polymer-clay", pour(1, 0.0, 40.0))
        self.assertAlmostEqual(lift - without, 17.3 * DEEP_G_ML, delta=0.01)

    def test_above_the_water_only_its_weight_is_left(self):
        lift, number = self.load_gf("steel", pour(1, 0.0, 20.0), height=80.0)
        self.assertIsNone(number)
        self.assertAlmostEqual(lift, -self.VOLUME_ML * 7.85, delta=0.2)


class InTheScene(unittest.TestCase):
    def test_an_upturned_hull_on_the_bed_rises_by_its_air_and_is_a_stop(self):
        from gondola_core.answers.kept import Keeper
        from gondola_core.evaluate import DRAFT, evaluate
        from gondola_core.samples import quarry_pool
        from gondola_core.scene import Hull, Place

        scene = quarry_pool()
        hull = figure(Hull(kind="hull", length_mm=70, beam_mm=30, depth_mm=18, wall_mm=1.5), key="boat").model_copy(
            update={"roll_deg": 180.0, "place": Place(x_mm=60, behind_mm=50, height_mm=70.0), "holding": "on_bed",
                    "material": LIBRARY.solids["printed-resin"]}
        )
        outcome = evaluate(scene.model_copy(update={"figures": [hull]}), DRAFT, Keeper())
        fact = outcome.figures[0]
        self.assertGreater(fact.trapped_ml, 5.0)
        self.assertAlmostEqual(
            fact.lift_gf, DEEP_G_ML * (fact.volume_ml + fact.trapped_ml) - fact.mass_g, delta=0.05 * fact.trapped_ml
        )
        self.assertFalse(next(way for way in fact.ways if way.way == "on_bed").holds)
        self.assertIn(("not_held", "stop"), [(flag.code, flag.severity) for flag in outcome.flags])
