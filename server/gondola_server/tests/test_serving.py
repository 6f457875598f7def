"""Who is let in by which way of serving, and what every answer carries."""

from __future__ import annotations

import argparse
import io
import tempfile
from contextlib import redirect_stderr
from pathlib import Path
from unittest import mock

from django.conf import settings
from django.contrib.auth.models import AnonymousUser, User
from django.contrib.sessions.models import Session
from django.test import RequestFactory, SimpleTestCase, TestCase, override_settings
from studio.pace import WITHIN_S, Pace

from gondola_core.errors import GondolaError
from gondola_server import demo, running, serve


def asked(*words: str) -> argparse.Namespace:
    return serve._parser().parse_args(list(words))


class Doors(SimpleTestCase):
    def test_passwords_never_cross_a_network_in_the_clear_unless_that_is_meant(self):
        rows = [
            ((), True), (("--host", "::1"), True), (("--host", "0.0.0.0"), False), (("--host", "192.0.2.7"), False),
            (("--host", "0.0.0.0", "--plain"), True), (("--host", "0.0.0.0", "--behind-proxy"), True),
            (("--host", "0.0.0.0", "--certificate", "c", "--certificate-key", "k"), True),
            (("--certificate", "c"), False),
        ]
        for words, opens in rows:
            with self.subTest(words):
                if opens:
                    serve.refuse_open_door(asked(*words))
                else:
                    with self.assertRaises(GondolaError):
                        serve.refuse_open_door(asked(*words))

    def test_what_the_settings_are_told_follows_from_the_door(self):
        rows = [
            ((), "1", "http://127.0.0.1:8000"), (("--plain", "--host", "192.0.2.7"), "1", "http://192.0.2.7:8000"),
            (("--behind-proxy", "--names", "studio.example"), "0", "https://studio.example"),
            (("--certificate", "c", "--certificate-key", "k", "--names", "s.example"), "0", "https://s.example:8000"),
        ]
        for words, plain, address in rows:
            with self.subTest(words):
                options = asked(*words)
                told = serve._told(options)
                self.assertEqual((told["GONDOLA_PLAIN"], told["GONDOLA_DEMO"]), (plain, "0"))
                self.assertEqual(serve._address(options), address)
        self.assertEqual(told.get("GONDOLA_BEHIND_PROXY"), None)

    def test_the_demo_refuses_any_other_address(self):
        said = io.StringIO()
        with redirect_stderr(said):
            self.assertEqual(demo.main(["--host", "0.0.0.0"]), 2)
        self.assertIn("this machine only", said.getvalue())

    def test_a_backup_that_fails_is_said_and_the_studio_goes_on(self):
        with tempfile.TemporaryDirectory() as folder:
            keeper = serve.Keeper(Path(folder), Path(folder) / "backups", 24.0, 3, {})
            said = io.StringIO()
            with redirect_stderr(said):
                keeper.back_up()
            self.assertIn("no studio", said.getvalue())


class WorkerOfJobs(SimpleTestCase):
    def test_one_that_is_lost_is_begun_anew_but_not_for_ever(self):
        begun = []

        def dead(_environment):
            begun.append(mock.Mock(poll=mock.Mock(return_value=-9)))
            return begun[-1]

        with mock.patch.object(running, "queue_process", dead), redirect_stderr(io.StringIO()) as said:
            queue = running.queue({})
            going = [queue.keep_going() for _ in range(running.MOST_LOST + 1)]
        self.assertEqual(going, [True] * running.MOST_LOST + [False])
        self.assertEqual(len(begun), running.MOST_LOST + 1)
        self.assertIn("another takes up", said.getvalue())

    def test_one_that_lives_is_left_alone(self):
        with mock.patch.object(running, "queue_process", return_value=mock.Mock(poll=lambda: None)) as begun:
            queue = running.queue({})
            self.assertTrue(queue.keep_going())
        begun.assert_called_once()


class AtWhatPace(TestCase):
    @override_settings(PACE=(5, 3))
    def test_a_machine_that_asks_without_end_is_told_to_wait_and_others_are_not(self):
        people = [User.objects.create_user(name) for name in ("ada", "bo")]
        for who, most in ((people[0], 5), (None, 3)):
            with self.subTest(who):
                self.client.logout()
                if who:
                    self.client.force_login(who)
                path = "/api/scenes" if who else "/api/shown/none"
                answers = [self.client.get(path) for _ in range(most + 2)]
                self.assertEqual([one.status_code == 429 for one in answers], [False] * most + [True] * 2)
                self.assertContains(answers[-1], "wait 10 seconds. Nothing was lost.", status_code=429)
                self.assertEqual(answers[-1]["Retry-After"], "10")
        self.client.force_login(people[1])
        self.assertEqual(self.client.get("/api/scenes").status_code, 200)

    @override_settings(PACE=(2, 2))
    def test_it_goes_on_after_a_while_and_forgets(self):
        pace, request = Pace(), RequestFactory().get("/")
        request.user = AnonymousUser()
        with mock.patch("studio.pace.time.monotonic") as clock, mock.patch("studio.pace.MOST_COUNTED", 5):
            clock.return_value = 0.0
            self.assertEqual([pace.allow_request(request) for _ in range(3)], [True, True, False])
            clock.return_value = WITHIN_S
            self.assertTrue(pace.allow_request(request))
            for at in range(20):
                request.META["REMOTE_ADDR"] = f"192.0.2.{at}"
                self.assertTrue(pace.allow_request(request))
            self.assertLessEqual(len(pace._counts), 6)


class TheDemo(TestCase):
    @override_settings(DEMO=True)
    def test_makes_no_session_and_lets_nobody_in_through_a_proxy_or_at_another_address(self):
        self.assertEqual(self.client.get("/api/session").status_code, 200)
        self.assertFalse(Session.objects.exists())
        rows = [
            {"HTTP_X_FORWARDED_FOR": "192.0.2.7"}, {"HTTP_FORWARDED": "for=192.0.2.7"}, {"HTTP_X_REAL_IP": "127.0.0.1"},
            {"HTTP_VIA": "1.1 proxy"}, {"SERVER_NAME": "192.0.2.9", "HTTP_HOST": "127.0.0.1"},
            {"REMOTE_ADDR": "192.0.2.7"},
        ]
        for more in rows:
            with self.subTest(more):
                self.assertEqual(self.client.get("/api/session", **more).status_code, 401)


class Headers(TestCase):
    def test_files_and_pages_alike_carry_the_policy_and_may_not_be_framed(self):
        for url in ("/static/gondola.svg", "/api/session", "/nothing"):
            with self.subTest(url):
                answer = self.client.get(url)
                self.assertIn("default-src 'self'", answer["Content-Security-Policy"])
                self.assertEqual((answer["X-Frame-Options"], answer["X-Content-Type-Options"]), ("DENY", "nosniff"))

    def test_the_admin_is_off_unless_asked_for(self):
        self.assertNotIn("django.contrib.admin", settings.INSTALLED_APPS)
        self.assertNotIn(b"Django", self.client.get("/admin/").content)
