"""The look against closed forms: refraction, mirrors, energy, attenuation, seams, ripples, sanding, and its bytes."""

import unittest
from itertools import pairwise
from math import asin, cos, degrees, radians, sin, sqrt, tan

import numpy as np
from changed import changed
from plain_block import DEEP, HIGH, WIDE, plain_block, plain_world, seen

from gondola_core.answers.book import Book
from gondola_core.answers.kept import Keeper
from gondola_core.errors import GondolaError
from gondola_core.materials import load_library
from gondola_core.samples import eelgrass, quarry_pool
from gondola_core.scene import RippledTop
from gondola_core.tint import water_of
from gondola_core.tint.colour import colour_difference, lab_of_linear, linear_srgb
from gondola_core.units import MM
from gondola_core.views.look import bake
from gondola_core.views.look.around import panel_share, rule_of
from gondola_core.views.look.bands import _recipes, all_bands, fitted_bands
from gondola_core.views.look.block import block_of, waves_of
from gondola_core.views.look.bubbles_drawn import _bent, crossing
from gondola_core.views.look.bvh import nearest, tree_of
from gondola_core.views.look.chain import leaves, look_along, wade
from gondola_core.views.look.fooled import fooled, opens_at_deg, ripple_shift_mm, seems_behind
from gondola_core.views.look.look import CARES, DRAFT, MOVING, Asked, drawn, lit_world, look, tinted
from gondola_core.views.look.optics import blur_mm, facet, facet_slope, mirrored
from gondola_core.views.look.stand import Stand, camera_of, eye_place, usual_stand
from gondola_core.views.look.world import LIGHT, SOURCE, desk_for

N = 1.52
FRONT = (0.0, -1.0, 0.0)


def apparent(outside, along=False):
    """Apparent depth over the true one, at an angle: cos o/(n cos i), for eyes along the slant cubed."""
    inside = asin(sin(radians(outside)) / N)
    power = 3 if along else 1
    return cos(radians(outside)) ** power / (N * cos(inside) ** power)


def outside_of(degrees_, aim=(WIDE / 2, 0.0, HIGH / 2), far=400.0):
    """An eye that looks at a place of the front so many degrees to the side, and its way."""
    turn = radians(degrees_)
    way = np.array([sin(turn), cos(turn), 0.0])
    return np.array(aim) - far * way, way


class Refraction(unittest.TestCase):
    def test_on_axis_a_thing_seems_at_its_depth_over_the_index(self):
        for index, behind in ((1.5, 60.0), (1.52, 60.0), (1.57, 30.0)):
            with self.subTest(index=index, behind=behind):
                eye, place = np.array([100.0, -400.0, 60.0]), np.array([100.0, behind, 60.0])
                seems = seems_behind(eye, place, np.array(FRONT), 0.0, index)
                self.assertAlmostEqual(seems, behind / index, delta=0.01 * behind)

    def test_at_a_slant_as_the_table_has_it(self):
        for outside, across, along in ((0, 0.658, 0.658), (30, 0.603, 0.507), (45, 0.526, 0.335), (60, 0.400, 0.148)):
            with self.subTest(outside):
                self.assertAlmostEqual(apparent(outside), across, places=3)
                self.assertAlmostEqual(apparent(outside, along=True), along, places=3)

    def test_two_eyes_beside_the_front_see_a_thing_as_the_law_along_the_slant_has_it(self):
        for outside in (20, 40, 55):
            with self.subTest(outside):
                place = np.array([100.0, 50.0, 60.0])
                foot = place[0] - 50.0 * tan(asin(sin(radians(outside)) / N))
                turn = radians(outside)
                eye = np.array([foot, 0.0, 60.0]) - 3000.0 * np.array([sin(turn), cos(turn), 0.0])
                seems = seems_behind(eye, place, np.array(FRONT), 0.0, N)
                self.assertAlmostEqual(seems / 50.0, apparent(outside, along=True), delta=0.004)

    def test_rays_through_the_front_land_where_snell_sends_them(self):
        for outside in (0, 15, 30, 45, 60):
            with self.subTest(outside):
                inside = asin(sin(radians(outside)) / N)
                land = WIDE / 2 + 70.0 * tan(inside)
                for off, hit in ((0.0, 1.0), (1.5, 0.0)):
                    x = land + off
                    patch = np.array([[[x - 1, 70, 50], [x + 1, 70, 50], [x, 70, 75]]])
                    eye, way = outside_of(outside)
                    got = seen(plain_world(corners=patch), eye, way)
                    share, _ = mirrored(cos(radians(outside)), 1 / N)
                    self.assertAlmostEqual(got, hit * (1 - share), delta=0.02)

    def test_the_crossing_obeys_snell(self):
        rows = ((np.array([-250.0, -300.0, 180.0]), np.array([120.0, 60.0, 20.0])),
                (np.array([400.0, -200.0, 60.0]), np.array([10.0, 90.0, 100.0])))
        for eye, place in rows:
            with self.subTest(eye=eye.tolist()):
                at = np.array(crossing(tuple(eye), tuple(place), FRONT, 0.0, N))
                out, into = (at - eye) / np.linalg.norm(at - eye), (place - at) / np.linalg.norm(place - at)
                self.assertAlmostEqual(sqrt(1 - out[1] ** 2), N * sqrt(1 - into[1] ** 2), places=9)
                self.assertAlmostEqual(float(at[1]), 0.0, places=9)

    def test_without_an_index_the_block_is_not_there(self):
        world = plain_world(plain_block(index=1.0 + 1e-12), wall=1.0, shelf=0.5)
        for degrees_ in (0, 30, 70):
            with self.subTest(degrees_):
                self.assertAlmostEqual(seen(world, *outside_of(degrees_)), 1.0, places=6)


