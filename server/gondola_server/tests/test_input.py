"""Whatever is sent gets a clear sentence and a 4xx; nothing is taken in silently, and no answer is unsound."""

from __future__ import annotations

import json
from typing import Any
from unittest import mock

from django.test import override_settings
from library.models import OwnRow
from scenes.tests.scene_case import SceneCase
from studio.turns import TURNS, Busy

from gondola_server.api import api

SPECTRUM = [f"{nm};0,{nm % 7 + 1}" for nm in range(390, 711, 10)]


class Bodies(SceneCase):
    def post(self, url: str, body: bytes) -> Any:
        return self.client.generic("POST", url, body, content_type="application/json")

    def test_what_is_not_sound_is_said_in_a_sentence(self):
        whole = json.dumps(self.document()).encode()
        name = json.dumps(self.document()["name"]).encode()
        rows = [
            (b"{", "line 1, column 2"), (b"\xff\xfe{", "UTF-8"), (b"[" * 5000, "nested"),
            (whole.replace(name, b'"\\ud800"'), "half of a sign"), (b'{"a": NaN}', "NaN"),
            (b'{"a": 1e999}', "too large"),
            (b'{"a": ' + b"9" * 5000 + b"}", "digits"), (b'{"a": -Infinity}', "Infinity"),
        ]
        for body, words in rows:
            with self.subTest(words):
                answer = self.post("/api/evaluate", body)
                self.assertEqual(answer.status_code, 400, answer.content[:200])
                self.assertIn(words, answer.json()["message"])

    def test_a_scene_file_with_an_endless_integer_or_an_odd_year(self):
        whole = json.dumps(self.document())
        rows = [
            (whole.replace('"version": 3', '"version": ' + "9" * 5000), "digits"),
            (json.dumps(self.document(brief__first_pour_at="9999-03-05T09:00")), "1970 to 2200"),
            (json.dumps(self.document(brief__first_pour_at="0001-03-05T09:00")), "1970 to 2200"),
        ]
        for body, words in rows:
            with self.subTest(words):
                answer = self.post("/api/scenes", body.encode())
                self.assertEqual(answer.status_code, 422)
                self.assertIn(words, answer.json()["message"])

    def test_of_a_flood_of_flaws_the_first_twenty_are_told(self):
        body = self.document()
        body["pours"] = [body["pours"][0] | {f"odd-{number}": 1 for number in range(150)}] * 40
        for url, sent in (("/api/evaluate", body), ("/api/scenes", body)):
            with self.subTest(url):
                answer = self.send("post", url, sent)
                self.assertEqual(answer.status_code, 422)
                self.assertEqual(len(answer.json()["problems"]), 21)
                self.assertIn("5980 more", answer.json()["problems"][-1]["message"])
                self.assertLess(len(answer.content), 20_000)

    def test_a_year_in_which_nobody_pours(self):
        rows = [
            ("/api/begin", {"beginning": {}, "now": "0162-05-11T10:52:30"}),
            ("/api/starts/mill-pond", {"first_pour_at": "9999-12-31T10:00:00"}),
        ]
        for url, body in rows:
            with self.subTest(url):
                answer = self.send("post", url, body)
                self.assertEqual(answer.status_code, 422, answer.content[:200])
                self.assertIn("1970 to 2200", answer.json()["message"])

    def test_flaws_of_a_scene_and_of_what_stands_beside_it_are_both_named(self):
        body = {"scene": self.document(figures__0__name=7, pours__0__wait_h="x"), "stand": {"stops": 0.5}}
        for url in ("/api/look/fooled", "/api/look/card", "/api/jobs/still"):
            with self.subTest(url):
                answer = self.send("post", url, body)
                self.assertEqual(answer.status_code, 422, answer.content[:200])
                fields = [one["field"] for one in answer.json()["problems"]]
                self.assertIn("figures.0.name", fields)
                self.assertIn("pours.0.wait_h", fields)

    def test_an_endless_moment_of_a_heat_plane(self):
        body = json.dumps({"scene": self.document(), "at_h": 1.0}).replace('"at_h": 1.0', '"at_h": NaN')
        self.assertEqual(self.post("/api/heat/plane", body.encode()).status_code, 400)

    def test_a_body_that_is_too_large_says_so(self):
        with override_settings(DATA_UPLOAD_MAX_MEMORY_SIZE=2**20):
            answer = self.post("/api/evaluate", b" " * (2**20 + 1))
        self.assertEqual(answer.status_code, 413)
        self.assertIn("1 MB", answer.json()["message"])

    def test_places_of_a_photograph_have_bounds(self):
        for asked in ("x_mm=nan&depth_mm=1", "x_mm=1e9&depth_mm=1"):
            url = self.url(f"/photographs?{asked}")
            answer = self.client.generic("POST", url, b"x", content_type="application/octet-stream")
            self.assertEqual(answer.status_code, 422, answer.content)


