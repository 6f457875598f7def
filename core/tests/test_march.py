import unittest
from itertools import pairwise

import numpy as np
from reference_march import reference_peak
from scipy.optimize import brentq

from gondola_core.cure.cells import CellGeometry, whole_box
from gondola_core.cure.losses import Surroundings
from gondola_core.cure.march import TimedPour, Tolerance, march_pours, steady_room
from gondola_core.materials import load_library

LIBRARY = load_library()
TIGHT = Tolerance(temperature_k=1e-4, degree=1e-6)
USUAL = Tolerance(temperature_k=0.05, degree=5e-4)
FAR = 1e4
"""metres: a cell so long that nothing leaves through its far side"""


def around(base="wood", thickness=0.018, wall_thickness=0.003):
    return Surroundings(
        wall=LIBRARY.solids["acrylic"], wall_thickness=wall_thickness,
        base=LIBRARY.solids[base], base_thickness=thickness,
    )


def line_of_cells(x_faces):
    """Cells along x only: the other ways out are too far to matter."""
    return CellGeometry(
        x_faces=x_faces, y_faces=np.array([0.0, FAR]), z_faces=np.array([0.0, FAR]),
        pour_of_level=np.array([0]),
        solid_fractions=np.zeros((0, 1, 1, len(x_faces) - 1)), solids=(),
    )


def inert():
    return dense("deep").model_copy(update={"k1_per_s": 0.0, "k2_per_s": 0.0})


def dense(key):
    """A resin of 1100 kg/m3, for which the closed forms and tables were worked out."""
    return LIBRARY.resins[key].model_copy(update={"measured_density_g_ml": 1.1})


def run(geometry, resin, end, mix_c=23.0, room_c=23.0, tolerance=TIGHT, surroundings=None):
    return march_pours(
        geometry, surroundings or around(), [resin],
        [TimedPour(start=0.0, mix_c=mix_c, resin=0)], steady_room(room_c, end), end, tolerance,
    )


class Rooms(unittest.TestCase):
    def test_a_room_told_in_whole_degrees_is_of_the_same_kind_to_the_compiler(self):
        # as whole numbers it compiled the whole march anew, for half a minute
        kinds = {steady_room(told, 60.0).temperature_c.dtype for told in (20, 20.0)}
        self.assertEqual(kinds, {np.dtype(float)})