class Mirrors(unittest.TestCase):
    def test_fresnel_as_the_table_has_it(self):
        for outside, share in ((0, 0.0426), (30, 0.0441), (45, 0.0530), (60, 0.0925), (75, 0.257)):
            with self.subTest(outside):
                self.assertAlmostEqual(mirrored(cos(radians(outside)), 1 / N)[0], share, delta=0.0005)

    def test_total_reflection_begins_at_the_critical_angle(self):
        for index, critical in ((1.50, 41.81), (1.52, 41.14), (1.57, 39.56)):
            with self.subTest(index):
                self.assertEqual(mirrored(cos(radians(critical + 0.02)), index)[0], 1.0)
                self.assertLess(mirrored(cos(radians(critical - 0.02)), index)[0], 1.0)

    def test_no_ray_from_the_front_of_a_square_block_leaves_by_side_top_or_floor(self):
        for degrees_ in np.linspace(0, 89.9, 60):
            sideways = sin(radians(degrees_)) / N
            self.assertEqual(mirrored(sideways, N)[0], 1.0)
        self.assertIsNone(opens_at_deg(np.array([0, -1.0, 0]), np.array([1.0, 0, 0]), N))

    def test_a_hexagon_and_an_octagon_open_at_their_angles(self):
        for apart, opens in ((120.0, 29.5), (135.0, 5.9)):
            with self.subTest(apart):
                turn = radians(apart)
                face = np.array([sin(turn), -cos(turn), 0.0])
                self.assertAlmostEqual(opens_at_deg(np.array([0, -1.0, 0]), face, N), opens, delta=0.1)

    def test_the_traced_hexagon_opens_there_too(self):
        turn = np.radians(-120 + 60 * np.arange(6))
        corners = np.stack([100 + 100 * np.cos(turn), 87 + 100 * np.sin(turn)], axis=1)
        block = plain_block(corners.tolist())
        for outside, is_open in ((27.0, False), (33.0, True)):
            with self.subTest(outside):
                inside = asin(sin(radians(outside)) / N)
                way = (sin(inside), cos(inside), 0.0)
                _, face = leaves(block, (140.0, 1.0, 60.0), way)
                toward = float(block.planes[face, :3] @ np.array(way))
                self.assertEqual(mirrored(toward, N)[0] < 1.0, is_open)

    def test_a_fish_at_the_edge_is_seen_again_in_the_side(self):
        document = quarry_pool()
        scene = changed(document, figures__1__place__x_mm=160.0, figures__1__place__behind_mm=60.0)
        for azimuth, doubled in ((-30.0, True), (0.0, False)):
            with self.subTest(azimuth):
                moved = scene if doubled else document
                found = fooled(Book(moved), usual_stand(moved, azimuth))
                pike = next(one for one in found.figures if one.figure_id == "pike")
                self.assertEqual("right" in pike.mirrored_in, doubled)
                self.assertEqual(any("second time" in said.said() for said in pike.words), doubled)


