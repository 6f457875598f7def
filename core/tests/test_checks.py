"""The register of checks: each has a source, sentences, a scene that raises it and one that just does not."""

import tomllib
import unittest
from importlib import resources

from changed import changed
from taken import taken
from test_fill import FLAT, figure
from test_traps import CUP, scene_with, walls

from gondola_core.answers.book import Book
from gondola_core.answers.grades import DRAFT
from gondola_core.answers.kept import Keeper
from gondola_core.checks import CHECKS, Severity, told_remedy
from gondola_core.checks.telling import found_in, reader_units, told_flag
from gondola_core.evaluate import evaluate
from gondola_core.materials import load_library
from gondola_core.samples import eelgrass, ferry_landing, quarry_pool
from gondola_core.scene import Box, Figure, edits
from gondola_core.words import METRIC, US, sentence_ids

LIBRARY = load_library()
SOLIDS = LIBRARY.solids
KEEPER = Keeper(most=600)


def solid(key):
    return SOLIDS[key].model_dump(mode="json")


def one_pour(resin="deep", depth_mm=50.0, night_c=22.0, **more):
    """A flat bed of plaster under one pour in the quarry's tank."""
    scene = quarry_pool()
    pour = scene.pours[-1].model_copy(update={"wait_h": 0.0, "doses": [], "resin_id": resin})
    tank = scene.tank.model_copy(update={"fill_height_mm": depth_mm, "wall_height_mm": depth_mm + 12})
    room = scene.brief.room.model_copy(update={"night_c": night_c, "day_c": max(night_c, 22.0)})
    return scene.model_copy(update={
        "pours": [pour], "tank": tank.model_copy(update=more.get("tank", {})), "figures": more.get("figures", []),
        "bed": FLAT.model_copy(update={"sealed": True}), "resins": [LIBRARY.resins[resin]],
        "brief": scene.brief.model_copy(update={"room": room}),
    })


def with_ball(**more):
    """One block in mid-water of the quarry pool."""
    block = figure(Box(kind="box", centre_mm=[0, 0, 0], size_mm=[20, 12, 8]), x=90.0, behind=60.0, height=70.0)
    whole = Figure.model_validate(block.model_dump(mode="json") | more)
    return quarry_pool().model_copy(update={"figures": [whole]})


def tub(wall_top):
    """A tub on the floor, its rim at a height."""
    return on_plan(*((30, 70, 20, 60, 0, 2), (30, 32, 20, 60, 0, wall_top), (68, 70, 20, 60, 0, wall_top),
                             (30, 70, 20, 22, 0, wall_top), (30, 70, 58, 60, 0, wall_top)))


def on_plan(*boxes):
    """Blocks in the small tank of the trap tests."""
    scene = scene_with([walls(*boxes)])
    return scene.model_copy(update={"pours": [scene.pours[-1].model_copy(update={"wait_h": 0.0})]})


def liner(draft, height=112.0):
    return with_ball(
        liner={"gap_mm": 0.5, "draft_deg": draft},
        place={"x_mm": 90.0, "behind_mm": 60.0, "height_mm": height},
    )


def lamp(tested):
    return with_ball(lamp={"limit_c": 80.0, "wire_to": "back", "tested": tested})


def made_of(key, holding):
    return with_ball(material=solid(key), holding=holding)


