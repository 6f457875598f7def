import io
import unittest

import numpy as np
from PIL import Image

from gondola_core.answers.kept import Keeper
from gondola_core.samples import eelgrass, ferry_landing, quarry_pool
from gondola_core.scene import scene_from
from gondola_core.tint import water_of
from gondola_core.tint.colour import encode_srgb, linear_srgb, reflectance_of_hex
from gondola_core.views.picture import picture, png_of


def scene_with(figures=None, **changes):
    document = quarry_pool().model_dump(mode="json")
    if figures is not None:
        document["figures"] = figures(document["figures"])
    for path, value in changes.items():
        spot, last = document, path.split("__")
        for part in last[:-1]:
            spot = spot[int(part) if part.isdigit() else part]
        spot[int(last[-1]) if last[-1].isdigit() else last[-1]] = value
    return scene_from(document)


def shown(scene, view="front", width=360):
    return picture(scene, view, width, {}, Keeper())


def none(_figures):
    return []


class Front(unittest.TestCase):
    def test_back_wall_has_the_colour_of_the_model(self):
        for light in ("lamp_above", "room", "mixed", "lit_from_behind"):
            scene = scene_with(none, bed__heights_mm=[[0, 0], [0, 0]], brief__light=light)
            image = shown(scene)
            self.assertEqual(image.shape, (240, 360, 3))
            water = water_of(scene)
            wall = reflectance_of_hex(scene.brief.backdrop_srgb)
            for depth_mm in (10, 30, 60, 110):
                with self.subTest(light, depth_mm=depth_mm):
                    exact = encode_srgb(linear_srgb(water.seen(wall, depth_mm / 1000, water.behind)))
                    found = image[round(depth_mm * 2), 100].astype(float)
                    self.assertLess(np.abs(found - exact).max(), 3)

    def test_hazy_water_has_the_veil_of_the_model(self):
        white = {
            "id": "milk", "name": "milk", "form": "white", "drop_g": 0.04, "bands": [],
            "scatter_per_mm": 0.02, "scatter_cosine": 0.7,
        }
        scene = scene_with(none, bed__heights_mm=[[0, 0], [0, 0]], colourants=[white], pours=[
            {**pour, "doses": [{"colourant_id": "milk", "dose_drops_per_100g": 1.0}]}
            for pour in quarry_pool().model_dump(mode="json")["pours"]
        ])
        water = water_of(scene)
        wall = reflectance_of_hex(scene.brief.backdrop_srgb)
        image = shown(scene)
        for depth_mm in (20, 60, 100):
            with self.subTest(depth_mm):
                exact = encode_srgb(linear_srgb(water.seen(wall, depth_mm / 1000, water.behind)))
                self.assertLess(np.abs(image[depth_mm * 2, 180].astype(float) - exact).max(), 3)

    def test_a_step_in_the_bed_stands_where_it_is(self):
        rows = [[0.0, 0.0], [0.0, 0.0], [60.0, 60.0], [60.0, 60.0]]
        image = shown(scene_with(none, bed__heights_mm=rows))
        below, above = image[200, 180].astype(int), image[40, 180].astype(int)
        self.assertGreater(np.abs(below - above).sum(), 60)

    def test_a_figure_is_where_it_was_put_and_darker_further_back(self):
        seen = {}
        for behind in (10, 90):
            def alone(figures, behind=behind):
                one = next(each for each in figures if each["id"] == "pike")
                one = {**one, "paint_srgb": "#e8e8e0", "zones": {}, "turn_deg": 0,
                       "place": {"x_mm": 90, "behind_mm": behind, "height_mm": 60}}
                return [one]

            bare = shown(scene_with(none))
            image = shown(scene_with(alone))
            changed = np.abs(image.astype(int) - bare).sum(axis=2) > 12
            rows, columns = np.nonzero(changed)
            # 60 mm above the floor is 60 mm down at two pixels to the mm
            self.assertAlmostEqual(float(np.median(rows)), 120, delta=8)
            self.assertAlmostEqual(float(np.median(columns)), 180, delta=24)
            seen[behind] = float(image[changed].mean())
        self.assertGreater(seen[10], seen[90])

    def test_what_stands_above_throws_a_soft_shadow(self):
        flat = {"bed__heights_mm": [[20.0, 20.0], [20.0, 20.0]]}

        def raft(figures):
            wagon = next(each for each in figures if each["id"] == "wagon")
            return [{**wagon, "place": {"x_mm": 90, "behind_mm": 60, "height_mm": 45}}]

        bare, under = (
            shown(scene_with(one, **flat), "above").astype(float).mean(axis=2) for one in (none, raft)
        )
        darker = bare - under
        rows, columns = darker.shape
        x = (np.arange(columns) + 0.5) / 2 - 90
        y = (rows - np.arange(rows) - 0.5) / 2 - 60
        way = np.hypot(x[None, :], y[:, None])
        beside = (np.abs(x)[None, :] < 6) & (np.abs(y)[:, None] < 11) & (np.abs(y)[:, None] > 9)
        near, far = darker[beside], darker[way > 75]
        self.assertGreater(near.mean(), 1.0)
        self.assertLess(np.abs(far).max(), 1)


class Views(unittest.TestCase):
    def test_each_sample_from_each_side(self):
        for make in (quarry_pool, eelgrass, ferry_landing):
            scene = make()
            for view in ("front", "side", "above"):
                with self.subTest(scene.name, view=view):
                    image = shown(scene, view, 200)
                    self.assertEqual(image.shape[2], 3)
                    spread = image.reshape(-1, 3).astype(float).std(axis=0)
                    self.assertGreater(spread.max(), 6)

    def test_kept_scenery_gives_the_same_picture_after_a_dose(self):
        keeper = Keeper()
        plain = quarry_pool()
        document = plain.model_dump(mode="json")
        document["pours"][1]["doses"][0]["dose_drops_per_100g"] += 0.4
        darker = scene_from(document)
        picture(plain, "front", 240, {}, keeper)
        np.testing.assert_array_equal(
            picture(darker, "front", 240, {}, keeper), shown(darker, "front", 240)
        )

    def test_png_opens_as_the_same_picture(self):
        image = shown(quarry_pool())
        opened = np.asarray(Image.open(io.BytesIO(png_of(image))))
        np.testing.assert_array_equal(opened, image)
