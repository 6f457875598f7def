"""The stager's front: its numbers, what the search finds, and what the shown plans hold to."""

import unittest
from dataclasses import replace

from soaked import as_many
from taken import taken

from gondola_core.answers.book import Book
from gondola_core.answers.kept import Keeper
from gondola_core.errors import GondolaError
from gondola_core.evaluate import FINE, evaluate
from gondola_core.materials import load_library
from gondola_core.samples import eelgrass, ferry_landing, quarry_pool
from gondola_core.scene import Dose
from gondola_core.scene.brief import FreeHours
from gondola_core.scene.edits import apply_edit
from gondola_core.scene.schedule import is_free, pour_starts_h
from gondola_core.studies.fill_line import fill_line
from gondola_core.studies.front import GOALS, front_for
from gondola_core.studies.front.plans import alike, likely, most_unlike, ordered, stops_told
from gondola_core.studies.front.screen import Screen, sessions
from gondola_core.studies.front.search import Search, dominates, joined
from gondola_core.studies.front.way import AFTER_HARD, THINNEST_MM, Way, even_tops, laid, way_of


def way(tops=(30.0, 0.0), **more):
    held = {"resin_ids": ("deep",) * len(tops), "mix_c": 22.0, "fan": False, "sealed": True, "aim": 0.4}
    return Way(tops_mm=tuple(tops), **{**held, **more})


def book_of(scene):
    return Book(scene, keeper=Keeper())


class Ways(unittest.TestCase):
    def test_even_lines(self):
        for fill, count, tops in ((120, 1, (0.0,)), (120, 3, (80.0, 40.0, 0.0)), (55, 2, (27.5, 0.0))):
            with self.subTest(count=count):
                self.assertEqual(even_tops(fill, count), tops)

    def test_a_laid_way_is_read_back(self):
        scene = quarry_pool()
        one = way((80.0, 40.0, 0.0), fan=True, aim=0.5)
        self.assertEqual(way_of(laid(scene, one)), one)
        self.assertEqual([pour.wait_h for pour in laid(scene, one, [0.0, 20.0, 25.0]).pours], [0.0, 20.0, 25.0])

    def test_sessions_are_times_at_the_bench(self):
        for starts, count in (([0.0], 1), ([0.0, 1.0, 2.0], 1), ([0.0, 20.0, 40.0], 3), ([0.0, 20.0, 21.0], 2)):
            with self.subTest(starts=starts):
                self.assertEqual(sessions(starts), count)


