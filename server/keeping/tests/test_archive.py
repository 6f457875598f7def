"""All that is a person's, carried away and taken in by somebody else."""

from __future__ import annotations

import io
import json
import tempfile
import uuid
import zipfile
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from unittest import mock

import trimesh
from bench import actions as bench
from django.contrib.auth.models import User
from django.test import override_settings
from learning.models import Bottle, BottleLog
from library.actions import keep_row
from log.actions import bring_photograph, enter
from log.schemas import EntryWrite
from look.models import Still
from people.ways import scenes_for
from PIL import Image
from scenes import variants
from scenes.actions import gone_scenes, state_of
from scenes.models import Scene
from scenes.tests.scene_case import SceneCase
from stock.models import StockBook
from studio.apart import apart

from gondola_core.bench.events import MOST_EVENTS
from gondola_core.digests import digest
from gondola_core.errors import GondolaError
from gondola_core.materials import load_library
from keeping.archive import back
from keeping.archive.back import bring_archive
from keeping.archive.out import write_archive
from keeping.tidying import tidy

LEARNT = {"mean": [0.1, 0.0], "covariance": [[0.01, 0.0], [0.0, 0.01]]}


class ArchiveCase(SceneCase):
    def setUp(self) -> None:
        super().setUp()
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        self.file = self.folder / "archive.zip"
        settings = override_settings(DATA=self.folder)
        settings.enable()
        self.addCleanup(settings.disable)

    def fill(self) -> None:
        ball = trimesh.creation.icosphere(2, 12.0)
        mesh_id = self.client.generic(
            "POST", "/api/meshes?kind=stl", ball.export(file_type="stl"), content_type="application/octet-stream"
        ).json()["mesh_id"]
        document = self.document()
        document["figures"].append({
            **document["figures"][1], "id": "ball",
            "solids": [{"kind": "mesh", "mesh_id": mesh_id, "scale_ratio": 1.0, "offset_mm": [0, 0, 0]}],
        })
        self.send("put", self.url(), {"base_revision": 1, "document": document})
        variants.keep(scene=self.scene, name="by hand", document=state_of(self.scene).document)
        enter(scene=self.scene, written=EntryWrite.model_validate({"kind": "note", "text": "a cold morning"}))
        out = io.BytesIO()
        Image.new("RGB", (40, 30), (10, 90, 80)).save(out, "JPEG")
        bring_photograph(scene=self.scene, name="out of the dam.jpg", content=out.getvalue())
        run = bench.begin(scene=self.scene, zone="UTC")
        at = bench.now_of(run).isoformat()
        # more than a device may send at once, as a thermometer comes to in a day
        for _ in range(2):
            bench.take(run=run, bodies=[
                {"id": str(uuid.uuid4()), "at": at, "kind": "measured", "device": "hand", "what": "room",
                 "measured_c": 21.0} for _ in range(300)
            ])
        job = "11111111-1111-4111-8111-111111111111"
        Still.objects.create(
            scene=self.scene, job_id=job, revision=2, stand={"eye": 1}, width_px=4, height_px=3, png=b"PNG"
        )
        resin = next(iter(load_library().resins.values())).model_dump(mode="json")
        keep_row(owner=self.owner, kind="resin", body={**resin, "id": "my-deep"}, source="my own cup")
        bottle = Bottle.objects.create(
            owner=self.owner, kind="resin", key="my-deep", before=resin, before_own=False, before_source=""
        )
        BottleLog.objects.create(
            bottle=bottle, kind="cup", title="cup", asked={}, told=LEARNT, prior=LEARNT, made_at="2026-01-01T10:00:00Z"
        )
        StockBook.objects.create(owner=self.owner, held=[{"a": 1}], counted_at="2026-01-01T10:00:00Z")


