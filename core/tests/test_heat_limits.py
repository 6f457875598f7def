"""Closed limits of the march and its operator: Neumann, Robin, contact, self-heating, order, restart."""

import unittest
from math import erf, exp, pi, sin, sqrt

import numpy as np
from scipy.sparse import coo_array, diags
from scipy.sparse.linalg import splu

from gondola_core.cure.box import cell_box
from gondola_core.cure.cells import CellGeometry, whole_box
from gondola_core.cure.losses import Surroundings
from gondola_core.cure.march import TimedPour, Tolerance, march_pours, steady_room
from gondola_core.materials import load_library

LIBRARY = load_library()
DEEP = LIBRARY.resins["deep"].model_copy(update={"measured_density_g_ml": 1.1})
INERT = DEEP.model_copy(update={"k1_per_s": 1e-9, "k2_per_s": 0.0})
DIFFUSIVITY = 0.2 / (1100 * 1800)
TIGHT = 1e7
"""W/(m2 K) of a film that holds a face at the temperature of the room."""
TIGHT_BASE = LIBRARY.solids["glass"].model_copy(
    update={"conductivity_w_mk": 2.0, "density_g_ml": 0.01, "heat_capacity_j_kgk": 100.0}
)


NOTHING = LIBRARY.solids["foam"].model_copy(
    update={"conductivity_w_mk": 0.01, "density_g_ml": 0.01, "heat_capacity_j_kgk": 100.0}
)
"""A base that holds no heat and lets none through."""


def around(**films):
    return Surroundings(
        wall=LIBRARY.solids["steel"], wall_thickness=1e-6, base=NOTHING, base_thickness=0.02,
        **films,
    )


def march(geometry, surroundings, end, *, start_c=20.0, room_c=0.0, resin=INERT, tolerance=0.002,
          **more):
    return march_pours(
        geometry, surroundings, [resin], [TimedPour(start=0.0, mix_c=start_c, resin=0)],
        steady_room(room_c, end), end, Tolerance(temperature_k=tolerance, degree=1e-4), **more,
    )


def resin_part(marched):
    return marched.temperature_c[marched.base_levels:]


