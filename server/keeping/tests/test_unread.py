"""States that were taken when they were saved, and are no longer: nothing of them is lost, and nothing else stops."""

from __future__ import annotations

import json
import tempfile
import zipfile
import zlib
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

import trimesh
from bench.models import Run, RunEvent
from django.contrib.auth.models import User
from django.test import TestCase
from learning.models import Bottle
from library.models import OwnRow, UsualAnswers
from look.models import Still
from scenes.models import Revision, Scene, Variant
from scenes.packed import damaged_bytes
from shapes.models import Mesh
from stock.models import StockBook

from gondola_core.materials import load_library
from gondola_core.scene import LARGEST_FILE
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

    def test_a_still_whose_eye_is_no_longer_taken_is_there_without_it_and_can_be_taken_away(self) -> None:
        job = "11111111-1111-4111-8111-111111111111"
        Still.objects.create(
            scene=self.scene, job_id=job, revision=2, stand={"eye": 1}, width_px=4, height_px=3, png=b"PNG"
        )
        (row,) = self.client.get(self.url("/stills")).json()
        self.assertEqual((row["revision"], row["stand"]), (2, None))
        self.assertEqual(self.client.delete(f"/api/stills/{row['id']}").status_code, 204)
        self.assertEqual(self.client.get(self.url("/stills")).json(), [])

    def test_a_run_whose_plan_is_no_longer_taken_does_not_stand_in_the_way_of_the_next(self) -> None:
        old = Run.objects.create(scene=self.scene, owner=self.owner, packed=b"\x02", started_at=datetime.now(UTC))
        RunEvent.objects.create(run=old, number=1, event_id="one", body={})
        self.assertEqual(self.client.get(f"/api/runs/{old.pk}").status_code, 422)
        (row,) = self.client.get(self.url("/runs")).json()
        self.assertIn("damaged", row["refused"])
        self.assertEqual(self.client.get(self.url("/glance")).json()["state"], "planning")
        begun = self.send("post", self.url("/runs"), {"zone": "UTC", "rehearsal": False, "seed": 1})
        self.assertEqual(begun.status_code, 200)
        rows = self.client.get(self.url("/runs")).json()
        self.assertEqual([one["refused"] is None for one in rows], [True, False], (rows, str(datetime.now(UTC))))

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

    def test_an_archive_carries_what_is_damaged_as_it_is_kept(self) -> None:
        whole = Revision.objects.get(scene=self.scene, number=3).packed
        run = Run.objects.create(scene=self.scene, owner=self.owner, packed=b"\x02", started_at=datetime.now(UTC))
        for name, kept in (("overwritten", b"\x00\x01"), ("cut short", whole[: len(whole) // 2]), ("empty", b"")):
            with self.subTest(name):
                self.keep(1, b"\x00\x01")
                self.keep(3, kept)
                words = write_archive(self.owner, self.file)
                self.assertEqual([one.split(" is damaged")[0] for one in words], [
                    "State 1 of 'Wagon in the Quarry Pool'", "State 3 of 'Wagon in the Quarry Pool'",
                    "The plan of a run of 'Wagon in the Quarry Pool'",
                ])
                with zipfile.ZipFile(self.file) as opened:
                    self.assertEqual(json.loads(opened.read("archive.json"))["damaged"], words)
                said = " ".join(bring_archive(self.other, self.file))
                self.assertIn("State 1 of 'Wagon in the Quarry Pool' is damaged", said)
                there = Scene.objects.get(owner=self.other)
                states = {one.number: bytes(one.packed) for one in there.revisions.all()}
                self.assertEqual((states[1], states[3]), (b"\x00\x01", kept))
                self.assertEqual(states[2], bytes(Revision.objects.get(scene=self.scene, number=2).packed))
                self.assertEqual(bytes(there.runs.get().packed), bytes(run.packed))
                there.runs.all().delete()
                there.variants.all().delete()
                there.delete()

    def test_what_is_said_to_be_damaged_and_is_not_is_refused(self) -> None:
        bomb = zlib.compress(bytes(LARGEST_FILE + 1))
        for name, kept in (("sound", zlib.compress(b"{}")), ("too much", bomb), ("too much, cut", bomb[:-4])):
            with self.subTest(name), self.assertRaises(ValueError):
                damaged_bytes(kept)

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

    def test_a_bottle_says_so_in_a_sentence(self):
        before = OwnRow.objects.get(key="my-deep").body
        Bottle.objects.create(
            owner=self.owner, kind="resin", key="my-deep", before=before, before_own=True, before_source=""
        )
        answer = self.client.get("/api/bottles/resin/my-deep")
        self.assertEqual(answer.status_code, 422)
        self.assertTrue(answer.json()["message"].endswith("."))
        self.assertEqual(self.client.get("/api/bottles").status_code, 200)

    def test_what_was_counted_and_is_no_longer_taken_is_left_out_and_told_until_it_is_counted_anew(self):
        scene = Scene.objects.create(owner=self.owner, name="Old wreck")
        run = Run.objects.create(scene=scene, owner=self.owner, packed=b"\x02", started_at=datetime.now(UTC))
        RunEvent.objects.create(run=run, number=1, event_id="one", body={})
        held = [{"key": "a:deep", "name": "deep, part A", "amount": 900.0}, {"name": "old ink", "amount": -1}]
        for currency, kept, told in (("EUR", held, 2), ("e1", held, 3), ("EUR", 7, 2)):
            with self.subTest(currency=currency, kept=kept):
                StockBook.objects.update_or_create(owner=self.owner, defaults={
                    "currency": currency, "held": kept, "counted_at": "2026-01-01T10:00:00Z",
                })
                shelf = self.client.get("/api/stock").json()
                self.assertEqual([one["amount"] for one in shelf["held"]], [900.0] if kept == held else [])
                self.assertEqual(len(shelf["refused"]), told)
                self.assertTrue(all(one.endswith(".") for one in shelf["refused"]))
                self.assertEqual(shelf["refused"][0].startswith("The currency on the shelf"), currency == "e1")
                self.assertIn("Old wreck", shelf["refused"][-1])
        again = {key: shelf[key] for key in ("currency", "held", "kits")}
        counted = self.client.put("/api/stock", json.dumps(again), content_type="application/json")
        self.assertEqual((counted.status_code, counted.json()["refused"]), (200, []))

    def test_an_archive_leaves_the_row_out_and_says_so(self):
        other = User.objects.create_user("other")
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "all.zip"
            write_archive(self.owner, file)
            words = bring_archive(other, file)
        self.assertEqual(len([one for one in words if "left out" in one and "glass temperature" in one]), 2)
        self.assertFalse(OwnRow.objects.filter(owner=other).exists())