class Reading(unittest.TestCase):
    def test_how_far_back_a_shape_is_read(self):
        scene = quarry_pool()
        inky = {
            f"pours__{number}__doses__{at}__dose_drops_per_100g": 12 * dose.dose_drops_per_100g
            for number, pour in enumerate(scene.pours) for at, dose in enumerate(pour.doses)
        }
        for changes, told in (({}, "all the way to the back"), (inky, "read as far as|is lost beyond")):
            with self.subTest(told):
                moved = changed(scene, **changes)
                wagon = fooled(Book(moved), usual_stand(moved)).figures[0]
                self.assertRegex(wagon.words[-1].said(), told)


class Energy(unittest.TestCase):
    def test_an_empty_block_in_one_radiance_is_invisible(self):
        world = plain_world(room=0.7, wall=0.7, shelf=0.7)
        random = np.random.default_rng(3)
        for _ in range(400):
            eye = np.array([WIDE / 2, DEEP / 2, HIGH / 2]) + 500 * (lambda v: v / np.linalg.norm(v))(
                random.normal(size=3) * [1, 1, 0.5])
            eye[2] = abs(eye[2]) + 1
            aim = random.uniform([0, 0, 0], [WIDE, DEEP, HIGH])
            self.assertAlmostEqual(seen(world, eye, aim - eye), 0.7, delta=0.0035)

    def test_a_black_inside_in_a_white_room_reads_what_the_face_mirrors(self):
        patch = np.array([[[-500.0, 0.01, -500], [900, 0.01, -500], [0, 0.01, 1500]]])
        world = plain_world(room=1.0, wall=1.0, shelf=1.0, corners=patch, light=0.0)
        for outside, share in ((0, 0.0426), (45, 0.0530), (60, 0.0925)):
            with self.subTest(outside):
                self.assertAlmostEqual(seen(world, *outside_of(outside)), share, delta=0.0006)

    def test_a_lit_wall_through_parallel_faces(self):
        rows = ((0, 0.9183, 0.6150, 0.2761), (30, 0.9154, 0.5987, 0.2564), (45, 0.8993, 0.5714, 0.2312),
                (60, 0.8307, 0.5079, 0.1913))
        for outside, *wanted in rows:
            for taken, value in zip((0.0, 0.004, 0.012), wanted, strict=True):
                with self.subTest(outside=outside, taken=taken):
                    wide = plain_block(((-3000, 0), (3000, 0), (3000, DEEP), (-3000, DEEP)))
                    got = seen(plain_world(wide, wall=1.0, taken_mm=taken), *outside_of(outside))
                    self.assertAlmostEqual(got, value, delta=0.001)

    def test_a_white_furnace_comes_up_to_one_and_never_over_it(self):
        scene = quarry_pool()
        world, _ = lit_world(scene, Asked(usual_stand(scene), 64, 40, MOVING), {}, Keeper())
        world.bodies.vertex[:, :3], world.bodies.vertex[:, 3], world.bodies.vertex[:, LIGHT:] = 1.0, 0.0, 0.0
        world.water.cells[:] = 0.0
        spectra = world.spectra.copy()
        spectra[:, 3:6] = 1 / 3
        spectra[:, 6:] = 1.0
        maps = np.ones_like(world.around.maps)
        around = world.around._replace(room=(1.0, 0.0), wall=(world.around.wall[0], 1e9, 0.0), maps=maps,
                                       lamp=(*world.around.lamp[:5], 0.0), rule=(0.0, 0.0, 10.0, 0.0))
        world = world._replace(around=around, spectra=spectra)
        corner = world.bodies.corner[::37]
        middle, facing = self._points(world, corner)
        before = 0.0
        for _ in range(16):
            light = bake.gathered(world, middle, facing, 32, lambda: None)
            world.bodies.vertex[:, LIGHT:] = light.mean()
            self.assertLessEqual(float(light.max()), 1.0 + 1e-4)
            self.assertGreaterEqual(float(light.mean()), before - 1e-6)
            before = float(light.mean())
        self.assertAlmostEqual(before, 1.0, delta=0.01)

    def _points(self, world, corner):
        triangles = world.bodies.tree.triangles[::37].astype(float)
        middle = triangles[:, :3] + (triangles[:, 3:6] + triangles[:, 6:]) / 3
        facing = np.cross(triangles[:, 3:6], triangles[:, 6:])
        facing /= np.maximum(np.linalg.norm(facing, axis=1), 1e-12)[:, None]
        self.assertEqual(len(middle), len(corner))
        return middle, np.ascontiguousarray(facing)

    def test_the_share_of_a_panel_is_that_of_rays(self):
        u = (np.arange(400) + 0.5) / 400
        x, y = np.meshgrid((2 * u - 1) * 120.0, (2 * u - 1) * 80.0)
        across = x**2 + y**2 + 200.0**2
        numeric = float((200.0**2 / (np.pi * across**2)).mean() * 240 * 160)
        self.assertAlmostEqual(panel_share(120.0, 80.0, 200.0), numeric, places=4)


