"""The grades against converged marches: times of the least cured place, peaks, volumes, and what is told of errors."""

import csv
import functools
import unittest
from dataclasses import replace
from itertools import pairwise
from pathlib import Path
from unittest import mock

import numpy as np
from seeded_scenes import HOTTEST_C, LARGE_SEED, large_scene, seeded_scene, varied_scene
from soaked import as_many, some_of
from verdicts_of import differing

from gondola_core.answers import heat
from gondola_core.answers.book import Book
from gondola_core.answers.flood import FLOOD, SPANS
from gondola_core.answers.joints import Meets
from gondola_core.answers.kept import Keeper
from gondola_core.answers.march import AFTER_LAST_POUR, cells_of, march, timed_pours
from gondola_core.cure.cells import cut_cells, faces, whole_box, whole_cells
from gondola_core.cure.losses import Surroundings
from gondola_core.cure.march import TimedPour, Tolerance, march_pours, steady_room
from gondola_core.cure.moments import pour_cures
from gondola_core.evaluate import DRAFT, FINE, evaluate
from gondola_core.materials import load_library
from gondola_core.polygon import polygon_area
from gondola_core.samples import eelgrass, ferry_landing, quarry_pool
from gondola_core.scene import Regular, Round, scene_from
from gondola_core.shape import tank_plan

LIBRARY = load_library()
MOMENTS = ("gel_h", "tack_closes_h", "hard_h", "demould_h")


def rows_of(table):
    """Peak and moments of the pours of each scene, by the number of the pour."""
    scenes = {}
    with (Path(__file__).parent / f"{table}.csv").open(newline="") as file:
        for row in csv.DictReader(file):
            told = [float(row[name]) for name in ("peak_c", *MOMENTS)]
            scenes.setdefault(int(row["scene"]), {})[int(row["pour"])] = np.array(told)
    return [scenes[number] for number in sorted(scenes)]


def converged_rows():
    """Those of every pour of the seeded scenes, from `benchmarks/converged.py`."""
    return [np.array(list(pours.values())) for pours in rows_of("converged")]


@functools.cache
def seeded_scenes(count):
    rng = np.random.default_rng(20261125)
    found = []
    while len(found) < count:
        scene = seeded_scene(rng)
        outcome = evaluate(scene, DRAFT, Keeper())
        if outcome.whole.hottest_c < HOTTEST_C:
            found.append((scene, outcome))
    return found


def values(outcome):
    return np.array(
        [[pour.heat.cure.peak_c, *(getattr(pour.heat.cure, name) for name in MOMENTS)] for pour in outcome.pours],
        dtype=float,
    )


