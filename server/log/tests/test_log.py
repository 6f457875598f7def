"""The log over HTTP: entries and photographs kept, found again, taken back; hostile files refused."""

from __future__ import annotations

import io
import re
import struct
import tempfile
import zipfile
import zlib
from pathlib import Path

from bench.tests.test_runs import RunCase
from django.contrib.auth.models import User
from django.test import override_settings
from PIL import Image
from scenes.actions import create_scene

from gondola_core.samples import SAMPLES, quarry_pool
from gondola_core.scene import read_scene
from log.made_up import bring_history
from log.models import Entry, Photograph


def picture(form="JPEG", size=(80, 60), **more) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, (40, 90, 140)).save(out, form, **more)
    return out.getvalue()


def located() -> bytes:
    exif = Image.Exif()
    exif[0x0132] = "2026:05:01 10:20:30"
    exif.get_ifd(0x8769)[0x9003] = "2026:05:01 09:08:07"
    exif.get_ifd(0x8825)[2] = (60.0, 23.0, 1.0)
    return picture(exif=exif.tobytes())


def bomb(width: int, height: int) -> bytes:
    """A PNG that says it is so large and holds nothing."""
    def chunk(name: bytes, body: bytes) -> bytes:
        return struct.pack(">I", len(body)) + name + body + struct.pack(">I", zlib.crc32(name + body))

    head = struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0)
    return b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"")) + chunk(b"IEND", b"")


class LogCase(RunCase):
    def setUp(self):
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        held = override_settings(DATA=self.folder)
        held.enable()
        self.addCleanup(held.disable)
        self.path = f"/scenes/{self.scene.pk}/entries"

    def enter(self, text="", kind="note", **more):
        return self.post(self.path, {"kind": kind, "text": text, **more})

    def bring(self, content, name="a.jpg"):
        return self.client.post(f"/api/scenes/{self.scene.pk}/photographs?name={name}", content,
                                content_type="application/octet-stream")

    def found(self, asked="", **more):
        return self.client.get("/api/log/search", {"asked": asked, **more}).json()


class Entries(LogCase):
    def test_entered_moved_found_and_taken_back(self):
        one = self.enter("Strings at the left edge", place={"x_mm": 20, "depth_mm": 30}).json()
        self.assertEqual(self.client.get(f"/api{self.path}").json()[0]["place"]["depth_mm"], 30)
        moved = self.client.patch(f"/api/entries/{one['id']}", {"place": {"x_mm": 40, "depth_mm": 10}},
                                  content_type="application/json").json()
        self.assertEqual(moved["place"]["x_mm"], 40)
        self.assertEqual([hit["id"] for hit in self.found("string edge")], [one["id"]])
        self.client.delete(f"/api/entries/{one['id']}")
        self.assertEqual((self.found("strings"), self.client.get(f"/api{self.path}").json()), ([], []))
        self.post(f"/entries/{one['id']}/restore")
        self.assertEqual(len(self.found("strings")), 1)

    def test_faults_and_kinds(self):
        self.enter("", "fault", fault={"kind": "bubbles", "size_mm": 0.6}, place={"x_mm": 60, "depth_mm": 50})
        self.enter("bubbles seen early")
        self.assertEqual(len(self.found("bubbles")), 2)
        self.assertEqual([one["fault"]["kind"] for one in self.found("bubbles", kind="fault")], ["bubbles"])

    def test_a_lesson_is_met_again_where_a_plan_uses_its_resin(self):
        self.enter("Warm the room before this one", "lesson", pins=[{"kind": "resin", "key": "deep"}])
        self.enter("Mind its drops", "lesson", pins=[{"kind": "colourant", "key": "no-such-ink"}])
        other = create_scene(owner=self.owner, document=quarry_pool())
        met = self.client.get(f"/api/scenes/{other.pk}/lessons").json()
        self.assertEqual([(one["text"], one["scene_id"]) for one in met],
                         [("Warm the room before this one", self.scene.pk)])
        eelgrass = create_scene(owner=self.owner, document=SAMPLES["eelgrass"]())
        self.assertEqual(self.client.get(f"/api/scenes/{eelgrass.pk}/lessons").json(), [])
        self.assertEqual(self.client.get(f"/api/scenes/{self.scene.pk}/lessons").json(), [])

    def test_refused_in_a_sentence(self):
        rows = (
            {"kind": "note", "text": " "}, {"kind": "fault"}, {"kind": "lesson", "text": "x"},
            {"kind": "fault", "fault": {"kind": "gremlins"}}, {"kind": "note", "text": "x" * 5000},
            {"kind": "note", "text": "x", "at": "0001-01-01T00:00:00Z"},
            {"kind": "note", "text": "x", "at": "2026-01-01T00:00:00"},
            {"kind": "note", "text": "x", "place": {"x_mm": 1e9, "depth_mm": 0}},
        )
        for body in rows:
            with self.subTest(body=str(body)[:60]):
                answer = self.post(self.path, body)
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(answer.json()["message"])
        self.assertFalse(Entry.objects.exists())

    def test_what_is_typed_is_no_command_of_the_search(self):
        self.enter("plain words")
        for asked in ('"', "plain OR", "NEAR(a b)", "words: *", "-plain", "'; DROP TABLE x; --", "\x00", "ä" * 300):
            with self.subTest(asked):
                self.assertEqual(self.client.get("/api/log/search", {"asked": asked}).status_code, 200)

    def test_nobody_elses(self):
        one = self.enter("mine").json()
        self.client.force_login(User.objects.create_user("other"))
        self.assertEqual(self.found("mine"), [])
        for answer in (self.client.delete(f"/api/entries/{one['id']}"), self.enter("theirs"),
                       self.client.get(f"/api/entries/{one['id']}/small"),
                       self.client.get(f"/api/scenes/{self.scene.pk}/lessons")):
            self.assertEqual(answer.status_code, 404)

    def test_ten_thousand_entries_are_searched_by_the_index(self):
        from django.db import connection

        with connection.cursor() as cursor:
            cursor.execute("EXPLAIN QUERY PLAN SELECT rowid FROM log_search WHERE log_search MATCH 'a'")
            self.assertIn("VIRTUAL TABLE INDEX", str(cursor.fetchall()))