class Attenuation(unittest.TestCase):
    def test_a_straight_way_takes_what_the_water_takes(self):
        scene = quarry_pool()
        bands, water, fill = all_bands(), water_of(scene), scene.tank.fill_height_mm
        world = plain_world()._replace(water=tinted(scene, bands))
        rows = (
            ("down", (90.0, 50.0, fill), (0.0, 0.0, -1.0), fill),
            ("level", (0.0, 50.0, 47.0), (1.0, 0.0, 0.0), 150.0),
        )
        for name, place, way, far in rows:
            with self.subTest(name):
                desk = desk_for(31)
                wade(world, place, way, far, 1.0, desk)
                if name == "down":
                    wanted = water.optical_depth(np.array(far * MM))
                else:
                    layer = water.layer_at(np.array((fill - place[2]) * MM))
                    wanted = water.beam()[layer] * far * MM
                np.testing.assert_allclose(desk.depth, np.ravel(wanted), rtol=1e-6, atol=1e-9)

    def test_a_slanted_way_takes_each_layer_by_its_stretch(self):
        scene = quarry_pool()
        water, fill = water_of(scene), scene.tank.fill_height_mm
        world = plain_world()._replace(water=tinted(scene, all_bands()))
        way = np.array([0.6, 0.0, -0.8])
        desk = desk_for(31)
        wade(world, (10.0, 50.0, fill - 5.0), tuple(way.tolist()), 110.0, 1.0, desk)
        wanted = (water.optical_depth(np.array(93.0 * MM)) - water.optical_depth(np.array(5.0 * MM))) / 0.8
        np.testing.assert_allclose(desk.depth, wanted, rtol=1e-4)

    def test_twelve_bands_are_as_good_as_all(self):
        bands, spectra = fitted_bands(), _recipes()
        few, all_ = spectra[:, bands.picks] @ bands.to_rgb, linear_srgb(spectra)
        off = colour_difference(lab_of_linear(few), lab_of_linear(all_))
        self.assertLess(float(off.mean()), 0.1)
        self.assertLess(float(np.quantile(off, 0.95)), 0.3)
        np.testing.assert_allclose(bands.to_rgb.sum(axis=0), 1.0, atol=1e-9)


class Seams(unittest.TestCase):
    def test_a_grazed_line_mirrors_as_the_table_has_it(self):
        index, step = 1.55, 0.001
        critical = sqrt(2 * step / index)
        above = [[[-900.0, 99.9, 60], [900, 99.9, 60], [0, 99.9, 900]]]
        for over, share in ((0.9, 1.0), (1.02, 0.45), (1.1, 0.17), (1.5, 0.021)):
            with self.subTest(over=over):
                graze = over * critical
                block = plain_block(index=index, seams=[[60.0, step]])
                world = plain_world(block, corners=above)
                outside = asin(index * sin(graze))
                start = 60.0 + 50.0 * tan(graze)
                way = np.array([0.0, cos(outside), -sin(outside)])
                got = seen(world, np.array([100.0, 0.0, start]) - 400 * way, way)
                glare, _ = mirrored(way[1], 1 / index)
                self.assertAlmostEqual(got / (1 - glare), share, delta=0.012)

    def test_lines_of_a_scene_are_where_they_are_poured(self):
        scene = quarry_pool()
        block = block_of(scene)
        self.assertEqual(block.seams[:, 0].tolist(), [28.0, 80.0, 102.0])