class AgainstConverged(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.true = converged_rows()
        cls.drafts = seeded_scenes(len(cls.true))

    def test_corner_cells_told_gel_and_demould_early_in_a_draft(self):
        for number, ((_, outcome), true) in enumerate(zip(self.drafts, self.true, strict=True)):
            with self.subTest(number):
                off = np.abs(values(outcome)[:, 1:] / true[:, 1:] - 1)
                self.assertLess(off.max(), 0.06)

    def test_fine_is_within_two_percent_and_half_a_kelvin(self):
        within, tried = 0, some_of(list(zip(self.drafts, self.true, strict=True)), 4)
        for number, ((scene, _), true) in enumerate(tried):
            with self.subTest(number):
                outcome = evaluate(scene, FINE, Keeper())
                fine = values(outcome)
                self.assertLess(np.abs(fine[:, 1:] / true[:, 1:] - 1).max(), 0.02)
                off = np.abs(fine[:, 0] - true[:, 0]).max()
                self.assertLess(off, 0.6)
                within += off <= outcome.march.peak_error_k
        self.assertGreaterEqual(within, 0.9 * len(tried))

    def test_the_error_told_by_a_draft_holds_in_nine_of_ten(self):
        within = sum(
            np.abs(values(outcome)[:, 0] - true[:, 0]).max() <= outcome.march.peak_error_k
            for (_, outcome), true in zip(self.drafts, self.true, strict=True)
        )
        self.assertGreaterEqual(within, 0.9 * len(self.true))

    def test_moments_keep_their_order_at_each_end_of_the_band(self):
        for number, (_, outcome) in enumerate(self.drafts):
            for pour in outcome.pours:
                with self.subTest(number, pour=pour.number):
                    spans = pour.heat.spans
                    told = [spans.gel, spans.tack_opens, spans.tack_closes, spans.hard, spans.demould]
                    for side in ("early_h", "late_h"):
                        at = [getattr(one, side) for one in told if one is not None]
                        at = [one for one in at if one is not None]
                        self.assertEqual(at, sorted(at))


def rung(times):
    """The draft and its band on cells made rougher so many times, however small the scene."""
    def only(grade):
        for _ in range(times):
            grade = grade.rougher()
        return [grade]
    return mock.patch.object(heat, "rungs", only)


class ErrorsTold(unittest.TestCase):
    """That of the peak and of each moment, pour by pour, holds in nine of ten."""

    def held(self, scenes, true):
        held, count = np.zeros(1 + len(MOMENTS)), 0
        for scene, rows in zip(scenes, true, strict=True):
            told = Book(scene, DRAFT, Keeper()).ask(heat.HEAT)
            for number, row in rows.items():
                cure, doubt = told.cures[number - 1], told.doubts[number - 1]
                if doubt is None:  # too thin for the coarser grid: nothing is told
                    continue
                at = [cure.peak_c, *(getattr(cure, name) for name in MOMENTS)]
                off = [doubt.peak_k, *(getattr(doubt, name) for name in MOMENTS)]
                held += [
                    here is not None and (most is None or abs(here - there) <= most)
                    for here, there, most in zip(at, row, off, strict=True)
                ]
                count += 1
        self.assertGreater(count, 40)
        for name, share in zip(("peak", *MOMENTS), held / count, strict=True):
            with self.subTest(name):
                self.assertGreaterEqual(share, 0.9)

    def test_by_drafts_and_by_those_on_rougher_cells(self):
        true = rows_of("converged")
        scenes = [scene for scene, _ in seeded_scenes(len(true))]
        for times in (0, 1, 2, 3):
            with self.subTest(times=times), rung(times):
                self.held(scenes, true)

    def test_by_drafts_of_large_tanks(self):
        rng, true = np.random.default_rng(LARGE_SEED), rows_of("large")
        scenes = [large_scene(rng) for _ in true]
        self.held(some_of(scenes, 3), some_of(true, 3))


class Verdicts(unittest.TestCase):
    def test_draft_and_fine_agree_or_the_draft_calls_it_close(self):
        rng = np.random.default_rng(11)
        held = 0
        while held < as_many(12, 3):
            scene = varied_scene(rng)
            draft = evaluate(scene, DRAFT, Keeper())
            if draft.whole.hottest_c >= HOTTEST_C + 10:
                continue
            held += 1
            with self.subTest(held):
                self.assertEqual(differing(draft, evaluate(scene, FINE, Keeper())), [])

    def test_a_hot_mix_poured_over_after_eight_hours_runs_together_in_both_grades(self):
        for grade in (DRAFT, FINE):
            with self.subTest(grade.name):
                outcome = evaluate(two_pours(20.0, 40.0, 8.0), grade, Keeper())
                self.assertEqual(outcome.pours[1].joint.meets, Meets.TOO_EARLY)

    def test_a_wait_on_the_very_opening_is_called_close_by_the_draft_and_decided_by_the_fine(self):
        opens = evaluate(two_pours(20.0, 23.0, 24.0), DRAFT, Keeper()).pours[0].heat.cure.tack_opens_h
        for wait in np.linspace(opens - 0.02, opens + 0.02, 3):
            with self.subTest(wait):
                scene = two_pours(20.0, 23.0, float(wait))
                draft = evaluate(scene, DRAFT, Keeper())
                self.assertEqual(draft.pours[1].joint.meets, Meets.TOO_CLOSE)
                self.assertTrue(any(flag.close_call and flag.code == "too_early" for flag in draft.flags))
        fine = evaluate(scene, FINE, Keeper())
        self.assertNotEqual(fine.pours[1].joint.meets, Meets.TOO_CLOSE)
        self.assertFalse(any(flag.close_call for flag in fine.flags))


def two_pours(line_mm, mix_c, wait_h):
    """50 mm, then 20 mm, in a 150 x 100 box."""
    document = quarry_pool().model_dump(mode="json")
    document["figures"] = []
    document["tank"].update(inner_width_mm=150, inner_behind_mm=100, fill_height_mm=70, wall_height_mm=85)
    document["bed"].update(heights_mm=[[0.0, 0.0], [0.0, 0.0]], mesh=None, measured=[])
    document["brief"]["room"].update(day_c=23, night_c=23)
    pour = document["pours"][0]
    document["pours"] = [
        {**pour, "id": "one", "resin_id": "deep", "top_depth_mm": line_mm, "mix_c": mix_c, "wait_h": 0.0},
        {**pour, "id": "two", "resin_id": "deep", "top_depth_mm": 0.0, "mix_c": 23.0, "wait_h": wait_h},
    ]
    return scene_from(document)


class Orders(unittest.TestCase):
    AROUND = Surroundings(
        wall=LIBRARY.solids["acrylic"], wall_thickness=0.003, base=LIBRARY.solids["wood"], base_thickness=0.018,
    )

    def moments(self, cell):
        from dataclasses import replace

        geometry = replace(whole_box((0.072, 0.048), [0.024], cell, 1), base_cell=cell)
        marched = march_pours(
            geometry, self.AROUND, [LIBRARY.resins["deep"]], [TimedPour(start=0.0, mix_c=27.0, resin=0)],
            steady_room(21.0, 14 * 86400.0), 14 * 86400.0, Tolerance(temperature_k=2e-3, degree=2e-5),
        )
        cures = pour_cures(
            marched, geometry, [TimedPour(start=0.0, mix_c=27.0, resin=0)], [LIBRARY.resins["deep"]], 21.0
        )
        at = np.nanmax(np.concatenate([marched.skin_crossed_at], axis=1), axis=1) / 3600
        self.assertAlmostEqual(cures[0].gel_h, at[0], delta=0.01)
        return at

    def test_gel_and_demould_come_to_their_limit_with_the_square_of_the_cell(self):
        told = [self.moments(cell) for cell in (0.008, 0.004, 0.002)]
        for mark, name in ((0, "gel"), (1, "tack-free"), (3, "demould")):
            with self.subTest(name):
                first, second = told[0][mark] - told[1][mark], told[1][mark] - told[2][mark]
                self.assertGreater(np.log2(abs(first / second)), 1.6)
                self.assertLess(abs(second) / told[2][mark], 2e-3)


def cells_in(scene, grade):
    book = Book(scene, grade, Keeper())
    return cells_of(scene, grade, book.ask(SPANS), book.ask(FLOOD))


def tank_of(width, behind, fill, shape=None, lean=0.0):
    change = {
        "inner_width_mm": width, "inner_behind_mm": behind, "fill_height_mm": fill,
        "wall_height_mm": fill + 20, "taper_deg": lean,
    }
    if shape is not None:
        change["shape"] = shape
    return quarry_pool().tank.model_copy(update=change)


class Volumes(unittest.TestCase):
    def test_cells_half_inside_counted_whole_in_round_and_leaning_tanks(self):
        rows = [
            ("round 60", tank_of(60, 60, 50, Round(kind="round"))),
            ("round 35", tank_of(35, 35, 30, Round(kind="round"))),
            ("leaning 5", tank_of(150, 100, 50, lean=5.0)),
            ("hexagon leaning 8", tank_of(120, 104, 40, Regular(kind="regular", sides_count=6), lean=8.0)),
        ]
        for name, tank in rows:
            for cell in (0.010, 0.004):
                with self.subTest(name, cell=cell):
                    top = tank_plan(tank, tank.fill_height_mm) / 1000
                    low, high = top.min(axis=0), top.max(axis=0)
                    x, y = (low[axis] + faces(float(high[axis] - low[axis]), cell, 4) for axis in (0, 1))
                    z = faces(tank.fill_height_mm / 1000, cell, 4)
                    cut = cut_cells(lambda at, tank=tank: tank_plan(tank, at * 1000) / 1000, x, y, z, tank.taper_deg)
                    exact = np.mean([
                        polygon_area(tank_plan(tank, at)) for at in (np.arange(200) + 0.5) / 200 * tank.fill_height_mm
                    ]) * tank.fill_height_mm * 1e-9
                    self.assertAlmostEqual(cut.volume.sum() / exact, 1, delta=1e-3)
                    sides = np.linalg.norm(np.roll(tank_plan(tank, tank.fill_height_mm / 2), -1, axis=0)
                                           - tank_plan(tank, tank.fill_height_mm / 2), axis=1).sum() / 1000
                    slant = tank.fill_height_mm / 1000 / np.cos(np.radians(tank.taper_deg))
                    self.assertAlmostEqual(cut.wall_area.sum() / (sides * slant), 1, delta=2e-3)

    def test_a_box_cut_by_its_outline_is_a_whole_box(self):
        x, y, z = np.linspace(0, 0.12, 9), np.linspace(0, 0.08, 6), np.linspace(0, 0.05, 5)
        outline = np.array([[0, 0], [0.12, 0], [0.12, 0.08], [0, 0.08]])
        cut, whole = cut_cells(lambda _: outline, x, y, z), whole_cells(x, y, z)
        for name in ("volume", "centre_x", "centre_y", "open_x", "open_y", "open_z"):
            with self.subTest(name):
                np.testing.assert_allclose(getattr(cut, name), getattr(whole, name), rtol=1e-9, atol=1e-15)
        per_cell = [np.bincount(one.wall_cell, one.wall_area, minlength=160) for one in (cut, whole)]
        np.testing.assert_allclose(*per_cell, rtol=1e-9)

    def test_resin_in_the_march_is_the_resin_that_is_poured(self):
        for scene in (quarry_pool(), eelgrass(), ferry_landing()):
            for grade in (DRAFT, FINE):
                with self.subTest(scene.name, grade=grade.name):
                    hasty = replace(grade, tolerance=Tolerance(temperature_k=50.0, degree=0.5))
                    marched = march(scene, cells_in(scene, grade), hasty, until=timed_pours(scene)[-1].start + 3600.0)
                    poured = sum(pour.fill.resin_volume_ml for pour in evaluate(scene, DRAFT, Keeper()).pours)
                    self.assertAlmostEqual(marched.resin_volume.sum() * 1e6 / poured, 1, delta=0.005)

    def test_air_that_stays_is_no_resin_in_the_march(self):
        from test_traps import CUP, scene_with, walls

        scene = scene_with([walls(*CUP)])
        pours = [scene.pours[0].model_copy(update={"top_depth_mm": 0.0})]
        scene = scene.model_copy(update={"pours": pours})
        outcome = evaluate(scene, DRAFT, Keeper())
        self.assertAlmostEqual(outcome.pours[0].fill.trapped_ml, 36 * 36 * 28 / 1000, delta=0.2)
        for grade in (DRAFT, FINE):
            with self.subTest(grade.name):
                made = march(scene, cells_in(scene, grade), grade, until=timed_pours(scene)[-1].start + 3600.0)
                self.assertAlmostEqual(
                    made.resin_volume.sum() * 1e6 / outcome.pours[0].fill.resin_volume_ml, 1, delta=0.005
                )

    def test_a_pocket_counts_with_more_inertia_than_air_has_and_it_does_not_matter(self):
        from unittest import mock

        from test_traps import CUP, scene_with, walls

        from gondola_core.cure import box

        scene = scene_with([walls(*CUP)])
        scene = scene.model_copy(update={"pours": [scene.pours[0].model_copy(update={"top_depth_mm": 0.0})]})
        cells = cells_in(scene, DRAFT)
        peaks = []
        for inertia in (box.AIR_INERTIA, box.AIR_INERTIA / 20):
            with mock.patch.object(box, "AIR_INERTIA", inertia):
                made = march(scene, cells, DRAFT, until=timed_pours(scene)[-1].start + 2 * 86400.0)
            peaks.append(float(np.nanmax(made.peak_c)))
        self.assertAlmostEqual(peaks[0], peaks[1], delta=0.3)

    def test_peaks_rise_in_order_with_the_lean_of_the_walls(self):
        for name, shape in (("box", None), ("round", Round(kind="round"))):
            for grade in (DRAFT, FINE):
                peaks = []
                for lean in (0.0, 1.0, 2.0, 3.0, 5.0, 8.0, 12.0):
                    scene = two_pours(20.0, 23.0, 30.0)
                    scene = scene.model_copy(update={
                        "tank": tank_of(110, 110, 50, shape, lean), "pours": scene.pours[1:],
                    })
                    cells = cells_in(scene, grade)
                    marched = march(scene, cells, grade, until=timed_pours(scene)[-1].start + AFTER_LAST_POUR / 7)
                    peaks.append(float(np.nanmax(marched.peak_c)))
                for lower, higher in pairwise(peaks):
                    with self.subTest(name, grade=grade.name, peaks=peaks):
                        self.assertGreater(higher, lower)


class History(unittest.TestCase):
    def test_the_history_that_is_scrubbed_lost_the_peak_of_a_run_away(self):
        for scene in (quarry_pool(), eelgrass(), ferry_landing()):
            outcome = evaluate(scene, DRAFT, Keeper())
            numbers = outcome.heat.pour_number
            for pour in outcome.pours:
                with self.subTest(scene.name, pour=pour.number):
                    curve = [
                        row[level] for row in outcome.history.hottest_c for level, number in enumerate(numbers)
                        if number == pour.number and row[level] is not None
                    ]
                    self.assertAlmostEqual(max(curve), pour.heat.cure.peak_c, delta=0.2)

    def test_rows_follow_the_change(self):
        outcome = evaluate(ferry_landing(), DRAFT, Keeper())
        at = np.array(outcome.history.at_h)
        self.assertLessEqual(len(at), 200)
        self.assertTrue((np.diff(at) >= 0).all())
        hot = max(outcome.pours, key=lambda pour: pour.heat.cure.peak_c)
        peak = hot.clock.start_h + hot.heat.cure.peak_at_h
        near = np.diff(at[np.abs(at - peak) < 0.5])
        self.assertLess(np.median(near), np.median(np.diff(at)))


if __name__ == "__main__":
    unittest.main()