class Photographs(LogCase):
    def test_kept_whole_without_its_place_and_at_its_moment(self):
        answer = self.bring(located())
        self.assertEqual(answer.status_code, 201, answer.content)
        kept = answer.json()
        self.assertTrue(kept["entry"]["at"].startswith("2026-05-01T09:08:07"))
        self.assertIn("Where it was taken is left out.", kept["words"])
        original = b"".join(self.client.get(f"/api/entries/{kept['entry']['id']}/original").streaming_content)
        self.assertNotIn(b"Exif", original)
        self.assertEqual(Image.open(io.BytesIO(original)).tobytes(), Image.open(io.BytesIO(located())).tobytes())
        small = self.client.get(f"/api/entries/{kept['entry']['id']}/small")
        self.assertEqual(small["Content-Type"], "image/jpeg")

    def test_forms(self):
        for form in ("PNG", "WEBP", "JPEG"):
            with self.subTest(form):
                answer = self.bring(picture(form, (3000, 20)))
                self.assertEqual(answer.status_code, 201, answer.content)
                self.assertEqual(answer.json()["entry"]["photograph"]["form"], form)
                self.assertLessEqual(Image.open(io.BytesIO(Photograph.objects.last().small)).width, 1280)

    def test_hostile_files(self):
        whole = picture(size=(400, 300))
        page = b"<script>alert(1)</script>"
        rows = {
            "empty": b"", "words": b"hello", "half": whole[:200], "zeros": bytes(1000), "svg": b"<svg xmlns='http://www.w3.org/2000/svg'/>",
            "heic": b"\x00\x00\x00\x18ftypheic" + bytes(100), "bomb": bomb(30000, 30000), "moving": self.moving(),
            "lying": bomb(5000, 5000), "gif": picture("GIF"), "tiff": picture("TIFF"), "page": page,
        }
        for name, content in rows.items():
            with self.subTest(name):
                answer = self.bring(content)
                self.assertEqual(answer.status_code, 422, answer.content)
                self.assertTrue(answer.json()["message"].rstrip().endswith("."))
        self.assertEqual((Entry.objects.count(), list(self.folder.rglob("*.*"))), (0, []))

    def test_what_hides_behind_a_picture_is_left_off(self):
        page = b"<script>alert(1)</script>PK\x03\x04"
        for form in ("JPEG", "PNG", "WEBP"):
            with self.subTest(form):
                kept = self.bring(picture(form) + page).json()
                answer = self.client.get(f"/api/entries/{kept['entry']['id']}/original")
                self.assertNotIn(b"script", b"".join(answer.streaming_content))
                self.assertIn("attachment", answer["Content-Disposition"])
                self.assertEqual(answer["X-Content-Type-Options"], "nosniff")

    def moving(self) -> bytes:
        out = io.BytesIO()
        frames = [Image.new("RGB", (20, 20), (at * 60, 0, 0)) for at in range(3)]
        frames[0].save(out, "WEBP", save_all=True, append_images=frames[1:], duration=50)
        return out.getvalue()

    def test_names(self):
        for name in ("../../etc/passwd", "a\r\nb.jpg", "x" * 400, "", "\u202egpj.exe", "C:\\temp\\a.jpg", "<b>.jpg"):
            with self.subTest(name):
                answer = self.client.post(f"/api/scenes/{self.scene.pk}/photographs", picture(),
                                          content_type="application/octet-stream", QUERY_STRING="name=" + __import__(
                                              "urllib.parse", fromlist=["quote"]).quote(name))
                told = answer.json()["entry"]["photograph"]["name"]
                self.assertNotRegex(told, r"[/\\<>\r\n]|\u202e")
                self.assertTrue(told)

    def test_corners_and_bad_ones(self):
        kept = self.bring(picture()).json()["entry"]
        patch = lambda corners: self.client.patch(f"/api/entries/{kept['id']}", {"corners": corners},
                                                  content_type="application/json")
        good = [[0.1, 0.1], [0.9, 0.1], [0.9, 0.8], [0.1, 0.8]]
        self.assertEqual(patch(good).json()["photograph"]["corners"], good)
        for bad in ([[0, 0]], [[9, 9]] * 4, "x"):
            self.assertEqual(patch(bad).status_code, 422)