class Ripples(unittest.TestCase):
    def test_their_slope_is_that_of_the_one_that_was_asked_for(self):
        x, y = np.meshgrid(np.linspace(0, 900, 500), np.linspace(0, 900, 500))
        for high, long in ((0.05, 10.0), (0.2, 15.0), (1.0, 40.0)):
            with self.subTest(high=high, long=long):
                waves = waves_of(RippledTop(ripple_mm=high, ripple_length_mm=long))
                slopes = sum(a * np.cos(k * x + m * y + f) * k for a, k, m, f in waves), sum(
                    a * np.cos(k * x + m * y + f) * m for a, k, m, f in waves)
                rms = sqrt(float((slopes[0] ** 2 + slopes[1] ** 2).mean()))
                self.assertAlmostEqual(rms, 2 * np.pi * high / long / sqrt(2), delta=0.03 * rms)
        self.assertEqual(len(waves_of(RippledTop())), 0)

    def test_a_slope_shifts_what_lies_below(self):
        for slope in (0.03, 0.08):
            with self.subTest(slope):
                # one long sine: where it crosses its level it is a slope
                number = 2 * np.pi / 400
                block = plain_block(waves=[[slope / number, number, 0.0, -number * 100.0]])
                shift = ripple_shift_mm(60.0, slope, N)
                for off, hit in ((0.0, True), (0.5, False), (-0.5, False)):
                    x = 100.0 + shift + off
                    patch = [[[x - 0.25, 0, 60.0], [x + 0.25, 0, 60.0], [x, 100, 60.0]]]
                    got = seen(plain_world(block, corners=patch), (100.0, 20.0, 500.0), (0, 0, -1))
                    self.assertEqual(got > 0.5, hit)


class Sanding(unittest.TestCase):
    def test_a_sanded_front_blurs_by_its_law(self):
        slope, behind = 0.18, 30.0
        landed = []
        for turn in range(4000):
            normal = facet(FRONT, slope, turn, 4001)
            cosine = -(normal[1] * 1.0)
            share, beyond = mirrored(cosine, 1 / N)
            k = cosine / N - beyond
            into = np.array([0.0, 1.0 / N, 0.0]) + k * np.array(normal)
            self.assertLess(share, 1.0)
            landed.append(behind * into[0] / into[1])
        self.assertAlmostEqual(float(np.std(landed)), blur_mm(behind, slope, N), delta=0.06)

    def test_grits_and_coats(self):
        self.assertGreater(facet_slope(120), facet_slope(400))
        self.assertEqual(facet_slope(400, coated=True), round(0.18 / 26, 6))
        self.assertEqual(facet_slope(3000, coated=True), 0.0)


class Bubbles(unittest.TestCase):
    def test_the_bend_is_that_of_the_table(self):
        for off, bend in ((0.2, 12), (0.4, 28), (0.6, 58), (0.7, 91), (0.8, 74), (0.9, 52)):
            with self.subTest(off):
                way = _bent((0.0, 1.0, 0.0), off, 0.3, N)
                self.assertAlmostEqual(degrees(np.arccos(way[1])), bend, delta=1.0)
                self.assertAlmostEqual(float(np.linalg.norm(way)), 1.0, places=9)


class Tree(unittest.TestCase):
    def test_it_finds_what_a_search_through_all_finds(self):
        random = np.random.default_rng(5)
        middle = random.uniform(-50, 50, (400, 1, 3))
        corners = (middle + random.normal(0, 4, (400, 3, 3))).astype(np.float32)
        tree, order = tree_of(corners)
        self.assertEqual(sorted(order.tolist()), list(range(400)))
        one_by_one = [tree_of(corners[number : number + 1])[0] for number in range(400)]
        stack = np.zeros(64, np.int64)
        hits = 0
        for _ in range(60):
            origin = random.uniform(-80, 80, 3)
            way = -origin + random.normal(0, 20, 3)
            way /= np.linalg.norm(way)
            ray = (tuple(origin.tolist()), tuple(way.tolist()))
            far, found, _, _ = nearest(tree, *ray, 1e30, stack)
            alone = [nearest(one, *ray, 1e30, stack)[0] for one in one_by_one]
            self.assertAlmostEqual(far, min(alone), delta=1e-4 * far)
            hits += found >= 0
        self.assertGreater(hits, 20)

    def test_no_triangles_are_met_by_nothing(self):
        tree, _ = tree_of(np.zeros((0, 3, 3)))
        self.assertEqual(nearest(tree, (0.0, 0.0, 0.0), (0.0, 1.0, 0.0), 1e4, np.zeros(64, np.int64))[1], -1)


