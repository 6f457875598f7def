import unittest
from datetime import date, datetime, timedelta

import numpy as np

from gondola_core.samples import quarry_pool
from gondola_core.scene import Room
from gondola_core.scene.brief import FreeHours
from gondola_core.scene.schedule import (
    free_spans,
    is_quiet,
    next_free_h,
    nights,
    pour_starts_h,
    room_samples_c,
    room_temperature_c,
)

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


class OwnDays(unittest.TestCase):
    """A Monday in March 2027 is the first."""

    MONDAY = datetime(2027, 3, 1, 0, 0)

    def free_on(self, day, **days):
        free = FreeHours(weekday=[17.0, 22.0], weekend=[8.0, 22.0], **days)
        return [
            (low - 24 * day, high - 24 * day) for low, high in free_spans(self.MONDAY, free, 200.0)
            if 24 * day <= low < 24 * day + 24
        ]

    def test_a_holiday_is_as_free_as_a_weekend_and_a_day_away_not_at_all(self):
        tuesday = date(2027, 3, 2)
        self.assertEqual(self.free_on(1), [(17.0, 22.0)])
        self.assertEqual(self.free_on(1, holidays=[tuesday]), [(8.0, 22.0)])
        self.assertEqual(self.free_on(1, away=[tuesday], holidays=[tuesday]), [])
        self.assertEqual(self.free_on(5), [(8.0, 22.0)])

    def test_the_next_free_hour_waits_for_the_end_of_a_journey(self):
        away = [date(2027, 3, 1) + timedelta(days=at) for at in range(40)]
        free = FreeHours(weekday=[17.0, 22.0], weekend=[8.0, 22.0], away=away)
        self.assertAlmostEqual(next_free_h(self.MONDAY, free, 5.0), 40 * 24 + 8.0 if (40 % 7) >= 5 else 40 * 24 + 17.0)

    def test_quiet_hours_may_go_past_midnight(self):
        rows = [(None, 3.0, False), ([22.0, 7.0], 23.0, True), ([22.0, 7.0], 6.9, True), ([22.0, 7.0], 7.0, False),
                ([13.0, 15.0], 14.0, True), ([13.0, 15.0], 15.0, False)]
        for quiet, hour, said in rows:
            with self.subTest(quiet=quiet, hour=hour):
                self.assertEqual(is_quiet(hour, quiet), said)
