"""A question that is passed on to a second process: what it carries, what comes back, and how it ends."""

import socketserver
import tempfile
import threading
import time
from http.server import BaseHTTPRequestHandler
from pathlib import Path
from unittest import mock

from django.test import RequestFactory, SimpleTestCase

from studio.aside import Answered, Lost, ask_aside
from studio.gone import Gone


class Aside(BaseHTTPRequestHandler):
    """Answers as the test says, and keeps what it was asked."""

    def do_POST(self):
        heard = self.server.heard
        heard.append((self.path, dict(self.headers), self.rfile.read(int(self.headers["Content-Length"]))))
        if self.server.how == "dies":
            self.wfile.write(b"HTT")
        elif self.server.how == "waits":
            heard.append(self.connection.recv(1))  # empty once the other has gone
        else:
            self.send_response(422)
            for name, value in (("Content-Type", "application/json"), ("Content-Length", "2"), ("Set-Cookie", "a=b"),
                                ("Content-Disposition", "attachment"), ("ETag", '"3"')):
                self.send_header(name, value)
            self.end_headers()
            self.wfile.write(b"{}")

    def address_string(self):
        return "aside"

    def log_message(self, *_):
        """Nothing is said."""


class Listening(socketserver.ThreadingUnixStreamServer):
    daemon_threads = True
    how, heard = "answers", None


def there(_):
    """Whoever asks stays."""


class PassedOn(SimpleTestCase):
    def setUp(self):
        folder = self.enterContext(tempfile.TemporaryDirectory())
        self.path = str(Path(folder) / "a.sock")
        self.server = self.enterContext(Listening(self.path, Aside))
        self.server.heard = []
        threading.Thread(target=self.server.serve_forever, daemon=True).start()
        self.addCleanup(self.server.shutdown)
        self.request = RequestFactory().post(
            "/api/evaluate?of=one", b'{"a": 1}', content_type="application/json", secure=True, REMOTE_ADDR="192.0.2.7",
            HTTP_COOKIE="sessionid=x", HTTP_X_CSRFTOKEN="t", HTTP_CONNECTION="keep-alive", HTTP_EXPECT="100-continue",
            HTTP_X_FORWARDED_FOR="198.51.100.1",
        )

    def test_carries_what_was_asked_and_from_where_and_hands_on_what_is_answered(self):
        with self.assertRaises(Answered) as answered:
            ask_aside(self.request, self.path, there)
        answer = answered.exception.answer
        self.assertEqual((answer.status_code, answer.content), (422, b"{}"))
        self.assertEqual((answer["Content-Type"], answer["Content-Disposition"]), ("application/json", "attachment"))
        self.assertEqual(answer["ETag"], '"3"')
        self.assertNotIn("Set-Cookie", answer)
        (path, headers, body), = self.server.heard
        self.assertEqual((path, body), ("/api/evaluate?of=one", b'{"a": 1}'))
        told = {"Cookie": "sessionid=x", "X-Csrftoken": "t", "X-Forwarded-For": "192.0.2.7",
                "X-Forwarded-Proto": "https", "Content-Type": "application/json"}
        self.assertLessEqual(told.items(), headers.items())
        self.assertFalse({"Connection", "Expect"} & set(headers))

    def test_where_nobody_listens_the_question_is_left_to_whoever_asked(self):
        for path in (f"{self.path}.none", self.path + "x" * 200):
            with self.subTest(len(path)):
                self.assertIsNone(ask_aside(self.request, path, there))

    def test_one_that_breaks_off_or_takes_too_long_is_lost_and_not_done_twice(self):
        self.server.how = "dies"
        with self.assertRaises(Lost):
            ask_aside(self.request, self.path, there)
        self.server.how = "waits"
        with mock.patch("studio.aside.LONGEST_S", 0.1), self.assertRaises(Lost):
            ask_aside(self.request, self.path, there)

    def test_one_whose_asker_has_gone_ends_aside_too(self):
        def left(_):
            raise Gone

        self.server.how = "waits"
        with self.assertRaises(Gone):
            ask_aside(self.request, self.path, left)
        until = time.monotonic() + 5.0
        while len(self.server.heard) < 2 and time.monotonic() < until:
            time.sleep(0.02)
        self.assertEqual(self.server.heard[-1], b"")
