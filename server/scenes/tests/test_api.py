import json
from unittest import mock

from django.test import Client
from studio.apart import apart

from gondola_core.evaluate import evaluate, outcome_json
from gondola_core.samples import quarry_pool
from scenes.api import SMALL_FILE

from .scene_case import SceneCase


class Reading(SceneCase):
    def test_list_and_one(self):
        with self.assertNumQueries(3):
            rows = self.client.get("/api/scenes").json()
        self.assertEqual([(row["name"], row["revision"]) for row in rows],
                         [("Wagon in the Quarry Pool", 1)])
        state = self.client.get(self.url()).json()
        self.assertEqual(state["document"], self.document())

    def test_what_belongs_to_somebody_else_is_not_there(self):
        self.client.force_login(self.other)
        calls = [
            ("get", "", None), ("get", "/file", None), ("get", "/revisions", None),
            ("put", "", {"base_revision": 1, "document": self.document()}),
            ("post", "/undo", {"base_revision": 1}), ("post", "/fine-runs", {}),
        ]
        for method, tail, body in calls:
            with self.subTest(method + tail):
                answer = self.send(method, self.url(tail), body) if body is not None else (
                    self.client.get(self.url(tail))
                )
                self.assertEqual(answer.status_code, 404)
        self.assertEqual(self.client.get("/api/scenes").json(), [])

    def test_nobody_without_signing_in_and_no_forged_write(self):
        self.assertEqual(Client().get("/api/scenes").status_code, 401)
        strict = Client(enforce_csrf_checks=True)
        strict.force_login(self.owner)
        body = {"base_revision": 1, "document": self.document()}
        answer = strict.put(self.url(), json.dumps(body), content_type="application/json")
        self.assertEqual(answer.status_code, 403)


class Files(SceneCase):
    def test_exported_file_evaluates_as_the_page_does_and_comes_back_in(self):
        answer = self.client.get(self.url("/file"))
        self.assertIn("wagon-in-the-quarry-pool.gondola.json", answer["Content-Disposition"])
        again = self.client.post("/api/scenes", answer.content, content_type="application/json")
        self.assertEqual(again.status_code, 201)
        self.assertEqual(again.json()["document"], self.document())

    def test_bad_files_get_a_sentence_and_leave_nothing(self):
        rows = [
            (b"{", "This is not sound JSON"),
            (b"\x89PNG\r\n", "The text of this is not sound UTF-8."),
            (b"{}", "This is no Gondola scene"),
            (json.dumps(self.document(tank__inner_width_mm=-5)).encode(),
             "Tank, inner width of the tank has to be from 15 to 1200 mm; it says -5."),
        ]
        for body, words in rows:
            with self.subTest(words):
                answer = self.client.post("/api/scenes", body, content_type="application/json")
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.json()["message"])
        self.assertEqual(self.owner.scenes.count(), 1)

    def test_a_large_file_is_read_apart_and_is_the_same_scene(self):
        small = json.dumps(self.document()).encode()
        with mock.patch("scenes.api.apart", wraps=apart) as called:
            for body, status in ((small, 201), (small + b" " * SMALL_FILE, 201), (b"{" + b" " * SMALL_FILE, 422)):
                answer = self.client.post("/api/scenes", body, content_type="application/json")
                self.assertEqual(answer.status_code, status)
                if status == 201:
                    self.assertEqual(answer.json()["document"], self.document())
        self.assertEqual(called.call_count, 2)

    def test_values_are_counted_before_they_are_made(self):
        rows = [("/api/scenes", 400_000, 422, "500,000"), ("/api/evaluate", 1_100_000, 400, "2,000,000")]
        for path, count, status, most in rows:
            with self.subTest(path):
                lists = b"[" + b"[]," * count + b"[]]"
                answer = self.client.post(path, lists, content_type="application/json")
                self.assertEqual(answer.status_code, status)
                self.assertIn(f"{most} at most are read", answer.json()["message"])

    def test_a_huge_file_is_refused_before_it_is_read(self):
        for size in (60 * 2**20, 2 * 2**30):
            with self.subTest(size):
                answer = self.client.generic(
                    "POST", "/api/scenes", b" " * 10, content_type="application/json",
                    CONTENT_LENGTH=str(size),
                )
                self.assertEqual(answer.status_code, 413)
                self.assertIn("is over 48 MB", answer.json()["message"])


class Evaluating(SceneCase):
    def test_the_page_gets_the_very_outcome_of_the_command(self):
        answer = self.send("post", "/api/evaluate", self.document())
        self.assertEqual(answer.status_code, 200)
        self.assertEqual(answer.content, outcome_json(evaluate(quarry_pool())))

    def test_nothing_is_stored(self):
        with self.assertNumQueries(2):
            self.send("post", "/api/evaluate", self.document(name="Only tried"))
        self.assertEqual(self.shown().name, "Wagon in the Quarry Pool")

    def test_flaws_are_said_in_words(self):
        rows = [
            ({"brief__scale": "1:48"}, "Brief, scale, 1 to has to be a number; it says '1:48'."),
            ({"pours__0__mix_c": 90},
             "Pour 1, temperature of the poured mix has to be from 5 to 60 °C; it says 90."),
            ({"pours": []}, None),
        ]
        for changes, sentence in rows:
            with self.subTest(str(changes)):
                answer = self.send("post", "/api/evaluate", self.document(**changes))
                self.assertEqual(answer.status_code, 422)
                if sentence:
                    self.assertEqual(answer.json()["message"], sentence)
        broken = self.client.post("/api/evaluate", b"{", content_type="application/json")
        self.assertEqual(broken.status_code, 400)