ROWS = {
    "no_room": (changed(bed__heights_mm=[[60, 60], [60, 60]]), quarry_pool()),
    "rough_draft": (
        changed(ferry_landing(), **{f"resins__{n}__order_n": 0.5 for n in range(3)}), changed(ferry_landing()),
    ),
    "too_deep": (one_pour(depth_mm=52.0), one_pour(depth_mm=49.0)),
    "too_much": (changed(resins__0__most_mix_g=400.0), changed(resins__0__most_mix_g=4000.0)),
    "too_hot": (changed(pours__1__resin_id="casting"), one_pour(depth_mm=25.0)),
    "may_crack": (changed(pours__1__resin_id="coating"), one_pour()),
    "cold_room": (changed(brief__room__night_c=17.9), changed(brief__room__night_c=18.1)),
    "never_hard": (one_pour(depth_mm=20.0, night_c=6.0).model_copy(update={
        "brief": changed(brief__room__night_c=6, brief__room__day_c=8).brief}), one_pour()),
    "too_early": (changed(pours__2__wait_h=6.0), quarry_pool()),
    "too_late": (changed(pours__3__wait_h=90.0), quarry_pool()),
    "maybe_early": (changed(pours__1__wait_h=22.0), changed(pours__1__wait_h=27.0)),
    "maybe_late": (changed(pours__1__wait_h=34.0), changed(pours__1__wait_h=27.0)),
    "ratio_off": (
        changed(resins__0__mixed_error_fraction=-0.021), changed(resins__0__mixed_error_fraction=-0.019)
    ),
    "hands_late": (changed(pours__1__hands_min=320.0), changed(pours__1__hands_min=200.0)),
    "dam_bulges": (changed(tank__wall__thickness_mm=1.0), changed(tank__wall__thickness_mm=6.0)),
    "draws_back": (changed(pours__2__top_depth_mm=1.4), changed(pours__2__top_depth_mm=4.0)),
    "no_release": (changed(tank__release="none", tank__wall__material=solid("glass")), changed(tank__release="wax")),
    "near_rim": (changed(tank__wall_height_mm=125.9), changed(tank__wall_height_mm=126.1)),
    "bed_not_sealed": (quarry_pool(), changed(bed__sealed=True)),
    "air_trap": (on_plan(*CUP), on_plan(CUP[0])),
    "dry_basin": (tub(20), tub(2)),
    "not_held": (made_of("balsa", "on_bed"), made_of("polymer-clay", "line")),
    "figure_hot": (changed(with_ball(), pours__1__resin_id="coating"), with_ball()),
    "lamp_untested": (lamp(False), lamp(True)),
    "liner_locked": (liner(2.0, height=80.0), liner(2.0, height=117.0)),
    "liner_draft": (liner(0.9, height=117.0), liner(1.1, height=117.0)),
    "flat_underside": (with_ball(), with_ball(tilt_deg=20.0)),
    "figure_outside": (changed(figures__0__place__x_mm=175.0), quarry_pool()),
    "figure_above": (changed(figures__2__place__height_mm=119.0), quarry_pool()),
    "milky": (
        changed(colourants__3__form="craft_paint"),
        changed(
            colourants__3__form="craft_paint", **{f"pours__{n}__doses__3__dose_drops_per_100g": 0 for n in range(4)}
        ),
    ),
    "figure_lost": (changed(pours__3__doses__2__dose_drops_per_100g=1.044), quarry_pool()),
    "not_free": (
        changed(brief__free={"weekday": [17, 22], "weekend": [8, 22]}),
        changed(brief__free={"weekday": [8, 22], "weekend": [8, 22]}),
    ),
    "after_deadline": (changed(brief__deadline="2027-03-09"), changed(brief__deadline="2027-03-11")),
    "over_budget": (
        changed(brief__price_per_kg=20.0, brief__budget=30.0), changed(brief__price_per_kg=20.0, brief__budget=60.0),
    ),
    "out_of_order": (
        changed(order=[{"id": "dam"}, {"id": "paint"}, {"id": "bed"}]), changed(order=[{"id": "bed"}, {"id": "paint"}]),
    ),
    "seam_shows": (changed(pours__0__doses__2__dose_drops_per_100g=2.0), eelgrass()),
}
FALLS = {"seam_shows", "too_hot", "may_crack", "hands_late", "too_deep", "too_much", "not_held"}
"""Checks whose remedy may leave a lesser finding."""
ELSEWHERE = {"may_float"}
"""Raised by test_bodies, which brings the mesh that it needs."""


def found(scene, code):
    return [finding for _, finding in found_in(Book(scene, DRAFT, KEEPER), [CHECKS[code]])]