class ClosedForms(unittest.TestCase):
    def test_adiabatic_time_to_gel_and_rise(self):
        rows = [("deep", 11691.99), ("casting", 3318.51), ("coating", 2133.89)]
        closed = Surroundings(
            wall=LIBRARY.solids["acrylic"], wall_thickness=FAR,
            base=LIBRARY.solids["foam"], base_thickness=0.02,
        )
        geometry = line_of_cells(np.linspace(0, 4 * FAR, 5))
        for key, gel_s in rows:
            with self.subTest(key):
                resin = LIBRARY.resins[key]
                marched = run(geometry, resin, 40000.0, surroundings=closed)
                gel = marched.crossed_at[0][marched.resin]
                np.testing.assert_allclose(gel, gel_s, rtol=3e-4)
                rise = resin.heat_of_cure_j_g * 1000 / resin.heat_capacity_j_kgk
                np.testing.assert_allclose(
                    marched.temperature_c[marched.resin],
                    23.0 + rise * marched.degree_of_cure[marched.resin], atol=1e-3,
                )

    def test_slab_with_convective_faces_follows_the_series(self):
        # time s, centre, face of a 50 mm slab of D 1.0101e-7, h 9 both sides, from 1 to 0
        rows = [
            (300, 0.999772, 0.772046), (1200, 0.949398, 0.617681), (3600, 0.706400, 0.440768),
            (7200, 0.442220, 0.275774), (14400, 0.173228, 0.108027),
        ]
        count = 64
        film = 9.0
        for end, centre, face in rows:
            with self.subTest(end):
                marched = run(
                    line_of_cells(np.linspace(0, 0.05, count + 1)), inert(), float(end),
                    mix_c=21.0, room_c=20.0, surroundings=around(wall_thickness=1e-12),
                )
                theta = marched.temperature_c[-1, 0] - 20.0
                middle = 0.5 * (theta[count // 2 - 1] + theta[count // 2])
                half = 0.05 / count / 2
                at_face = theta[0] / (1 + film * half / 0.2)
                self.assertAlmostEqual(middle, centre, delta=2e-4)
                self.assertAlmostEqual(at_face, face, delta=3e-4)

    def test_slab_error_falls_with_the_square_of_the_cell(self):
        errors = []
        for count in (8, 16, 32):
            faces = np.linspace(0, 0.05, count + 1)
            marched = run(
                line_of_cells(faces), inert(), 1200.0,
                mix_c=21.0, room_c=20.0, surroundings=around(wall_thickness=1e-12),
                tolerance=Tolerance(temperature_k=1e-7, degree=1e-6),
            )
            exact = convective_slab(0.5 * (faces[:-1] + faces[1:]), 1200.0)
            errors.append(np.abs(marched.temperature_c[-1, 0] - 20.0 - exact).max())
        for coarse, fine in pairwise(errors):
            self.assertAlmostEqual(coarse / fine, 4.0, delta=0.5)


def convective_slab(x, time, length=0.05, film=9.0, conductivity=0.2):
    """Series of a slab from 1 towards 0 with the same film on both faces."""
    diffusivity = conductivity / (1100 * 1800)
    half = length / 2
    biot = film * half / conductivity
    total = np.zeros_like(x)
    for n in range(40):
        root = brentq(
            lambda b: b * np.sin(b) - biot * np.cos(b), n * np.pi, n * np.pi + np.pi / 2
        )
        weight = 4 * np.sin(root) / (2 * root + np.sin(2 * root))
        decay = np.exp(-(root**2) * diffusivity * time / half**2)
        total += weight * decay * np.cos(root * (x - half) / half)
    return total


class Plans(unittest.TestCase):
    def test_label_depths_in_the_small_box(self):
        # class, mm, room, peak C, at h, tack-all h, demould h; peaks of coarse grids within 1.5 K
        rows = [
            ("deep", 5, 23, 24.2, 3.0, 38.2, 70),
            ("deep", 30, 23, 35.2, 6.2, 34.3, 65),
            ("deep", 50, 23, 58.2, 7.1, 32.4, 64),
            ("deep", 50, 18, 31.4, 9.0, 52.8, 168),
            ("casting", 10, 23, 37.3, 2.1, 13.2, 25),
            ("coating", 5, 23, 33.2, 1.8, 8.6, 16),
        ]
        for key, depth, room, peak, at_h, tack_h, demould_h in rows:
            with self.subTest(key, depth=depth, room=room):
                marched = run(
                    whole_box((0.15, 0.10), [depth / 1000], 0.010, 4), dense(key),
                    14 * 86400.0, room, room, USUAL,
                )
                place = np.unravel_index(np.nanargmax(marched.peak_c), marched.peak_c.shape)
                self.assertAlmostEqual(marched.peak_c[place], peak, delta=1.0)
                self.assertAlmostEqual(marched.peak_at[place] / 3600, at_h, delta=0.4)
                last = np.nanmax(marched.crossed_at, axis=(1, 2, 3)) / 3600
                self.assertAlmostEqual(last[1], tack_h, delta=1.0)
                self.assertAlmostEqual(last[3], demould_h, delta=1.6)

    def test_same_peak_as_a_stiff_solver_on_the_same_cells(self):
        geometry = whole_box((0.09, 0.06), [0.03, 0.05], 0.015, 2)
        pours = [
            TimedPour(start=0.0, mix_c=25.0, resin=0),
            TimedPour(start=20 * 3600.0, mix_c=25.0, resin=1),
        ]
        resins = [LIBRARY.resins["deep"], LIBRARY.resins["casting"]]
        end = 40 * 3600.0
        peak, at, final = reference_peak(geometry, around(), resins, pours, 23.0, end, 1e-7)
        marched = march_pours(
            geometry, around(), resins, pours, steady_room(23.0, end), end, USUAL
        )
        self.assertAlmostEqual(float(np.nanmax(marched.peak_c)), peak, delta=0.1)
        place = np.unravel_index(np.nanargmax(marched.peak_c), marched.peak_c.shape)
        self.assertAlmostEqual(marched.peak_at[place], at, delta=300)
        np.testing.assert_allclose(marched.temperature_c, final, atol=0.05)

    def test_energy_balances(self):
        marched = run(
            whole_box((0.15, 0.10), [0.05], 0.012, 3), LIBRARY.resins["deep"], 5 * 86400.0,
            26.0, 21.0, USUAL,
        )
        left = marched.heat_released - marched.heat_stored - marched.heat_lost
        self.assertLess(abs(left), 1e-6 * marched.heat_released)
        self.assertGreater(marched.heat_lost, 0.9 * marched.heat_released)

    def test_tighter_steps_change_little_and_less(self):
        peaks = []
        for k in (0.4, 0.1, 0.0125):
            marched = run(
                whole_box((0.15, 0.10), [0.05], 0.012, 3), LIBRARY.resins["deep"], 86400.0,
                tolerance=Tolerance(temperature_k=k, degree=k / 100),
            )
            peaks.append(float(np.nanmax(marched.peak_c)))
        self.assertLess(abs(peaks[0] - peaks[2]), 0.4)
        self.assertLess(abs(peaks[1] - peaks[2]), 0.1)
        self.assertLess(abs(peaks[1] - peaks[2]), abs(peaks[0] - peaks[2]))

    def test_directions(self):
        resin = LIBRARY.resins["deep"]

        def peak(depth=0.05, room=23.0, size=(0.15, 0.10), layers=1, surroundings=None):
            tops = [depth * (i + 1) / layers for i in range(layers)]
            geometry = whole_box(size, tops, 0.012, 3)
            pours = [
                TimedPour(start=i * 30 * 3600.0, mix_c=room, resin=0) for i in range(layers)
            ]
            end = pours[-1].start + 40 * 3600
            marched = march_pours(
                geometry, surroundings or around(), [resin], pours, steady_room(room, end), end,
                USUAL,
            )
            return float(np.nanmax(marched.peak_c))

        plain = peak()
        rows = [
            ("deeper", peak(depth=0.06), 10),
            ("warmer room", peak(room=26.0), 10),
            ("foam base", peak(surroundings=around("foam", 0.025)), 15),
            ("larger footprint", peak(size=(0.30, 0.20)), 30),
        ]
        for what, other, least in rows:
            with self.subTest(what):
                self.assertGreater(other, plain + least)
        self.assertLess(peak(layers=2), plain - 15)

    def test_a_metal_figure_may_conduct_as_well_as_it_likes(self):
        from unittest import mock

        from gondola_core.cure import box

        steel = LIBRARY.solids["steel"]
        plain = whole_box((0.12, 0.10), [0.05], 0.012, 4)
        fractions = np.zeros((1, *plain_shape(plain)))
        fractions[0, 1:3, 3:5, 4:6] = 0.8
        geometry = CellGeometry(
            x_faces=plain.x_faces, y_faces=plain.y_faces, z_faces=plain.z_faces,
            pour_of_level=plain.pour_of_level, solid_fractions=fractions, solids=(steel,),
        )
        peaks = []
        for most in (box.MOST_CONDUCTIVITY, 4 * box.MOST_CONDUCTIVITY):
            with mock.patch.object(box, "MOST_CONDUCTIVITY", most):
                marched = run(geometry, LIBRARY.resins["deep"], 86400.0, tolerance=USUAL)
            peaks.append(float(np.nanmax(marched.peak_c)))
        self.assertAlmostEqual(peaks[0], peaks[1], delta=0.2)


def plain_shape(geometry):
    return (
        len(geometry.z_faces) - 1, len(geometry.y_faces) - 1, len(geometry.x_faces) - 1
    )


class Heard(unittest.TestCase):
    def march(self, told):
        from gondola_core.answers.book import Book
        from gondola_core.answers.flood import FLOOD, SPANS
        from gondola_core.answers.grades import FINE
        from gondola_core.answers.kept import Keeper
        from gondola_core.answers.march import cells_of, march
        from gondola_core.samples import quarry_pool

        book = Book(quarry_pool(), FINE, Keeper())
        cells = cells_of(book.scene, FINE, book.ask(SPANS), book.ask(FLOOD))
        return march(book.scene, cells, FINE, told=told)

    def test_numbers_are_the_same_whether_anybody_hears_or_not(self):
        shares = []
        heard, alone = self.march(shares.append), self.march(None)
        np.testing.assert_array_equal(heard.peak_c, alone.peak_c)
        np.testing.assert_array_equal(heard.history_at, alone.history_at)
        self.assertEqual(shares[-1], 1.0)
        self.assertEqual(shares, sorted(shares))

    def test_what_is_raised_ends_it_within_a_second(self):
        import time

        began = []

        def told(_share):
            began.append(time.monotonic())
            raise KeyboardInterrupt

        with self.assertRaises(KeyboardInterrupt):
            self.march(told)
        self.assertEqual(len(began), 1)
        self.assertLess(time.monotonic() - began[0], 1.0)

    def test_who_listens_to_all_ends_any_answer_that_marches(self):
        import time

        from gondola_core.answers.kept import Keeper
        from gondola_core.cure.march import heard_by
        from gondola_core.evaluate import evaluate
        from gondola_core.samples import quarry_pool
        from gondola_core.studies.watching import watched

        class Left(Exception):
            pass

        def left(_share):
            heard.append(time.monotonic())
            raise Left

        answers = {
            "an outcome, some of it computed in another thread": lambda: evaluate(quarry_pool(), keeper=Keeper()),
            "a pour that is watched": lambda: watched(quarry_pool(), 1),
            "a march": lambda: self.march(None),
        }
        for name, ask in answers.items():
            with self.subTest(name):
                heard = []
                with heard_by(left), self.assertRaises(Left):
                    ask()
                self.assertLess(time.monotonic() - heard[0], 1.0)
        self.assertGreater(np.nanmax(self.march(None).peak_c), 25)