class Limits(unittest.TestCase):
    def test_neumann_a_box_without_exchange_keeps_its_heat(self):
        marched = march(
            whole_box((0.05, 0.05), [0.04], 0.01, 4),
            around(top_film=1e-9, wall_film=1e-9, base_film=1e-9), 3600.0 * 5, room_c=-20.0,
        )
        np.testing.assert_allclose(resin_part(marched), 20.0, atol=0.05)
        self.assertLess(abs(marched.heat_lost), 10.0)

    def test_dirichlet_a_square_bar_in_fixed_faces_follows_the_series(self):
        side, cells, moment = 0.04, 20, 900.0
        marched = march(
            whole_box((side, side), [0.03], side / cells, 3),
            around(top_film=1e-9, wall_film=TIGHT, base_film=1e-9), moment,
        )
        middle = resin_part(marched)[-1, 9:11, 9:11].mean()
        # product of two slabs: sum 4/((2n+1) pi) sin((2n+1) pi x) exp(-((2n+1) pi/L)^2 D t)
        x = 0.5 + 0.5 / cells
        slab = sum(
            4 / ((2 * n + 1) * pi) * sin((2 * n + 1) * pi * x)
            * exp(-(((2 * n + 1) * pi / side) ** 2) * DIFFUSIVITY * moment)
            for n in range(30)
        )
        self.assertAlmostEqual(middle / (20 * slab**2), 1, delta=0.012)

    def test_robin_a_thin_plate_cools_by_newtons_law(self):
        # Biot number under 0.01: lumped, theta = exp(-h t / (rho cp L)) from the top alone
        depth, film, moment = 0.004, 0.4, 3600.0
        marched = march(
            whole_box((0.2, 0.2), [depth], 0.05, 2),
            around(top_film=film, wall_film=1e-9, base_film=1e-9), moment,
        )
        exact = 20 * exp(-film * moment / (1100 * 1800 * depth))
        self.assertAlmostEqual(float(resin_part(marched).mean()) / exact, 1, delta=0.01)

    def test_contact_of_a_fresh_pour_with_a_set_one_is_the_mean_of_both(self):
        # two equal half spaces: the face comes to the mean at once, and
        # T = mean + half the gap erf(x / 2 sqrt(D t)) beside it
        half, moment = 0.04, 300.0
        geometry = whole_box((0.02, 0.02), [half, 2 * half], half / 40, 40)
        marched = march_pours(
            geometry, around(top_film=1e-9, wall_film=1e-9, base_film=1e-9), [INERT],
            [TimedPour(start=0.0, mix_c=20.0, resin=0), TimedPour(start=60.0, mix_c=40.0, resin=0)],
            steady_room(20.0, 60.0 + moment), 60.0 + moment,
            Tolerance(temperature_k=0.002, degree=1e-4),
        )
        column = resin_part(marched).mean(axis=(1, 2))
        heights = marched.heights[marched.base_levels:]
        exact = [
            30 + 10 * erf((z - half) / (2 * sqrt(DIFFUSIVITY * moment))) for z in heights
        ]
        np.testing.assert_allclose(column, exact, atol=0.12)

    def test_sphere_in_a_box_warms_to_the_mean_and_spreads_by_the_point_source(self):
        # a small hot ball of metal in a large cool block; far from it and early enough,
        # dT(r, t) = Q / (rho cp (4 pi D t)^1.5) exp(-r^2 / (4 D t))
        side, cells, moment = 0.06, 30, 420.0
        faces = np.linspace(0, side, cells + 1)
        middle = 0.5 * (faces[:-1] + faces[1:]) - side / 2
        away = np.sqrt(
            middle[:, None, None] ** 2 + middle[None, :, None] ** 2 + middle[None, None, :] ** 2
        )
        ball = (away < 0.005).astype(float)
        # the ball is all solid and starts at the room; the resin starts cooler
        warm = LIBRARY.solids["polymer-clay"].model_copy(
            update={"density_g_ml": 1.1, "heat_capacity_j_kgk": 1800.0, "conductivity_w_mk": 0.2}
        )
        geometry = CellGeometry(
            x_faces=faces, y_faces=faces, z_faces=faces,
            pour_of_level=np.zeros(cells, dtype=np.int64), solid_fractions=ball[None], solids=(warm,),
        )
        marched = march(
            geometry, around(top_film=1e-9, wall_film=1e-9, base_film=1e-9), moment, start_c=10.0,
            room_c=50.0,
        )
        here = resin_part(marched)
        volume = float(ball.sum()) * (side / cells) ** 3
        spread = 4 * DIFFUSIVITY * moment
        point = 10 + 40 * volume / (pi * spread) ** 1.5 * np.exp(-(away**2) / spread)
        ring = (away > 0.010) & (away < 0.016)
        np.testing.assert_allclose(here[ring] - 10, point[ring] - 10, rtol=0.12, atol=0.02)