def shape_of(scene: Scene) -> dict[str, Any]:
    """What has to be the same after the journey."""
    return {
        "digest": digest(state_of(scene).document),
        "revisions": [
            (one.number, one.parent and one.parent.number, one.note, bytes(one.packed), one.created_at)
            for one in scene.revisions.all()
        ],
        "variants": sorted((one.name, one.head.number, one.tip.number) for one in scene.variants.all()),
        "entries": [(one.kind, one.text, one.at, one.body) for one in scene.entries.all()],
        "photographs": [one.photograph.digest for one in scene.entries.filter(kind="photograph")],
        "runs": [(bytes(one.packed), [event.body for event in one.events.all()]) for one in scene.runs.all()],
        "stills": [(bytes(one.png), one.stand, one.made_at) for one in scene.stills.all()],
    }


class Journey(ArchiveCase):
    def test_the_same_scenes_with_the_same_digests_somewhere_else(self):
        self.fill()
        write_archive(self.owner, self.file)
        before = self.send("post", "/api/evaluate", self.client.get(self.url()).json()["document"]).json()
        words = bring_archive(self.other, self.file)
        self.assertIn("1 pieces", words[0])
        there = Scene.objects.get(owner=self.other)
        self.assertEqual(shape_of(there), shape_of(self.scene))
        self.scene.refresh_from_db()
        self.assertEqual((there.created_at, there.changed_at), (self.scene.created_at, self.scene.changed_at))
        for rows in ("library_rows", "bottles", "meshes"):
            mine, theirs = (list(getattr(one, rows).values_list("key", flat=True)) for one in (self.owner, self.other))
            self.assertEqual(mine, theirs)
        self.assertEqual(self.other.bottles.get().logs.count(), 1)
        self.assertEqual(self.other.stock_book.held, [{"a": 1}])
        self.client.force_login(self.other)
        state = self.client.get(f"/api/scenes/{there.pk}").json()
        self.assertEqual(self.send("post", "/api/evaluate", state["document"]).json(), before)

    def test_it_is_hidden_until_all_of_it_is_there_and_nothing_is_left_where_it_is_not(self):
        # stored at one stroke, years of work held every save of the others up
        self.fill()
        write_archive(self.owner, self.file)
        shelf, seen = back._shelf, []

        def looked(owner: User, told: dict[str, Any]) -> list[str]:
            seen.append((Scene.objects.filter(owner=owner).count(), scenes_for(owner).count()))
            return shelf(owner, told)

        def broken(owner: User, told: dict[str, Any]) -> list[str]:
            raise OSError("the disk is full")

        with mock.patch.object(back, "_shelf", broken), self.assertRaises(OSError):
            bring_archive(self.other, self.file)
        self.assertFalse(Scene.objects.filter(owner=self.other).exists() or self.other.meshes.exists())
        with mock.patch.object(back, "_shelf", broken), mock.patch.object(back, "delete_scene"):
            # as where the machine goes down before anything is taken away
            self.assertRaises(OSError, bring_archive, self.other, self.file)
        self.assertEqual((Scene.objects.filter(owner=self.other).count(), gone_scenes(self.other)), (1, []))
        tidy(datetime.now(UTC) + timedelta(days=2))
        self.assertFalse(Scene.objects.filter(owner=self.other).exists())
        with mock.patch.object(back, "_shelf", looked):
            bring_archive(self.other, self.file)
        self.assertEqual((seen, scenes_for(self.other).count()), ([(1, 0)], 1))

    def test_a_piece_from_an_older_archive_has_the_days_of_its_states(self):
        self.fill()
        write_archive(self.owner, self.file)
        older = self.folder / "older.zip"
        with zipfile.ZipFile(self.file) as source, zipfile.ZipFile(older, "w") as out:
            for one in source.namelist():
                content = source.read(one)
                if one == "scenes/1/scene.json":
                    told = json.loads(content)
                    content = json.dumps({name: told[name] for name in told if not name.endswith("_at")}).encode()
                out.writestr(one, content)
        bring_archive(self.other, older)
        there = Scene.objects.get(owner=self.other)
        moments = list(there.revisions.order_by("created_at").values_list("created_at", flat=True))
        self.assertEqual((there.created_at, there.changed_at), (moments[0], moments[-1]))

    def test_over_http_and_twice_is_beside_and_own_rows_stay(self):
        self.fill()
        content = b"".join(self.client.get("/api/archive").streaming_content)
        answer = self.client.generic("POST", "/api/archive", content, content_type="application/octet-stream")
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertIn("'my-deep' was here already", " ".join(answer.json()["words"]))
        self.assertEqual(Scene.objects.filter(owner=self.owner).count(), 2)
        with zipfile.ZipFile(io.BytesIO(content)) as opened:
            self.assertIsNone(opened.testzip())
            scene = json.loads(opened.read("scenes/1/scene.gondola.json"))
        self.assertEqual(len(scene["meshes"]), 1)