class Explaining(LogCase):
    def test_marked_faults_are_explained_and_a_cause_can_be_struck_out(self):
        self.assertEqual(self.post(f"/scenes/{self.scene.pk}/explain").status_code, 422)
        self.enter("", "fault", fault={"kind": "bubbles", "size_mm": 1.0}, place={"x_mm": 60, "depth_mm": 100})
        told = self.post(f"/scenes/{self.scene.pk}/explain").json()
        self.assertEqual(told["candidates"][0]["id"], "unsealed_bed")
        self.assertIn("not sealed", told["words"])
        again = self.post(f"/scenes/{self.scene.pk}/explain", {"struck": ["unsealed_bed"]}).json()
        self.assertNotEqual(again["candidates"][0]["id"], "unsealed_bed")
        self.client.force_login(User.objects.create_user("other"))
        self.assertEqual(self.post(f"/scenes/{self.scene.pk}/explain").status_code, 404)


class HandedOn(LogCase):
    def test_a_folder_without_network_and_script(self):
        self.enter("<script>alert(1)</script> & more")
        self.enter("", "fault", fault={"kind": "void", "size_mm": 9}, place={"x_mm": 20, "depth_mm": 30})
        self.bring(picture())
        answer = self.client.get(f"/api/scenes/{self.scene.pk}/story.zip")
        folder = zipfile.ZipFile(io.BytesIO(answer.content))
        names = folder.namelist()
        page = folder.read("story/index.html").decode()
        self.assertNotIn("<script", page)
        self.assertNotRegex(page, r"(src|href)=\"(https?:)?//")
        self.assertIn("&lt;script&gt;", page)
        for shown in re.findall(r'src="([^"]+)"', page):
            self.assertIn(f"story/{shown}", names)
        self.assertIn("a void, 9 mm", page)
        self.assertEqual(read_scene(folder.read("story/scene.json")), quarry_pool())


class MadeUp(LogCase):
    def test_the_ferry_comes_with_its_history_and_its_reason(self):
        scene = create_scene(owner=self.owner, document=SAMPLES["ferry-landing"]())
        for _ in range(2):
            bring_history(owner=self.owner, scene=scene)
        self.assertEqual(scene.runs.count(), 1)
        kinds = [one["kind"] for one in self.client.get(f"/api/scenes/{scene.pk}/entries").json()]
        self.assertEqual(kinds.count("fault"), 3)
        self.assertEqual(kinds.count("photograph"), 1)
        told = self.post(f"/scenes/{scene.pk}/explain").json()
        self.assertEqual(told["candidates"][0]["id"], "overheat")
        self.assertIn("Pour 2", told["candidates"][0]["speaks"][0])
        self.assertLess(told["candidates"][0]["without_it"], 60)
