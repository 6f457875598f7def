"""States that were taken when they were saved, and are no longer: nothing of them is lost, and nothing else stops."""

from __future__ import annotations

import json
import zlib
from datetime import UTC, datetime, timedelta
from typing import Any

import trimesh
from scenes.models import Revision, Scene, Variant
from shapes.models import Mesh

from gondola_core.errors import GondolaError
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