class Refused(ArchiveCase):
    def test_each_with_a_sentence_and_nothing_taken_in(self):
        self.fill()
        write_archive(self.owner, self.file)

        def changed(name: str, content: bytes | None) -> Path:
            target = self.folder / f"changed-{uuid.uuid4()}.zip"
            with zipfile.ZipFile(self.file) as source, zipfile.ZipFile(target, "w") as out:
                for one in source.namelist():
                    told = content if one == name else source.read(one)
                    if told is not None:
                        out.writestr(one, told)
            return target

        plain = self.folder / "plain.zip"
        plain.write_bytes(b"no archive at all")
        photograph = next(one for one in zipfile.ZipFile(self.file).namelist() if one.startswith("photographs/"))
        scene, shapes = (
            zipfile.ZipFile(self.file).read(name).decode() for name in ("scenes/1/scene.json", "shapes.json")
        )
        told = json.loads(scene)
        endless = shapes.replace('"triangles_count": ', '"triangles_count": ' + "9" * 30)
        rows = [
            ("not a zip", plain, "no archive of Gondola"),
            ("no head", changed("archive.json", None), "no archive of Gondola"),
            ("another form", changed("archive.json", b'{"form": 99}'), "another Gondola"),
            ("no revision", changed("scenes/1/revisions/1.json", None), "not whole"),
            ("no JSON", changed("scenes/1/scene.json", b"{"), "not whole"),
            ("a list", changed("scenes/1/scene.json", b"[]"), "not whole"),
            ("no scene", changed("scenes/1/revisions/1.json", b"{}"), "format"),
            ("another picture", changed(photograph, b"x"), "not as it was written"),
            ("an endless number", changed("shapes.json", endless.encode()), "not whole"),
            ("a run without end", changed("scenes/1/scene.json", json.dumps(
                {**told, "runs": [{**told["runs"][0], "events": [told["runs"][0]["events"][0]] * (MOST_EVENTS + 1)}]}
            ).encode()), "at most 20000 entries"),
            ("a sound state called damaged", changed(
                "scenes/1/scene.json", scene.replace('"damaged": false', '"damaged": true', 1).encode()), "not whole"),
            ("a moment", changed("scenes/1/scene.json", scene.replace("+00:00", "").encode()), "no moment"),
        ]
        shelf = json.loads(zipfile.ZipFile(self.file).read("shelf.json"))
        for field, value, part, words in (
            ("note", "x" * 300, "revisions", "at most 120 characters"), ("number", None, "revisions", "not whole"),
            ("created_at", None, "revisions", "created_at is missing"), ("name", None, "variants", "no text"),
            ("text", None, "entries", "no text"), ("kind", "poem", "entries", "not a valid choice"),
            ("x_mm", "far", "entries", "must be a float"), ("body", {"pins": [{"kind": "moon"}]}, "entries", "Pin"),
            ("zone", None, "runs", "no text"), ("speed", -1.0, "runs", "no clock"),
            ("ahead_s", 1e300, "runs", "not whole"), ("at", "9999-12-31T23:59:59+00:00", "entries", "1970 to 2200"),
            ("rehearsal", "perhaps", "runs", "True or False"), ("width_px", -4, "stills", "greater than or equal"),
        ):
            odd = {**told, part: [{**told[part][0], field: value}, *told[part][1:]]}
            rows.append((f"{field} {value}", changed("scenes/1/scene.json", json.dumps(odd).encode()), words))
        twice = {**told, "entries": [], "revisions": [*told["revisions"], told["revisions"][-1]]}
        rows.append(("a state twice", changed("scenes/1/scene.json", json.dumps(twice).encode()), "stands in it twice"))
        bodies = json.loads(shapes)
        for name, odd in (("other triangles", {"triangles_count": 3}), ("a spread below nothing", {"spread_ml": -1.0})):
            words = "other triangles" if "triangles_count" in odd else "may be off"
            rows.append((name, changed("shapes.json", json.dumps([{**bodies[0], **odd}]).encode()), words))
        bottle = shelf["bottles"][0]
        for name, odd in (
            ("no name", {**bottle, "before": {}}), ("no kind", {**bottle, "kind": "moon"}),
            ("nothing learnt", {**bottle, "logs": [{**bottle["logs"][0], "told": {"mean": [1.0]}}]}),
            ("learnt beyond all", {**bottle, "logs": [{**bottle["logs"][0], "prior": {**LEARNT, "mean": [0.0]}}]}),
        ):
            rows.append((name, changed("shelf.json", json.dumps({**shelf, "bottles": [odd]}).encode()), "not whole"))
        for name, file, words in rows:
            with self.subTest(name):
                with self.assertRaises(GondolaError) as refused:
                    bring_archive(self.other, file)
                self.assertIn(words, refused.exception.message)
                self.assertFalse(Scene.objects.filter(owner=self.other).exists())


