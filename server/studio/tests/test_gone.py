"""A connection that ends before its answer is heard by the view that computes it."""

import asyncio
import threading
import time

from asgiref.testing import ApplicationCommunicator
from django.core.handlers.asgi import ASGIHandler
from django.http import HttpResponse
from django.test import RequestFactory, SimpleTestCase, override_settings
from django.urls import path

from studio.gone import Gone, hearing, still_there

HEARD = []
BEGUN = threading.Event()
ASKED = {"type": "http", "method": "GET", "path": "/slow", "headers": [], "query_string": b"", "http_version": "1.1"}


def slow(request):
    """Computes for ten seconds, unless it hears that nobody waits."""
    told = still_there(request)
    BEGUN.set()
    try:
        for _ in range(200):
            told(0.0)
            time.sleep(0.05)
    except Gone:
        HEARD.append("gone")
    return HttpResponse("done")


urlpatterns = [path("slow", slow)]


@override_settings(
    ROOT_URLCONF="studio.tests.test_gone",
    MIDDLEWARE=["django.middleware.common.CommonMiddleware"], ALLOWED_HOSTS=["*"],
)
class Connections(SimpleTestCase):
    def test_one_that_ends_is_heard(self):
        async def ended():
            asked = ApplicationCommunicator(hearing(ASGIHandler()), ASKED)
            await asked.send_input({"type": "http.request", "body": b""})
            while not BEGUN.is_set():
                await asyncio.sleep(0.02)
            await asked.send_input({"type": "http.disconnect"})
            await asyncio.sleep(1.0)

        HEARD.clear()
        BEGUN.clear()
        asyncio.run(ended())
        self.assertEqual(HEARD, ["gone"])

    def test_without_a_connection_to_hear_nobody_is_gone(self):
        self.assertIsNone(still_there(RequestFactory().get("/slow"))(0.0))
