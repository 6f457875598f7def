"""From a few answers to a plan: free hours, waits, figures that find a place, the fill line, the starts."""

import unittest
from datetime import datetime

from gondola_core.answers.bodies import BODIES
from gondola_core.answers.book import Book
from gondola_core.answers.figure_facts import FIGURE_FACTS
from gondola_core.checks import Severity
from gondola_core.errors import GondolaError
from gondola_core.evaluate import evaluate
from gondola_core.samples import blank, quarry_pool
from gondola_core.scene import Units, scene_from
from gondola_core.scene.brief import FreeHours
from gondola_core.scene.edits import apply_edit
from gondola_core.scene.schedule import free_moment_h, is_free, next_free_h, pour_starts_h
from gondola_core.shape.templates import KINDS, new_figure
from gondola_core.studies.begin import Beginning, Usual, Wanted, begin, begun_json
from gondola_core.studies.fill_line import fill_line, usual_wall_mm
from gondola_core.studies.placing import APART_MM, Spot, place_figure
from gondola_core.studies.starts import STARTS, begin_like

NOW = datetime(2026, 11, 25, 18, 20)
FRIDAY = datetime(2027, 3, 5, 9, 0)
WEEKENDS = FreeHours(weekday=None, weekend=[8.0, 20.0])
EVENINGS = FreeHours(weekday=[17.0, 22.0], weekend=[8.0, 22.0])


class Hours(unittest.TestCase):
    def test_is_free(self):
        rows = [
            (None, 3.0, True), (EVENINGS, 0.0, False), (EVENINGS, 8.0, True), (EVENINGS, 13.1, False),
            (EVENINGS, 23.0, True), (EVENINGS, 13.0, True), (WEEKENDS, 8.0, False), (WEEKENDS, 24.0, True),
            (WEEKENDS, 71.0, False),
        ]
        for free, at_h, expected in rows:
            with self.subTest(free=free, at_h=at_h):
                self.assertEqual(is_free(FRIDAY, free, at_h), expected)

    def test_nearest_free_moment(self):
        rows = [
            (None, 10.0, 20.0, 15.0, 15.0), (EVENINGS, 9.0, 12.0, 10.0, 10.0), (EVENINGS, 1.0, 7.0, 4.0, None),
            (EVENINGS, 5.0, 20.0, 6.0, 8.0), (EVENINGS, 12.0, 25.0, 21.0, 23.0), (WEEKENDS, 20.0, 40.0, 36.0, 35.0),
        ]
        for free, low, high, wished, expected in rows:
            with self.subTest(free=free, low=low):
                self.assertEqual(free_moment_h(FRIDAY, free, low, high, wished), expected)

    def test_next_free_hour(self):
        for free, after, expected in ((None, 5.0, 5.0), (EVENINGS, 0.0, 8.0), (WEEKENDS, 60.0, 191.0)):
            with self.subTest(free=free):
                self.assertEqual(next_free_h(FRIDAY, free, after), expected)

    def test_hours_that_are_none(self):
        for hours, part in (({"weekday": None, "weekend": None}, "no free hour"), ({"weekday": [9, 9]}, "earlier to")):
            document = quarry_pool().model_dump(mode="json")
            document["brief"]["free"] = hours
            with self.subTest(part), self.assertRaisesRegex(GondolaError, part):
                scene_from(document)


class Plans(unittest.TestCase):
    def test_every_look_and_resin_gives_a_plan_without_a_stop(self):
        rows = [
            Beginning(), Beginning(water="clear", bed="level", figures=[]),
            Beginning(usual=Usual(resin_id="casting"), deep_mm=60.0, water="blue", bed="reef"),
            Beginning(walls_stay=True, usual=Usual(wall="glass", units=Units(length="in")), water="murky"),
            Beginning(
                width_mm=160.0, behind_mm=120.0, deep_mm=200.0,
                usual=Usual(base="foam", seal="hot-glue", free=WEEKENDS),
                figures=[Wanted(kind="plank", count=3), Wanted(kind="post", count=4), Wanted(kind="fish", count=2)],
            ),
        ]
        for beginning in rows:
            with self.subTest(deep=beginning.deep_mm, water=beginning.water):
                begun = begin(beginning, NOW)
                self.assertEqual(begun.stops_count, 0)
                self.assertEqual(
                    [flag for flag in evaluate(begun.scene).flags if flag.severity is Severity.STOP], []
                )
                scene, free = begun.scene, beginning.usual.free
                self.assertGreater(scene.brief.first_pour_at, NOW)
                for at_h in pour_starts_h(scene.pours):
                    self.assertTrue(is_free(scene.brief.first_pour_at, free, at_h), at_h)

    def test_what_it_says_adds_up(self):
        begun = begin(Beginning(usual=Usual(price_per_kg=20.0)), NOW)
        mass = evaluate(begun.scene).whole.all_pieces_mix_g
        told = begun.summary
        self.assertEqual(len(told.waits), len(begun.scene.pours) + 1)
        self.assertIn(f"{20.0 * mass / 1000:.2f}".rstrip("0"), told.cost[0])
        bought = next(words for words in told.buy if words.id == "begin.resin").values
        self.assertAlmostEqual(bought["a"] + bought["b"], 1.1 * mass, delta=0.01 * mass)
        self.assertIn("begin.generic", [words.id for words in told.unknown])
        self.assertNotIn("begin.price", [words.id for words in told.unknown])

    def test_it_speaks_inches(self):
        begun = begin(Beginning(usual=Usual(units=Units(length="in", temperature="f", mass="oz", volume="floz"))), NOW)
        said = begun_json(begun).decode()
        summary = said[said.index('"summary"'):]
        self.assertIn("oz", summary)
        for word in (" mm", " °C", " ml", " g "):
            self.assertNotIn(word, summary)

    def test_what_is_not_there(self):
        rows = [
            (Beginning(usual=Usual(resin_id="amber")), "amber"), (Beginning(bed_material="cheese"), "cheese"),
            (Beginning(figures=[Wanted(kind="castle")]), "castle"),
        ]
        for beginning, part in rows:
            with self.subTest(part), self.assertRaisesRegex(GondolaError, part):
                begin(beginning, NOW)

    def test_starts(self):
        self.assertEqual(len(STARTS), 6)
        for key in STARTS:
            with self.subTest(key):
                begun = begin_like(key, FRIDAY)
                self.assertEqual(begun.stops_count, 0)
                self.assertEqual(begun.scene.brief.first_pour_at, FRIDAY)
        with self.assertRaisesRegex(GondolaError, "no start called 'moon'"):
            begin_like("moon", FRIDAY)