class Counted(ArchiveCase):
    def changed(self, **parts: bytes) -> Path:
        """The archive with some of its files for others."""
        target = self.folder / f"changed-{uuid.uuid4()}.zip"
        with zipfile.ZipFile(self.file) as source, zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as out:
            for one in source.namelist():
                out.writestr(one, parts.get(Path(one).stem, source.read(one)))
        return target

    def test_small_archives_that_would_cost_gigabytes(self):
        self.fill()
        write_archive(self.owner, self.file)
        lists = b"[" + b"[]," * 600_000 + b"[]]"
        few = mock.patch("keeping.archive.reading.MOST_VALUES", 1_000_000)
        for name, file, words in (
            ("a shelf of lists", self.changed(shelf=lists), "1,000,000 at most"),
            ("a scene of lists", self.changed(scene=lists), "1,000,000 at most"),
            ("a revision of lists", self.changed(**{"1": lists}), "500,000 at most"),
        ):
            with self.subTest(name), few:
                self.assertLess(file.stat().st_size, 200_000)
                with self.assertRaises(GondolaError) as refused:
                    bring_archive(self.other, file)
                self.assertIn(words, refused.exception.message)
        with mock.patch("keeping.archive.back.MOST_PICTURES", 2), self.assertRaises(GondolaError) as refused:
            bring_archive(self.other, self.file)
        self.assertIn("stills", refused.exception.message)
        self.assertFalse(Scene.objects.filter(owner=self.other).exists())

    def test_over_http_it_is_read_in_a_process_of_its_own(self):
        self.fill()
        content = b"".join(self.client.get("/api/archive").streaming_content)
        with mock.patch("keeping.api.apart", wraps=apart) as called:
            for body, status in ((content, 200), (content[:2000], 422)):
                answer = self.client.generic("POST", "/api/archive", body, content_type="application/octet-stream")
                self.assertEqual(answer.status_code, status, answer.content)
        self.assertEqual(called.call_count, 2)
