import unittest
from datetime import datetime

import numpy as np

from gondola_core.samples import quarry_pool
from gondola_core.scene import Room
from gondola_core.scene.schedule import nights, pour_starts_h, room_samples_c, room_temperature_c

ROOM = Room(day_c=23, night_c=17)


class RoomThroughTheDay(unittest.TestCase):
    def test_warmest_in_the_afternoon_coolest_before_dawn(self):
        for hour, wanted in ((15, 23), (3, 17), (9, 20), (27, 17), (39, 23)):
            with self.subTest(hour):
                self.assertAlmostEqual(float(room_temperature_c(np.array(hour), ROOM)), wanted)

    def test_samples_start_with_the_first_pour(self):
        samples = room_samples_c(datetime(2027, 3, 5, 15, 0), ROOM, 48)
        self.assertAlmostEqual(samples[0], 23)
        self.assertAlmostEqual(samples[48], 17)
        self.assertGreaterEqual(len(samples), 48 * 4 + 1)


class Times(unittest.TestCase):
    def test_waits_add_up_and_the_first_counts_for_nothing(self):
        pours = quarry_pool().pours
        late = [pours[0].model_copy(update={"wait_h": 99.0}), *pours[1:]]
        self.assertEqual(pour_starts_h(pours), [0, 26, 51, 76])
        self.assertEqual(pour_starts_h(late), [0, 26, 51, 76])

    def test_nights_are_ten_to_six(self):
        found = nights(datetime(2027, 3, 5, 9, 0), 40)
        self.assertEqual([(night.from_h, night.to_h) for night in found], [(13, 21), (37, 40)])
        inside = nights(datetime(2027, 3, 5, 23, 30), 10)
        self.assertEqual([(night.from_h, night.to_h) for night in inside], [(0.0, 6.5)])