class Pictures(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.scene, cls.keeper = quarry_pool(), Keeper()

    def shot(self, scene=None, stand=None, **more):
        scene = scene or self.scene
        return look(scene, Asked(stand or usual_stand(scene), 120, 75, **{"care": MOVING, **more}), {}, self.keeper)

    def test_the_same_bytes_every_time_whoever_draws(self):
        first = self.shot()
        hands = bake.HANDS
        try:
            bake.HANDS = 1
            again = look(self.scene, Asked(usual_stand(self.scene), 120, 75, MOVING), {}, Keeper())
        finally:
            bake.HANDS = hands
        self.assertTrue(np.array_equal(first, again))

    def test_an_eye_that_moves_bakes_nothing(self):
        self.shot()
        before = self.keeper.computed["look-world"]
        stand = usual_stand(self.scene, -50.0, 30.0)
        for more in ({}, {"rule": False}, {"stops": 2}, {"bubbles": False}, {"lamp_in": "wagon"}):
            self.shot(stand=stand.model_copy(update=more))
        self.assertEqual(self.keeper.computed["look-world"], before)

    def test_a_dose_leaves_shapes_and_light_points(self):
        self.shot()
        before = {subject: self.keeper.computed[subject] for subject in ("look-forms", "look-points")}
        self.shot(changed(self.scene, pours__0__doses__0__dose_drops_per_100g=2.0))
        self.assertEqual({subject: self.keeper.computed[subject] for subject in before}, before)

    def test_more_ink_makes_it_darker_and_night_darker_still(self):
        inked = changed(self.scene, **{
            f"pours__{number}__doses__{at}__dose_drops_per_100g": 4 * dose.dose_drops_per_100g
            for number, pour in enumerate(self.scene.pours) for at, dose in enumerate(pour.doses)
        })
        night = usual_stand(self.scene).model_copy(update={"hour": "lamp"})
        plain, dark, black = self.shot(), self.shot(inked), self.shot(stand=night)
        middle = (slice(25, 60), slice(30, 80))
        self.assertGreater(plain[middle].mean(), 1.3 * dark[middle].mean())
        self.assertGreater(dark.mean(), 2 * black.mean())

    def test_a_rule_lies_before_it_in_the_steps_of_its_reader(self):
        bare = usual_stand(self.scene).model_copy(update={"rule": False})
        off = np.abs(self.shot().astype(int) - self.shot(stand=bare).astype(int)).max(axis=2) > 20
        self.assertTrue(off[50:].any())
        self.assertFalse(off[:40].any())
        inches = changed(self.scene, brief__units__length="in")
        self.assertEqual((rule_of(self.scene)[2], rule_of(inches)[2]), (10.0, 12.7))
        self.assertLess(rule_of(eelgrass())[3], rule_of(self.scene)[3])

    def test_a_lamp_within_lights_what_holds_it(self):
        night = usual_stand(self.scene).model_copy(update={"hour": "lamp"})
        lit = self.shot(stand=night.model_copy(update={"lamp_in": "wagon"}))
        self.assertGreater(int(lit.max()), 180)
        self.assertGreater(int(lit.max()), 2 * int(self.shot(stand=night).max()))

    def test_ripples_change_the_top_and_leave_the_front(self):
        calm = self.shot()
        rough = changed(self.scene, finish__top={"ripple_mm": 0.4, "ripple_length_mm": 15})
        rippled = self.shot(rough)
        stand = usual_stand(self.scene, 10.0, 55.0)
        differs = np.abs(calm.astype(int) - rippled.astype(int)).max(axis=2)
        self.assertLess(differs[35:50, 30:80].mean(), 6)
        above = [self.shot(stand=stand), self.shot(rough, stand=stand)]
        self.assertGreater(np.abs(above[0].astype(int) - above[1].astype(int))[15:40, 30:90].mean(), 1.0)

    def test_a_round_tank_a_hazy_one_and_painted_sides_draw(self):
        rows = (
            ("round", {"tank__shape": {"kind": "round"}, "figures": []}),
            ("painted", {"brief__sides": "painted_white", "brief__viewing_sides": ["front"]}),
            ("sanded", {"finish__sand_to_grit": 400, "finish__edge_coat": False}),
            ("white water", {"finish__top": {"white_fraction": 0.4}}),
        )
        plain = self.shot()
        for name, change in rows:
            with self.subTest(name):
                picture = self.shot(changed(self.scene, **change))
                self.assertTrue(picture.any())
                self.assertFalse(np.array_equal(picture, plain))

    def test_haze_lifts_what_is_dark_behind_it(self):
        body = self.scene.model_dump(mode="json")
        paste = load_library().colourants["white-paste"].model_dump(mode="json")
        milky = changed(self.scene, colourants=[*body["colourants"], paste], **{
            f"pours__{number}__doses": [*pour["doses"], {"colourant_id": "white-paste", "dose_drops_per_100g": 0.15}]
            for number, pour in enumerate(body["pours"])
        })
        world, _ = lit_world(milky, Asked(usual_stand(milky), 60, 40, MOVING), {}, self.keeper)
        self.assertTrue(world.water.hazy)
        self.assertTrue((world.water.cells[:-1, SOURCE] > 0).all())
        wagon = (slice(40, 56), slice(48, 62))
        clear, hazy = (self.shot(scene)[wagon].astype(float).mean(axis=2) for scene in (self.scene, milky))
        self.assertGreater(hazy.min(), clear.min())
        self.assertLess(hazy.std(), clear.std())

    def test_nobody_waits_any_more(self):
        class Gone(Exception):
            pass

        def wanted(_):
            raise Gone

        with self.assertRaises(Gone):
            self.shot(stand=usual_stand(self.scene, 71.0), wanted=wanted)

    def test_the_eye_stands_where_it_is_told(self):
        stand = Stand(azimuth_deg=90.0, eye_height_mm=60.0, distance_mm=500.0)
        place = eye_place(self.scene, stand)
        np.testing.assert_allclose(place, [90.0 + 500.0, 55.0, 60.0], atol=1e-9)
        camera = camera_of(self.scene, stand, 1.6)
        np.testing.assert_allclose(camera[1] @ camera[2], 0.0, atol=0.05)

    def test_an_eye_that_cannot_be_there_is_refused_in_words(self):
        for height, distance, told in ((3000.0, 400.0, "choose a height"), (60.0, 150.0, None), (140.0, 151.0, None)):
            with self.subTest(height=height):
                stand = Stand(azimuth_deg=0.0, eye_height_mm=height, distance_mm=distance)
                if told:
                    with self.assertRaisesRegex(GondolaError, told):
                        eye_place(self.scene, stand)
                else:
                    eye_place(self.scene, stand)

    def test_more_care_is_more_of_everything(self):
        cares = [CARES[name] for name in ("moving", "draft", "clearer", "still")]
        for less, more in pairwise(cares):
            for field in ("points", "directions", "passes", "samples", "facets"):
                self.assertLessEqual(getattr(less, field), getattr(more, field))

    def test_a_draft_is_near_a_careful_one(self):
        labs = [lab_of_linear((self.shot(care=care) / 255.0) ** 2.2) for care in (DRAFT, CARES["clearer"])]
        off = colour_difference(*labs)
        self.assertLess(float(off.mean()), 2.0)

    def test_drawn_reads_what_a_ray_reads(self):
        world, _ = lit_world(self.scene, Asked(usual_stand(self.scene), 120, 75, MOVING), {}, self.keeper)
        camera = camera_of(self.scene, usual_stand(self.scene), 1.6)
        picture = drawn(world, camera, Asked(usual_stand(self.scene), 120, 75, MOVING))
        desk = desk_for(len(world.spectra))
        u, v = 2 * 50.5 / 120 - 1, 2 * 40.5 / 75 - 1
        way = camera[1] + u * camera[2] + v * camera[3]
        look_along(world, tuple(camera[0].tolist()), tuple((way / np.linalg.norm(way)).tolist()), desk, 0, True)
        np.testing.assert_allclose(picture[40, 50], desk.seen @ world.spectra[:, :3], rtol=1e-3)