class Placing(unittest.TestCase):
    def test_ten_kinds_stand_apart_and_are_held(self):
        scene = blank("x", FRIDAY)
        for kind in KINDS:
            scene = scene.model_copy(update={"figures": [*scene.figures, place_figure(scene, new_figure(scene, kind))]})
        book = Book(scene)
        bodies = book.ask(BODIES)
        for at, one in enumerate(bodies):
            for other in bodies[:at]:
                apart = (one.least >= other.most) | (one.most <= other.least)
                self.assertTrue(apart.any(), scene.figures[at].id)
            self.assertGreaterEqual(one.least.min(), -0.01)
        held = {fact.figure_id: any(w.holds for w in fact.ways) for fact in book.ask(FIGURE_FACTS)}
        self.assertTrue(all(held.values()), held)
        self.assertEqual([f for f in evaluate(scene).flags if f.severity is Severity.STOP], [])

    def test_dropped_where_it_is_let_go(self):
        scene = quarry_pool().model_copy(update={"figures": []})
        fish, post = new_figure(scene, "fish"), new_figure(scene, "post")
        swims = place_figure(scene, fish, Spot(x_mm=120.0, behind_mm=40.0, depth_mm=20.0))
        self.assertEqual((swims.place.x_mm, swims.place.behind_mm), (120.0, 40.0))
        self.assertAlmostEqual(120 - swims.place.height_mm, 18.0, delta=1.0)
        stands = place_figure(scene, post, Spot(x_mm=120.0, behind_mm=60.0))
        body = Book(scene.model_copy(update={"figures": [stands]})).ask(BODIES)[0]
        self.assertAlmostEqual(body.gap_below_mm, 0.0, delta=0.2)

    def test_nudged_off_the_one_that_is_there(self):
        scene = quarry_pool().model_copy(update={"figures": []})
        first = place_figure(scene, new_figure(scene, "fish"), Spot(x_mm=120.0, behind_mm=40.0, depth_mm=20.0))
        scene = scene.model_copy(update={"figures": [first]})
        second = place_figure(scene, new_figure(scene, "fish"), Spot(x_mm=120.0, behind_mm=40.0, depth_mm=20.0))
        one, other = Book(scene.model_copy(update={"figures": [first, second]})).ask(BODIES)
        gaps = [max(a, b) for a, b in zip(one.least - other.most, other.least - one.most, strict=True)]
        self.assertGreaterEqual(max(gaps), APART_MM - 0.1)


class FillLine(unittest.TestCase):
    def filled(self, scene, fill_mm):
        made = fill_line(scene, fill_mm)
        return apply_edit(scene, made.operations, made.digest)

    def test_walls_and_pours_follow(self):
        scene = blank("x", FRIDAY)
        deep = self.filled(scene, 200.0)
        self.assertEqual(deep.tank.wall_height_mm, usual_wall_mm(200.0))
        self.assertEqual(len(deep.pours), 4)
        self.assertEqual([f for f in evaluate(deep).flags if f.severity is Severity.STOP], [])
        a_little = self.filled(scene, 80.0)
        self.assertEqual([pour.top_depth_mm for pour in a_little.pours], [40.0, 0.0])

    def test_walls_set_by_hand_stay_while_they_hold(self):
        scene = blank("x", FRIDAY)
        high = scene.model_copy(update={"tank": scene.tank.model_copy(update={"wall_height_mm": 150.0})})
        for fill, wall in ((100.0, 150.0), (149.0, 161.0)):
            with self.subTest(fill=fill):
                self.assertEqual(self.filled(high, fill).tank.wall_height_mm, wall)

    def test_sheet_is_thickened_where_it_would_bulge(self):
        scene = blank("x", FRIDAY)
        wide = scene.model_copy(update={"tank": scene.tank.model_copy(update={
            "inner_width_mm": 400.0, "inner_behind_mm": 200.0,
            "wall": scene.tank.wall.model_copy(update={"thickness_mm": 2.0}),
        })})
        deep = self.filled(wide, 200.0)
        self.assertGreater(deep.tank.wall.thickness_mm, 2.0)
        self.assertNotIn("dam_bulges", [flag.code for flag in evaluate(deep).flags if flag.severity != Severity.NOTE])

    def test_what_lay_on_a_line_lies_on_one_again(self):
        scene = blank("x", FRIDAY)
        fish = place_figure(scene, new_figure(scene, "fish"))
        deep = self.filled(scene.model_copy(update={"figures": [fish]}), 200.0)
        self.assertEqual(deep.figures[0].place.height_mm, 100.0)

    def test_no_such_water(self):
        for fill in (1.0, 700.0):
            with self.subTest(fill=fill), self.assertRaisesRegex(GondolaError, "The fill line has to be"):
                fill_line(blank("x", FRIDAY), fill)
