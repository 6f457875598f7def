"""Documents over HTTP."""

from __future__ import annotations

from django.contrib.auth.models import User
from django.test import TestCase
from icalendar import Calendar
from scenes.actions import create_scene
from scenes.tests.unlocked import nothing_marched_out_of_turn

from gondola_core.samples import quarry_pool


class Carried(TestCase):
    def setUp(self):
        self.enterContext(nothing_marched_out_of_turn())
        self.owner = User.objects.create_user("owner")
        self.client.force_login(self.owner)
        self.scene = create_scene(owner=self.owner, document=quarry_pool())

    def test_each_is_a_file_of_its_kind(self):
        rows = [
            ("sheet.pdf", "application/pdf", b"%PDF-"), ("sheet.csv", "text/csv", b"pour,cup,step"),
            ("calendar.ics?zone=Europe/Oslo", "text/calendar", b"BEGIN:VCALENDAR"),
        ]
        for path, kind, begins in rows:
            with self.subTest(path):
                answer = self.client.get(f"/api/scenes/{self.scene.pk}/{path}")
                self.assertEqual((answer.status_code, answer["Content-Type"]), (200, kind))
                self.assertTrue(answer.content.startswith(begins))
                self.assertIn("wagon-in-the-quarry-pool", answer["Content-Disposition"])

    def test_the_calendar_has_its_chances(self):
        content = self.client.get(f"/api/scenes/{self.scene.pk}/calendar.ics?zone=Europe/Oslo").content
        events = Calendar.from_ical(content).walk("VEVENT")
        self.assertTrue(any("of 100 draws" in str(one.get("description")) for one in events))

    def test_nobody_elses_and_no_zone_that_is_none(self):
        self.assertEqual(self.client.get(f"/api/scenes/{self.scene.pk}/calendar.ics?zone=../x").status_code, 422)
        self.client.force_login(User.objects.create_user("other"))
        for path in ("sheet.pdf", "sheet.csv", "calendar.ics"):
            with self.subTest(path):
                self.assertEqual(self.client.get(f"/api/scenes/{self.scene.pk}/{path}").status_code, 404)