class Screening(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.screen = Screen(book_of(eelgrass()))
        cls.two = cls.screen(way())

    def test_what_is_poured_over_the_label_is_stopped(self):
        self.assertIn("too_deep", self.screen(way((0.0,))).stops)
        self.assertEqual(self.screen(way((0.0,))).stop_fraction, 1.0)

    def test_a_way_that_stops_nothing_has_a_chance_between(self):
        self.assertEqual(self.two.stops, ())
        self.assertTrue(0 <= self.two.stop_fraction < 0.5)

    def test_a_later_pour_is_surer_not_to_be_early(self):
        early, late = (self.screen(way(aim=aim)).stop_fraction for aim in (0.05, 0.6))
        self.assertLess(late, early)

    def test_who_waits_until_it_is_hard_comes_after_the_tack_and_is_not_called_early_or_late(self):
        late = self.screen(way(aim=AFTER_HARD))
        self.assertGreater(late.scene.pours[1].wait_h, late.cures[0].tack_closes_h)
        self.assertEqual(late.stops, ())
        self.assertLess(late.stop_fraction, self.two.stop_fraction + 1e-9)

    def test_waits_meet_the_tack(self):
        start = self.two.scene.pours[1].wait_h
        cure = self.two.cures[0]
        self.assertTrue(cure.tack_opens_h <= start <= cure.tack_closes_h)

    def test_a_seal_coat_is_a_session_of_its_own(self):
        open_bed = eelgrass().model_copy(update={"bed": eelgrass().bed.model_copy(update={"sealed": False})})
        screen = Screen(book_of(open_bed))
        self.assertEqual(screen(way()).sessions_count, screen(way(sealed=False)).sessions_count + 1)


class Searching(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.scene = eelgrass()
        cls.search = cls.searched(1)

    @classmethod
    def searched(cls, seed, count=110):
        search = Search(cls.scene, book_of(cls.scene), ["deep"], seed)
        search.run(count, lambda _: None)
        return search

    def test_none_of_the_front_is_bettered(self):
        for one in self.search.front:
            self.assertFalse(any(dominates(other, one) for other in self.search.seen.values()))

    def test_what_is_bettered_leaves_the_front(self):
        one = self.search.front[0]
        better = replace(one, days_d=one.days_d - 1)
        self.assertEqual(joined([one], better), [better])
        self.assertEqual(joined([better], one), [better])

    def test_every_way_keeps_its_lines_in_order_and_apart(self):
        fill = self.scene.tank.fill_height_mm
        for one in self.search.seen:
            self.assertGreaterEqual(min(one.depths_mm(fill)), THINNEST_MM - 1e-9)
            self.assertEqual(one.tops_mm[-1], 0.0)
            self.assertEqual(len(one.tops_mm), len(one.resin_ids))

    def test_the_same_seed_sees_the_same_ways(self):
        self.assertEqual(list(self.searched(1, 45).seen), list(self.searched(1, 45).seen))
        self.assertNotEqual(list(self.searched(1, 45).seen), list(self.searched(2, 45).seen))

    def test_the_best_of_two_pours_by_trying_them_all_is_found(self):
        """Every line of two pours on a grid of 2 mm: the search meets one that shows as little, or less."""
        fill = self.scene.tank.fill_height_mm
        screen = Screen(book_of(self.scene))
        grid = [float(top) for top in range(int(fill) - 50 + 1, 51, 2)]
        every = [made for made in (screen(way((top, 0.0))) for top in grid) if not made.stops]
        best = min(one.clarity_de00 for one in every)
        found = min(
            one.clarity_de00 for one in self.search.seen.values() if not one.stops and len(one.way.tops_mm) == 2
        )
        self.assertLessEqual(found, best * 1.05 + 0.02)

    def test_shown_ones_are_ordered_by_their_goal_and_differ(self):
        ways = likely(list(self.search.seen.values()))
        for at, goal in enumerate(GOALS):
            with self.subTest(goal):
                values = [one.five[at] for one in ordered(ways, goal)]
                self.assertLessEqual(values[0], min(values) + 0.02 * (max(values) - min(values)) + 1e-9)
        first = ordered(ways, "soonest")[0]
        self.assertTrue(alike(first, first))
        other = most_unlike(ways, [first])
        self.assertFalse(alike(first, other))


class Shown(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.shares = []
        cls.scene = ferry_landing()
        cls.front = front_for(
            cls.scene, ["deep", "casting"], keeper=Keeper(), told=cls.shares.append, count=as_many(24, 12),
            matters=["surest"],
        )

    def test_own_and_one_deep_are_rows_too(self):
        keys = [plan.key for plan in self.front.plans]
        self.assertEqual((keys[0], keys[-1]), ("own", "one_deep"))
        self.assertIsNone(self.front.plans[0].remedy)
        self.assertFalse(self.front.plans[0].clear)
        self.assertTrue(self.front.plans[0].stops)

    def test_every_proposed_plan_clears_every_stop_on_fine_cells(self):
        proposed = self.front.plans[1:-1]
        self.assertTrue(proposed)
        for plan in proposed:
            with self.subTest(plan.name):
                self.assertTrue(plan.clear)
                fine = evaluate(taken(self.scene, plan.remedy), FINE, Keeper())
                self.assertEqual(stops_told(fine.flags), [])
                self.assertLess(plan.stop_fraction, 1.0)
                self.assertTrue(plan.reason and plan.gives_up)
                self.assertEqual(plan.days_d, round(fine.whole.demould_h / 24, 2))

    def test_progress_runs_to_its_end(self):
        self.assertEqual(self.shares, sorted(self.shares))
        self.assertEqual(self.shares[-1], 1.0)

    def test_nothing_binds_where_some_plan_is_clear(self):
        self.assertEqual((self.front.binds, self.front.frees), ([], []))

    def test_a_stop_that_no_pouring_answers_is_not_counted_against_a_plan(self):
        milk = eelgrass()
        paint = load_library().colourants["white-craft-paint"]
        pours = [
            pour.model_copy(update={"doses": [Dose(colourant_id=paint.id, dose_drops_per_100g=1.0)]})
            for pour in milk.pours
        ]
        front = front_for(
            milk.model_copy(update={"colourants": [paint], "pours": pours}), ["deep"], keeper=Keeper(), count=8
        )
        for plan in front.plans[1:-1]:
            self.assertTrue(plan.clear)
            self.assertLess(plan.stop_fraction, 1.0)

    def test_water_as_shallow_as_a_film_is_poured_in_one(self):
        change = fill_line(quarry_pool(), 3.0)
        shallow = apply_edit(quarry_pool(), change.operations, change.digest)
        front = front_for(shallow, ["deep"], keeper=Keeper(), count=6)
        self.assertEqual({plan.pours_count for plan in front.plans}, {1})

    def test_a_resin_that_is_not_there_is_refused(self):
        with self.assertRaisesRegex(GondolaError, "honey"):
            front_for(self.scene, ["honey"])


class Weekends(unittest.TestCase):
    def test_pours_are_laid_on_the_days_that_are_free(self):
        scene = quarry_pool()
        free = FreeHours(weekday=None, weekend=[8.0, 22.0])
        first = scene.brief.first_pour_at
        saturday = first.replace(day=first.day + (5 - first.weekday()) % 7, hour=9)
        brief = scene.brief.model_copy(update={"free": free, "first_pour_at": saturday})
        scene = scene.model_copy(update={"brief": brief})
        front = front_for(scene, ["deep"], keeper=Keeper(), count=as_many(16, 8))
        self.assertGreater(len(front.plans), 2)
        for plan in front.plans[1:-1]:
            with self.subTest(plan.name):
                pours = taken(scene, plan.remedy).pours
                self.assertTrue(all(is_free(saturday, free, at) for at in pour_starts_h(pours)))
                self.assertLess(plan.stop_fraction, 0.5)


class Bound(unittest.TestCase):
    def test_where_nothing_clears_it_the_limit_is_named_and_changes_are_tried(self):
        """A dam sealed with something that melts in the hand."""
        scene = eelgrass()
        soft = scene.tank.seal.material.model_copy(update={"limit_c": 30.0, "name": "soft wax", "id": "soft-wax"})
        seal = scene.tank.seal.model_copy(update={"material": soft})
        warm = scene.brief.room.model_copy(update={"day_c": 34.0, "night_c": 32.0})
        scene = scene.model_copy(update={
            "tank": scene.tank.model_copy(update={"seal": seal}),
            "brief": scene.brief.model_copy(update={"room": warm}),
        })
        front = front_for(scene, ["deep"], keeper=Keeper(), count=12)
        self.assertFalse(any(plan.clear for plan in front.plans))
        self.assertIn("soft wax", " ".join(front.binds))
        first = front.frees[0]
        self.assertTrue(first.clears)
        self.assertIn("seal the dam", first.words)
        self.assertNotEqual(taken(scene, first.remedy).tank.seal, seal)
        self.assertFalse(all(one.clears for one in front.frees))
