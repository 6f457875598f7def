import re
from unittest import mock

from django.contrib.auth.models import User
from django.core.management import call_command
from django.test import TestCase, override_settings
from scenes.models import Scene

from gondola_core.samples import SAMPLES
from gondola_server.api import api
from studio import views


class Page(TestCase):
    def setUp(self):
        built = {"script": "assets/index-abcdefgh.js", "styles": ["assets/index-abcdefgh.css"]}
        patched = mock.patch.object(views, "front_end", return_value=built)
        patched.start()
        self.addCleanup(patched.stop)

    def test_every_address_of_the_front_end_is_the_page_under_a_strict_policy(self):
        for url in ("/", "/scenes/3", "/scenes/3/pours"):
            with self.subTest(url):
                answer = self.client.get(url)
                self.assertEqual(answer.status_code, 200)
                policy = answer["Content-Security-Policy"]
                nonce = re.search(r'csp-nonce" content="([^"]+)"', answer.content.decode())[1]
                self.assertIn(f"style-src 'self' 'nonce-{nonce}'", policy)
                self.assertIn("script-src 'self'", policy)
                self.assertNotIn("unsafe", policy)
                self.assertIn("no-store", answer["Cache-Control"])

    def test_unknown_api_addresses_are_not_the_page(self):
        self.assertEqual(self.client.get("/api/nothing").status_code, 404)

    def test_unbuilt_front_end_says_what_to_do(self):
        with mock.patch.object(views, "front_end", side_effect=FileNotFoundError):
            answer = self.client.get("/")
        self.assertEqual(answer.status_code, 503)
        self.assertIn(b"make demo", answer.content)


class DemoSignIn(TestCase):
    @override_settings(DEMO=True)
    def test_loopback_is_signed_in_and_nobody_else(self):
        rows = [("127.0.0.1", 200), ("::1", 200), ("192.0.2.7", 401), ("not an address", 401)]
        for address, status in rows:
            with self.subTest(address):
                self.client.logout()
                answer = self.client.get("/api/session", REMOTE_ADDR=address)
                self.assertEqual(answer.status_code, status)

    def test_without_the_demo_nobody_is_signed_in(self):
        self.assertEqual(self.client.get("/api/session").status_code, 401)
        self.assertFalse(User.objects.exists())

    @override_settings(DEMO=True)
    def test_session_names_the_demo(self):
        self.assertEqual(self.client.get("/api/session").json(), {"name": "demo", "demo": True, "owner": True})

    def test_preparing_twice_makes_each_sample_once(self):
        for _ in range(2):
            call_command("prepare_demo", stdout=mock.Mock())
        self.assertEqual(Scene.objects.count(), len(SAMPLES))


class Document(TestCase):
    def test_openapi_names_the_documents_of_the_core(self):
        schema = api.get_openapi_schema()
        names = set(schema["components"]["schemas"])
        self.assertLessEqual({"Outcome", "Flag", "Pour", "Refusal", "SceneState"}, names)
        operations = [
            operation["operationId"]
            for path in schema["paths"].values() for operation in path.values()
        ]
        self.assertEqual(len(operations), len(set(operations)))
