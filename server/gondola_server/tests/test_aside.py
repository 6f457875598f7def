"""The server in two processes: a long question is answered aside, with the same way in as here."""

from __future__ import annotations

import io
import json
import os
import subprocess
import sys
import tempfile
import threading
import time
from contextlib import redirect_stderr
from pathlib import Path
from unittest import mock

import uvicorn
from django.conf import settings
from django.contrib.auth.models import User
from django.http import HttpResponse
from django.test import RequestFactory, SimpleTestCase, TransactionTestCase, override_settings
from scenes.tests.scene_case import SceneCase
from studio.aside import Answered, Lost, ask_aside
from studio.turns import BEHIND, TURNS

from gondola_core.samples import quarry_pool
from gondola_server import running
from gondola_server.asgi import application


class Served:
    """This application at a socket, as `running.aside_process` serves it, in a thread of the test."""

    def __init__(self, path: str) -> None:
        self.asked: list[tuple[str, str]] = []
        self.server = uvicorn.Server(uvicorn.Config(
            self._heard, uds=path, proxy_headers=True, forwarded_allow_ips="*", log_level="error", lifespan="off",
            interface="asgi3",
        ))
        self.thread = threading.Thread(target=self.server.run, daemon=True)

    async def _heard(self, scope, receive, send):
        self.asked.append((scope["scheme"], str(scope["client"])))
        await application(scope, receive, send)

    def __enter__(self):
        self.thread.start()
        while not self.server.started:
            time.sleep(0.02)
        return self

    def __exit__(self, *_):
        self.server.should_exit = True
        self.thread.join(10)


def there(_):
    """Whoever asks stays."""


class OneWayIn(TransactionTestCase):
    TOKEN = "t" * 32

    def asked(self, body, **more):
        """A question as the other process got it."""
        cookies = f"{settings.SESSION_COOKIE_NAME}={self.session}; {settings.CSRF_COOKIE_NAME}={self.TOKEN}"
        headers = {"HTTP_COOKIE": cookies, "HTTP_X_CSRFTOKEN": self.TOKEN, "HTTP_HOST": "localhost",
                   "HTTP_ORIGIN": "https://localhost", "REMOTE_ADDR": "192.0.2.7", "HTTP_GONDOLA_UNITS": "in,f,floz,oz"}
        return RequestFactory().post(
            "/api/evaluate", json.dumps(body), content_type="application/json", secure=True, **{**headers, **more})

    def answer(self, path, request):
        with self.assertRaises(Answered) as answered:
            ask_aside(request, path, there)
        return answered.exception.answer

    @override_settings(SECURE_SSL_REDIRECT=True, ALLOWED_HOSTS=["localhost"])
    def test_who_may_ask_here_may_ask_aside_and_nobody_else(self):
        self.client.force_login(User.objects.create_user("ada"))
        self.session = self.client.cookies[settings.SESSION_COOKIE_NAME].value
        scene = quarry_pool().model_dump(mode="json")
        folder = self.enterContext(tempfile.TemporaryDirectory())
        path = str(Path(folder) / running.ASIDE)
        served = self.enterContext(Served(path))
        answer = self.answer(path, self.asked(scene))
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/json"))
        self.assertEqual(len(json.loads(answer.content)["pours"]), len(scene["pours"]))
        self.assertEqual(served.asked, [("https", "('192.0.2.7', 0)")])
        rows = [
            ("no sound scene", {**scene, "pours": []}, {}, 422),
            ("nobody", scene, {"HTTP_COOKIE": f"{settings.CSRF_COOKIE_NAME}={self.TOKEN}"}, 401),
            ("not from our page", scene, {"HTTP_X_CSRFTOKEN": "u" * 32}, 403),
            ("from another page", scene, {"HTTP_ORIGIN": "https://elsewhere.example"}, 403),
        ]
        for what, body, more, status in rows:
            with self.subTest(what):
                self.assertEqual(self.answer(path, self.asked(body, **more)).status_code, status)


