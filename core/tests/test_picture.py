import io
import unittest

import numpy as np
from PIL import Image

from gondola_core.picture import front_picture, png_of
from gondola_core.samples import quarry_pool
from gondola_core.scene import scene_from
from gondola_core.tint import water_of
from gondola_core.tint.colour import encode_srgb, linear_srgb, reflectance_of_hex


def scene_with(**changes):
    document = quarry_pool().model_dump(mode="json")
    for path, value in changes.items():
        spot, last = document, path.split("__")
        for part in last[:-1]:
            spot = spot[part]
        spot[last[-1]] = value
    return scene_from(document)


class FrontPicture(unittest.TestCase):
    def test_back_wall_has_the_colour_of_the_model(self):
        scene = scene_with(bed__heights_mm=[[0, 0], [0, 0]])
        picture = front_picture(scene)
        self.assertEqual(picture.shape, (240, 360, 3))
        water = water_of(scene)
        wall = reflectance_of_hex(scene.brief.backdrop_srgb)
        for depth_mm in (10, 30, 60, 110):
            with self.subTest(depth_mm):
                exact = encode_srgb(
                    linear_srgb(water.seen(wall, depth_mm / 1000, water.behind))
                )
                shown = picture[round(depth_mm * 2), 100].astype(float)
                self.assertLess(np.abs(shown - exact).max(), 3)

    def test_a_step_in_the_bed_stands_where_it_is(self):
        rows = [[0.0, 0.0], [0.0, 0.0], [60.0, 60.0], [60.0, 60.0]]
        picture = front_picture(scene_with(bed__heights_mm=rows))
        below, above = picture[200, 180].astype(int), picture[40, 180].astype(int)
        self.assertGreater(np.abs(below - above).sum(), 60)

    def test_bed_at_the_glass_keeps_its_own_colour_at_the_top(self):
        full = [[119.9, 119.9], [119.9, 119.9]]
        picture = front_picture(scene_with(bed__heights_mm=full, bed__paint_srgb="#8a7a5a"))
        np.testing.assert_allclose(picture[1, 50], [0x8A, 0x7A, 0x5A], atol=4)

    def test_png_opens_as_the_same_picture(self):
        picture = front_picture(quarry_pool())
        opened = np.asarray(Image.open(io.BytesIO(png_of(picture))))
        np.testing.assert_array_equal(opened, picture)