class SelfHeating(unittest.TestCase):
    """Critical thickness by the operator of the march: L T + delta exp(T) = 0 has no solution beyond."""

    def critical(self, geometry, half, films):
        box = cell_box(
            geometry, [0], [DEEP],
            Surroundings(wall=LIBRARY.solids["steel"], wall_thickness=1e-9, base=TIGHT_BASE,
                         base_thickness=1e-9, **films),
        )
        core = tuple(size - 2 for size in box.inverse.shape)
        gx, gy, gz, ga, top = (
            array[1:-1, 1:-1, 1:-1].copy() for array in (box.gx, box.gy, box.gz, box.ga, box.top)
        )
        ga[-1] += top[-1]
        index = np.arange(np.prod(core)).reshape(core)
        rows, columns, values = [], [], []
        for conductance, axis in ((gx, 2), (gy, 1), (gz, 0)):
            low = np.take(index, np.arange(core[axis] - 1), axis=axis).ravel()
            high = np.take(index, np.arange(1, core[axis]), axis=axis).ravel()
            g = np.take(conductance, np.arange(core[axis] - 1), axis=axis).ravel()
            rows += [low, high, low, high]
            columns += [high, low, low, high]
            values += [g, g, -g, -g]
        operator = coo_array(
            (np.concatenate(values), (np.concatenate(rows), np.concatenate(columns))),
            shape=(index.size, index.size),
        ).tocsr() - diags(ga.ravel())
        # source of one unit of delta: k / half^2 a volume, in resin only
        volume = (box.resin_capacity / (1100 * 1800))[1:-1, 1:-1, 1:-1].ravel()
        source = 0.2 / half**2 * volume
        # arc length in the middle's temperature: solve for (T, delta) with T_middle given
        middle = int(index[core[0] // 2 + box.base_levels // 2, core[1] // 2, core[2] // 2])
        state, delta = np.zeros(index.size), 0.1
        found = []
        for warm in np.arange(0.2, 1.9, 0.1):
            for _ in range(12):
                grown = source * np.exp(state)
                residual = operator @ state + delta * grown
                jacobian = (operator + diags(delta * grown)).tocsc()
                factors = splu(jacobian, permc_spec="MMD_AT_PLUS_A", options={"SymmetricMode": True})
                a, b = factors.solve(-residual), factors.solve(-grown)
                change = (warm - state[middle] - a[middle]) / b[middle]
                step = a + change * b
                state, delta = state + step, delta + change
                if np.abs(step).max() < 1e-9:
                    break
            found.append(delta)
        best = int(np.argmax(found))
        bend = np.polyfit([-1, 0, 1], found[best - 1 : best + 2], 2)
        return float(np.polyval(bend, -bend[1] / (2 * bend[0])))

    def test_slab(self):
        half, n = 0.02, 40
        z = np.linspace(0, 2 * half, n + 1)
        geometry = CellGeometry(
            x_faces=np.array([0, 1.0]), y_faces=np.array([0, 1.0]), z_faces=z,
            pour_of_level=np.zeros(n, dtype=np.int64), solid_fractions=np.zeros((0, n, 1, 1)),
            solids=(),
        )
        films = {"top_film": 1e12, "base_film": 1e12, "wall_film": 1e-12}
        self.assertAlmostEqual(self.critical(geometry, half, films) / 0.8785, 1, delta=0.005)

    def test_cube(self):
        half, n = 0.02, 18
        faces = np.linspace(0, 2 * half, n + 1)
        geometry = CellGeometry(
            x_faces=faces, y_faces=faces, z_faces=faces, pour_of_level=np.zeros(n, dtype=np.int64),
            solid_fractions=np.zeros((0, n, n, n)), solids=(),
        )
        films = {"top_film": 1e12, "base_film": 1e12, "wall_film": 1e12}
        self.assertAlmostEqual(self.critical(geometry, half, films) / 2.475, 1, delta=0.005)


class Orders(unittest.TestCase):
    AROUND = Surroundings(
        wall=LIBRARY.solids["acrylic"], wall_thickness=0.003, base=LIBRARY.solids["wood"],
        base_thickness=0.018,
    )

    def peak(self, cells, step_k):
        marched = march_pours(
            whole_box((0.12, 0.08), [0.03], 0.12 / cells, max(2, cells // 4)), self.AROUND, [DEEP],
            [TimedPour(start=0.0, mix_c=23.0, resin=0)], steady_room(23.0, 1.5 * 86400), 1.5 * 86400,
            Tolerance(temperature_k=step_k, degree=step_k / 100),
        )
        return float(np.nanmax(marched.peak_c))

    def test_grid_halved_brings_a_quarter_of_the_error(self):
        peaks = [self.peak(cells, 0.01) for cells in (6, 12, 24)]
        first, second = peaks[0] - peaks[1], peaks[1] - peaks[2]
        self.assertGreater(abs(first / second), 2.2)
        self.assertLess(abs(second), 0.5)

    def test_steps_held_tighter_bring_less_error(self):
        exact = self.peak(12, 0.002)
        errors = [abs(self.peak(12, step) - exact) for step in (0.5, 0.1, 0.02)]
        self.assertLess(errors[1], 0.06)
        self.assertLess(errors[2], 0.02)
        self.assertLess(errors[0], 0.3)

    def test_restart_in_the_middle_gives_the_same_end(self):
        def end(progress):
            return march_pours(
                whole_box((0.12, 0.08), [0.02, 0.05], 0.012, 3), self.AROUND, [DEEP],
                [TimedPour(start=0.0, mix_c=23.0, resin=0),
                 TimedPour(start=30 * 3600.0, mix_c=23.0, resin=0)],
                steady_room(23.0, 2.2 * 86400), 2.2 * 86400,
                Tolerance(temperature_k=0.005, degree=5e-5), progress=progress,
            )

        # with progress the march stops and starts again every day
        whole, broken = end(None), end(lambda share: None)
        np.testing.assert_allclose(whole.temperature_c, broken.temperature_c, atol=0.01)
        np.testing.assert_allclose(whole.degree_of_cure, broken.degree_of_cure, atol=2e-4)
        self.assertAlmostEqual(whole.heat_released / broken.heat_released, 1, delta=1e-4)
        for marched in (whole, broken):
            lost = marched.heat_released - marched.heat_stored - marched.heat_lost
            self.assertLess(abs(lost) / marched.heat_released, 1e-3)