class Queries(SceneCase):
    def test_no_number_in_an_address_may_be_endless(self):
        """Pydantic would take such a text: each parameter that is a number has bounds, or is checked further on."""
        checked = {("map_bed", "low_mm"), ("map_bed", "high_mm")}
        for path in api.get_openapi_schema()["paths"].values():
            for operation in path.values():
                for one in operation.get("parameters", []):
                    kinds = one["schema"].get("anyOf", [one["schema"]])
                    for kind in kinds:
                        if kind.get("type") == "number" and (operation["operationId"], one["name"]) not in checked:
                            self.assertLessEqual({"minimum", "maximum"}, set(kind), (operation["operationId"], one))
        for asked in ("low_mm=nan", "high_mm=inf", "low_mm=-1"):
            answer = self.client.generic("POST", self.url(f"/bed-map?name=a.png&{asked}"), b"x",
                                         content_type="application/octet-stream")
            self.assertEqual(answer.status_code, 422)


class Turns(SceneCase):
    def test_what_is_computed_waits_for_ones_own_turn_and_a_save_does_not(self):
        with TURNS.of(self.owner.pk), mock.patch("studio.turns.TURNS.of", side_effect=Busy):
            answer = self.send("post", "/api/evaluate", self.document())
            self.assertEqual(answer.status_code, 503)
            self.assertIn("earlier questions", answer.json()["message"])
            self.assertEqual(self.save(1).status_code, 200)

    def test_a_resin_that_does_not_set_is_refused_where_it_is_written(self):
        document = self.document(resins__0__tg_full_c=0.0, resins__0__tg_uncured_c=0.0)
        answer = self.send("post", "/api/evaluate", document)
        self.assertEqual(answer.status_code, 422)
        self.assertIn("glass temperature", answer.json()["message"])


class Tables(SceneCase):
    def bring(self, rows: list[str], name: str = "Tinte", end: str = "\n") -> Any:
        measured = {"text": end.join(rows), "name": name, "drops_per_100g": 1.0, "path_mm": 10.0, "drop_g": 0.03}
        return self.send("post", "/api/water/spectrum", {"measured": measured})

    def test_semicolons_decimal_commas_and_any_line_ends(self):
        plain = [one.replace(",", ".").replace(";", ",") for one in SPECTRUM]
        rows = [
            ("semicolon and comma", SPECTRUM, "\n"), ("old line ends", SPECTRUM, "\r"), ("both", SPECTRUM, "\r\n"),
            ("plain", plain, "\n"), ("tabs", [one.replace(";", "\t") for one in SPECTRUM], "\n"),
            ("spaces", [one.replace(";", "  ") for one in SPECTRUM], "\n"),
            ("a heading", ["wavelength nm,absorbance", *plain], "\n"),
            ("in quotes", ["\"" + one.replace(";", "\";\"") + "\"" for one in SPECTRUM], "\n"),
        ]
        told = set()
        for name, lines, end in rows:
            with self.subTest(name):
                answer = self.bring(lines, end=end)
                self.assertEqual(answer.status_code, 200, answer.content)
                told.add(json.dumps(answer.json()["absorbances_per_cm"]))
        self.assertEqual(len(told), 1)

    def test_what_is_no_table_is_refused_with_a_sentence(self):
        rows = [["390;\"0,2", *SPECTRUM[1:5]], ["x" * 200_000], ["1"] * 500_000]
        for lines in rows:
            answer = self.bring(lines)
            self.assertEqual(answer.status_code, 422, answer.content[:200])

    def test_inks_of_other_scripts_do_not_overwrite_one_another(self):
        for name in ("墨", "чернила", "Blau", "墨"):
            self.assertEqual(self.bring(SPECTRUM, name).status_code, 200)
        self.assertEqual(OwnRow.objects.filter(kind="colourant").count(), 3)

    def test_a_narrow_map_keeps_its_rows(self):
        content = "\n".join(",".join(["12"] * 1000) for _ in range(2)).encode()
        answer = self.client.generic(
            "POST", self.url("/bed-map?name=map.csv"), content, content_type="application/octet-stream"
        )
        heights = answer.json()["heights_mm"]
        self.assertEqual((len(heights), heights[0][0]), (2, 12.0))
        self.assertGreater(len(heights[0]), 100)


class Pictures(SceneCase):
    def test_pictures_that_lie_about_their_size(self):
        import struct
        import zlib

        def png(wide: int, high: int) -> bytes:
            def part(kind: bytes, body: bytes) -> bytes:
                return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))

            head = struct.pack(">IIBBBBB", wide, high, 8, 0, 0, 0, 0)
            return b"\x89PNG\r\n\x1a\n" + part(b"IHDR", head) + part(b"IDAT", zlib.compress(b"\0")) + part(b"IEND", b"")

        for content in (png(30_000, 30_000), png(2000, 2000), b"P5 30000 30000 255\n\0", b"P5 3 3 255\n"):
            with self.subTest(content[:20]):
                answer = self.client.generic("POST", self.url("/bed-map?name=map.png"), content,
                                             content_type="application/octet-stream")
                self.assertEqual(answer.status_code, 422, answer.content)