class WhoIsPassedOn(SceneCase):
    ASKED = "studio.turns.ask_aside"

    def test_only_who_has_asked_for_something_long_and_only_where_there_is_a_second_process(self):
        with mock.patch(self.ASKED) as asked:
            self.assertEqual(self.send("post", "/api/evaluate", self.document()).status_code, 200)
            with mock.patch.object(TURNS, "asks_long", return_value=True):
                self.assertEqual(self.send("post", "/api/evaluate", self.document()).status_code, 200)
            short = mock.patch.object(TURNS, "asks_long", return_value=False)
            with short, override_settings(ASIDE="somewhere"):
                self.assertEqual(self.send("post", "/api/evaluate", self.document()).status_code, 200)
        asked.assert_not_called()

    @override_settings(ASIDE="somewhere")
    def test_what_comes_from_aside_is_the_answer(self):
        long = mock.patch.object(TURNS, "asks_long", return_value=True)
        rows = [
            (Answered(HttpResponse("{}", status=422, content_type="application/json")), 422, "{}"),
            (Answered(HttpResponse("made", content_type="image/jpeg")), 200, "made"),
            (Lost(), 503, "Nothing was lost"),
            (None, 200, "pours"),
        ]
        for told, status, words in rows:
            with self.subTest(words), long, mock.patch(self.ASKED, side_effect=told) as asked:
                answer = self.send("post", "/api/evaluate", self.document())
                self.assertEqual(answer.status_code, status)
                self.assertIn(words, answer.content.decode())
                self.assertEqual(asked.call_args.args[1], "somewhere")


class TheSecondProcess(SimpleTestCase):
    def test_has_an_address_where_the_data_do_not_lie_too_deep(self):
        self.assertEqual(running.aside_path(Path("/srv/gondola")), "/srv/gondola/aside.sock")
        self.assertEqual(running.aside_path(Path("/srv") / ("é" * 48)), "")
        with mock.patch.object(running, "aside_process") as begun:
            self.assertEqual(running.aside({"GONDOLA_ASIDE": ""}), [])
            begun.assert_not_called()
            self.assertEqual(len(running.aside({"GONDOLA_ASIDE": "/srv/gondola/aside.sock"})), 1)

    def test_passes_nothing_on_itself_and_lies_below_the_first(self):
        with mock.patch.object(running.subprocess, "Popen") as begun:
            running.aside_process({"GONDOLA_ASIDE": "/srv/a.sock", "GONDOLA_DATA": "/srv"})
        told, named = begun.call_args.args[0], begun.call_args.kwargs
        self.assertEqual(told[told.index("--uds") + 1], "/srv/a.sock")
        self.assertEqual((named["env"]["GONDOLA_ASIDE"], named["env"]["GONDOLA_DATA"]), ("", "/srv"))
        said = subprocess.run(
            [sys.executable, "-c", "import os; print(os.nice(0))"], preexec_fn=named["preexec_fn"], check=True,
            capture_output=True)
        self.assertEqual(int(said.stdout), min(19, os.nice(0) + BEHIND))

    def test_is_begun_anew_where_it_was_lost_and_the_studio_goes_on_without_it_where_that_is_too_often(self):
        dead = mock.Mock(poll=mock.Mock(return_value=-9))
        begun = mock.patch.object(running, "aside_process", return_value=dead)
        clock = mock.patch.object(running.time, "monotonic", return_value=0.0)
        with begun as begun, clock as clock, redirect_stderr(io.StringIO()) as said:
            (one,) = running.aside({"GONDOLA_ASIDE": "/srv/a.sock"})
            self.assertTrue(all(one.keep_going() for _ in range(running.MOST_LOST + 20)))
            self.assertEqual(begun.call_count, 1 + running.MOST_LOST)
            clock.return_value = running.LOST_WITHIN_S + 1.0
            self.assertTrue(one.keep_going())
        self.assertEqual(begun.call_count, 2 + running.MOST_LOST)
        self.assertIn("another answers the next", said.getvalue())
