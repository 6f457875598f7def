"""States that were taken when they were saved, and are no longer: nothing of them is lost, and nothing else stops."""

from __future__ import annotations

import json
import tempfile
import zlib
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import trimesh
from django.contrib.auth.models import User
from django.test import TestCase
from learning.models import Bottle
from library.models import OwnRow, UsualAnswers
from look.models import Still
from scenes.models import Revision, Scene, Variant
from shapes.models import Mesh
from stock.models import StockBook

from gondola_core.errors import GondolaError
from gondola_core.materials import load_library
from keeping.archive.back import bring_archive
from keeping.archive.out import write_archive
from keeping.tests.test_archive import ArchiveCase, shape_of
from keeping.tidying import tidy

OLD = "1900-01-01T09:00:00"


class NoLongerTaken(ArchiveCase):
    def setUp(self) -> None:
        super().setUp()
        self.save(1)
        self.save(2)

    def age(self, number: int, **more: Any) -> bytes:
        """Let a state begin in a year that is no longer taken; its text."""
        row = Revision.objects.get(scene=self.scene, number=number)
        document = json.loads(zlib.decompress(row.packed)) | more
        document["brief"]["first_pour_at"] = OLD
        text = json.dumps(document).encode()
        self.keep(number, zlib.compress(text))
        return text

    def keep(self, number: int, packed: bytes) -> None:
        Revision.objects.filter(scene=self.scene, number=number).update(packed=packed)

    def test_its_file_is_as_it_is_kept_and_an_earlier_state_comes_back(self) -> None:
        text = self.age(3)
        Variant.objects.create(scene=self.scene, name="by hand", head=Revision.objects.get(number=3),
                               tip=Revision.objects.get(number=3))
        self.assertContains(self.client.get(self.url()), "not in 1900", status_code=422)
        answer = self.client.get(self.url("/file"))
        self.assertEqual((answer.status_code, answer.content), (200, text))
        self.assertIn("wagon-in-the-quarry-pool.gondola.json", answer["Content-Disposition"])
        (kept,) = self.client.get(self.url("/variants")).json()
        self.assertEqual((kept["name"], kept["pours_count"]), ("by hand", None))
        self.assertEqual([row["shown"] for row in self.client.get(self.url("/revisions")).json()], [True, False, False])
        restored = self.send("post", self.url("/restore"), {"base_revision": 3, "number": 1})
        self.assertEqual((restored.status_code, restored.json()["revision"]), (200, 4))
        again = self.send("post", self.url("/restore"), {"base_revision": 4, "number": 3})
        self.assertContains(again, "not in 1900", status_code=422)
        self.assertEqual(self.client.get(self.url()).json()["revision"], 4)

    def test_one_that_is_damaged_says_so_and_an_earlier_one_comes_back(self) -> None:
        self.keep(3, b"\x00\x01")
        for tail in ("", "/file"):
            self.assertContains(self.client.get(self.url(tail)), "damaged", status_code=422)
        self.assertEqual(self.send("post", self.url("/restore"), {"base_revision": 3, "number": 2}).status_code, 200)

    def test_a_still_whose_eye_is_no_longer_taken_says_so_in_a_sentence(self) -> None:
        job = "11111111-1111-4111-8111-111111111111"
        Still.objects.create(
            scene=self.scene, job_id=job, revision=2, stand={"eye": 1}, width_px=4, height_px=3, png=b"PNG"
        )
        answer = self.client.get(self.url("/stills"))
        self.assertEqual(answer.status_code, 422)
        self.assertTrue(answer.json()["message"].endswith("."))

    def test_an_archive_carries_it_as_it_is(self) -> None:
        text = self.age(2)
        for shown in (False, True):
            with self.subTest(shown=shown):
                if shown:
                    self.age(3)
                write_archive(self.owner, self.file)
                bring_archive(self.other, self.file)
                there = Scene.objects.get(owner=self.other)
                self.assertEqual(zlib.decompress(there.revisions.get(number=2).packed), text)
                if not shown:
                    self.assertEqual(shape_of(there)["digest"], shape_of(self.scene)["digest"])
                    there.variants.all().delete()
                    there.delete()
        self.keep(1, b"\x00\x01")
        with self.assertRaises(GondolaError) as refused:
            write_archive(self.owner, self.file)
        self.assertIn("damaged", refused.exception.message)

    def test_what_it_points_at_is_not_tidied_away_and_the_tidying_goes_on(self) -> None:
        ball = trimesh.creation.icosphere(2, 12.0)
        mesh_id = self.client.generic(
            "POST", "/api/meshes?kind=stl", ball.export(file_type="stl"), content_type="application/octet-stream"
        ).json()["mesh_id"]
        figure = {**self.document()["figures"][1], "id": "ball",
                  "solids": [{"kind": "mesh", "mesh_id": mesh_id, "scale_ratio": 1.0, "offset_mm": [0, 0, 0]}]}
        later = datetime.now(UTC) + timedelta(days=3)
        self.age(1, figures=[figure])
        self.keep(2, b"\x00\x01")
        self.assertNotIn("meshes", tidy(later))
        self.keep(2, zlib.compress(b"{}"))
        self.assertNotIn("meshes", tidy(later))
        self.age(1, figures=[])
        self.assertEqual(tidy(later)["meshes"], 1)
        self.assertFalse(Mesh.objects.exists())