class Register(unittest.TestCase):
    def test_every_check_has_a_row(self):
        self.assertEqual(set(CHECKS), set(ROWS) | ELSEWHERE)

    def test_each_is_raised_by_one_scene_and_just_not_by_another(self):
        for code, (raises, quiet) in ROWS.items():
            with self.subTest(code):
                self.assertTrue(found(raises, code), "not raised")
                self.assertEqual(found(quiet, code), [], "raised where it is not so")

    def test_each_rests_on_a_source_that_is_there(self):
        sources = tomllib.loads((resources.files("gondola_core") / "data" / "sources.toml").read_text("utf-8"))
        for code, check in CHECKS.items():
            with self.subTest(code):
                self.assertIn(check.source, {*sources, "assumed", "definition"})
                self.assertIn(check.stage, {"tank", "bed", "figures", "water", "pours", "bench"})
                self.assertTrue(check.find.__doc__)

    def test_each_has_its_sentence(self):
        for code in CHECKS:
            with self.subTest(code):
                self.assertTrue(any(one.startswith(f"flags.{code}.title") for one in sentence_ids()))
                self.assertTrue(any(one.startswith(f"flags.{code}.sentence") for one in sentence_ids()))

    def test_nothing_is_said_in_the_wrong_units(self):
        for code, (raises, _) in ROWS.items():
            for finding in found(raises, code):
                flag = told_flag(CHECKS[code], finding, US)
                for words in (flag.title, flag.sentence, *(one.label for one in flag.remedies)):
                    with self.subTest(code, words=words):
                        self.assertNotRegex(words.replace("per 100 g", ""), r"\d\s?(mm|cm|ml|g|kg|°C|C|K|gf|N)\b")
                metric = told_flag(CHECKS[code], finding, METRIC)
                for words in (metric.title, metric.sentence):
                    with self.subTest(code, words=words):
                        self.assertNotRegex(words, r"\d\s?(in|fl oz|oz|°F)\b")

    def test_remedies_are_those_that_the_check_names(self):
        for code, (raises, _) in ROWS.items():
            offered = [edit for finding in found(raises, code) for edit in finding.remedies]
            with self.subTest(code):
                self.assertEqual(bool(offered), bool(CHECKS[code].remedies))
                for name in CHECKS[code].remedies:
                    self.assertTrue(callable(getattr(edits, name)))

    def test_each_remedy_makes_its_flag_go_or_fall(self):
        for code, (raises, _) in ROWS.items():
            for at, finding in enumerate(found(raises, code)):
                for edit in finding.remedies:
                    remedy = told_remedy(edit, METRIC)
                    with self.subTest(code, at=at, remedy=remedy.label):
                        self.assert_better(code, finding, found(taken(raises, remedy), code))

    def assert_better(self, code, before, after):
        same = [
            one for one in after
            if one.where.figure_id == before.where.figure_id and one.where.pour_number == before.where.pour_number
        ]
        if code not in FALLS:
            self.assertEqual(same, [])
        for one in same:
            worse = {Severity.NOTE: 0, Severity.WATCH: 1, Severity.STOP: 2}
            self.assertLessEqual(worse[one.severity], worse[before.severity])
            self.assertLess(one.number / (one.limit or 1.0), before.number / (before.limit or 1.0))


class Flags(unittest.TestCase):
    def test_grades_and_places(self):
        rows = [
            ("too_hot", {}, Severity.WATCH, 2), ("too_hot", {"pours__1__resin_id": "casting"}, Severity.STOP, 2),
            ("may_crack", {"pours__1__resin_id": "coating"}, Severity.STOP, 2),
            ("too_early", {"pours__2__wait_h": 6.0}, Severity.STOP, 3),
            ("too_late", {"pours__3__wait_h": 90.0}, Severity.WATCH, 4),
            ("cold_room", {"brief__room__night_c": 12, "brief__room__day_c": 15}, Severity.WATCH, 1),
            ("figure_outside", {"figures__0__place__x_mm": 175}, Severity.STOP, None),
            ("near_rim", {"tank__wall_height_mm": 122.0}, Severity.WATCH, None),
            ("figure_lost", {"figures__1__paint_srgb": "#6cc090", "figures__1__place__behind_mm": 100,
                             "pours__1__doses__0__dose_drops_per_100g": 20.0}, Severity.WATCH, 2),
        ]
        for code, changes, severity, pour in rows:
            with self.subTest(code):
                told = [(one.severity, one.where.pour_number) for one in found(changed(**changes), code)]
                self.assertIn((severity, pour), told)

    def test_stops_come_first_and_each_says_its_stage(self):
        flags = evaluate(changed(pours__2__wait_h=6.0), keeper=KEEPER).flags
        order = [Severity.STOP, Severity.WATCH, Severity.NOTE]
        self.assertEqual([flag.severity for flag in flags], sorted((one.severity for one in flags), key=order.index))
        self.assertEqual({flag.code: flag.stage for flag in flags}["bed_not_sealed"], "bed")

    def test_coating_resin_poured_deep_runs_away(self):
        scene = changed(**{f"pours__{n}__resin_id": "coating" for n in range(4)})
        titles = [flag.title for flag in evaluate(scene, keeper=KEEPER).flags if flag.code == "too_hot"]
        self.assertIn("Pour 2 runs away, over 100 °C", titles)

    def test_splitting_the_hot_pour_lowers_its_peak(self):
        scene = quarry_pool()
        flag = next(flag for flag in evaluate(scene, keeper=KEEPER).flags if flag.code == "too_hot")
        tried = evaluate(taken(scene, flag.remedies[0]), keeper=KEEPER)
        self.assertEqual(len(tried.pours), 5)
        before = evaluate(scene, keeper=KEEPER).pours[1].heat.cure.peak_c
        self.assertLess(max(pour.heat.cure.peak_c for pour in tried.pours), before - 15)

    def test_flags_are_said_in_the_units_of_the_brief(self):
        us = {"length": "in", "temperature": "f", "volume": "floz", "mass": "oz"}
        flags = evaluate(changed(brief__units=us), keeper=KEEPER).flags
        self.assertIn("Pour 2 is 2 1/16 in deep", [flag.title for flag in flags])
        self.assertEqual(reader_units(changed(brief__units=us).brief.units), US)