class OwnRows(TestCase):
    """What was kept before a rule grew stricter stops nothing else."""

    def setUp(self):
        self.owner = User.objects.create_user("owner")
        self.client.force_login(self.owner)
        deep = load_library().resins["deep"].model_dump(mode="json")
        for key in ("deep", "my-deep"):
            body = {**deep, "id": key, "name": "mine", "tg_full_c": 0.0, "tg_uncured_c": 0.0}
            OwnRow.objects.create(owner=self.owner, kind="resin", key=key, body=body, source="my cup")

    def test_own_rows_stay_out_are_told_and_can_be_let_go(self):
        shelf = self.client.get("/api/library").json()
        names = {one["id"]: one["name"] for one in shelf["resins"]}
        self.assertNotIn("my-deep", names)
        self.assertNotEqual(names["deep"], "mine")
        refused = {one["id"]: one["refused"] for one in shelf["notes"] if one["refused"]}
        self.assertEqual(set(refused), {"deep", "my-deep"})
        self.assertIn("glass temperature", refused["my-deep"])
        begun = self.client.post("/api/begin", json.dumps({"beginning": {}, "now": "2027-03-05T09:00:00"}),
                                 content_type="application/json")
        self.assertEqual(begun.status_code, 200)
        for key in ("deep", "my-deep"):
            self.assertEqual(self.client.delete(f"/api/library/resin/{key}").status_code, 200)
        self.assertEqual([one for one in self.client.get("/api/library").json()["notes"] if one["refused"]], [])

    def test_usual_answers_keep_what_is_still_taken(self):
        UsualAnswers.objects.create(owner=self.owner, body={"resin_id": "casting", "room_day_c": 900.0, "gone": 1})
        usual = self.client.get("/api/usual").json()
        self.assertEqual((usual["resin_id"], usual["room_day_c"]), ("casting", 22.0))

    def test_a_bottle_and_a_count_say_so_in_a_sentence(self):
        before = OwnRow.objects.get(key="my-deep").body
        Bottle.objects.create(
            owner=self.owner, kind="resin", key="my-deep", before=before, before_own=True, before_source=""
        )
        StockBook.objects.create(owner=self.owner, held=[{"amount": -1}], counted_at="2026-01-01T10:00:00Z")
        for url in ("/api/bottles/resin/my-deep", "/api/stock"):
            with self.subTest(url):
                answer = self.client.get(url)
                self.assertEqual(answer.status_code, 422)
                self.assertTrue(answer.json()["message"].endswith("."))
        self.assertEqual(self.client.get("/api/bottles").status_code, 200)

    def test_an_archive_leaves_the_row_out_and_says_so(self):
        other = User.objects.create_user("other")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "all.zip"
            write_archive(self.owner, file)
            words = bring_archive(other, file)
        self.assertEqual(len([one for one in words if "left out" in one and "glass temperature" in one]), 2)
        self.assertFalse(OwnRow.objects.filter(owner=other).exists())
