"""Every operation of the API as somebody else, as nobody, and with a link that was withdrawn."""

from __future__ import annotations

import uuid
from typing import Any

import trimesh
from bench import actions as bench
from django.contrib.auth.models import User
from jobs.models import Job
from log.actions import enter
from log.schemas import EntryWrite
from look.models import Still
from people.models import Invitation, Share
from people.sharing import make_link, withdraw
from people.ways import linked_scene, scenes_for
from scenes.tests.scene_case import SceneCase
from shapes.models import Mesh

from gondola_core.samples import quarry_pool
from gondola_server.api import api

OWN_THINGS = {"scene_id", "run_id", "entry_id", "still_id", "job_id", "link_id", "token"}
OPEN = {"sign_in", "read_invitation", "join", "read_shown", "shown_picture", "shown_sheet", "shown_file"}
"""What needs nobody signed in."""


class Sample:
    """A body that an operation takes, by its schema."""

    def __init__(self, schemas: dict[str, Any], named: dict[str, Any]) -> None:
        self.schemas, self.named = schemas, named
        self.scene = quarry_pool().model_dump(mode="json")

    def of(self, schema: dict[str, Any]) -> Any:
        if "$ref" in schema:
            name = schema["$ref"].rsplit("/", 1)[-1]
            return self.scene if name in ("Scene", "Scene-Input") else self.of(self.schemas[name])
        for several in ("anyOf", "oneOf", "allOf"):
            if several in schema:
                return self.of(schema[several][0])
        for told in ("const", "default"):
            if told in schema:
                return schema[told]
        if "enum" in schema:
            return schema["enum"][0]
        return self.plain(schema)

    def plain(self, schema: dict[str, Any]) -> Any:
        kind = schema.get("type")
        if kind == "object":
            wanted = schema.get("required", [])
            return {name: self.named.get(name) or self.of(schema["properties"][name]) for name in wanted}
        if kind == "array":
            return [self.of(schema["items"])] * schema.get("minItems", 0)
        if kind == "string":
            formats = {"uuid": str(uuid.uuid4()), "date-time": "2026-03-01T10:00:00+00:00"}
            return formats.get(schema.get("format", ""), "x" * max(1, schema.get("minLength", 1)))
        if kind in ("integer", "number"):
            return max(1, schema.get("minimum", 1))
        return True if kind == "boolean" else None


class Walk(SceneCase):
    def setUp(self) -> None:
        super().setUp()
        self.link, self.token = make_link(scene=self.scene, days=3)
        withdraw(scene=self.scene, link_id=self.link.pk)
        run = bench.begin(scene=self.scene, zone="UTC")
        entry = enter(scene=self.scene, written=EntryWrite.model_validate({"kind": "note", "text": "secret words"}))
        job = Job.objects.create(owner=self.owner, kind="march", digest="d", document=b"", parameters={})
        still = Still.objects.create(
            scene=self.scene, job_id=job.pk, revision=1, stand={}, width_px=1, height_px=1, png=b"png"
        )
        self.ids = {
            "scene_id": self.scene.pk, "run_id": run.pk, "entry_id": entry.pk, "still_id": still.pk,
            "job_id": job.pk, "link_id": self.link.pk, "token": self.token, "name": "owner", "kind": "resin",
            "key": "x", "log_id": 1, "number": 1, "variant": "x",
        }
        self.schema = api.get_openapi_schema()
        self.sample = Sample(self.schema["components"]["schemas"], {"job_id": str(job.pk)})

    def operations(self):
        for path, methods in self.schema["paths"].items():
            for method, operation in methods.items():
                names = [one["name"] for one in operation.get("parameters", []) if one["in"] == "path"]
                url = path
                for name in names:
                    url = url.replace("{" + name + "}", str(self.ids[name]))
                asked = [
                    f"{one['name']}={self.sample.of(one['schema'])}" for one in operation.get("parameters", [])
                    if one["in"] == "query" and one.get("required")
                ]
                url += "?" + "&".join(asked) if asked else ""
                yield operation["operationId"], method, url, set(names), operation

    def ask(self, method: str, url: str, operation: Any) -> Any:
        content = operation.get("requestBody", {}).get("content", {})
        if "application/json" not in content:
            return getattr(self.client, method)(url)
        body = self.sample.of(content["application/json"]["schema"])
        if operation["operationId"] == "create_scene":
            body = self.sample.scene
        return self.send(method, url, body)

    def test_as_nobody_each_operation_asks_to_sign_in(self):
        self.client.logout()
        walked = 0
        for name, method, url, _, operation in self.operations():
            if name in OPEN:
                continue
            with self.subTest(name):
                answer = self.ask(method, url, operation)
                self.assertEqual(answer.status_code, 401, answer.content[:200])
                self.assertIn("Sign in", answer.json()["message"])
            walked += 1
        self.assertGreater(walked, 90)

    def test_as_somebody_else_nothing_of_the_owner_is_there(self):
        self.client.force_login(self.other)
        walked = 0
        for name, method, url, ids, operation in self.operations():
            if not ids & OWN_THINGS or name in OPEN:
                continue
            with self.subTest(name):
                answer = self.ask(method, url, operation)
                self.assertEqual(answer.status_code, 404, (url, answer.content[:300]))
                self.assertNotIn(b"secret", answer.content)
            walked += 1
        self.assertGreater(walked, 45)

    def test_a_withdrawn_link_shows_nothing(self):
        self.client.logout()
        for name, method, url, ids, operation in self.operations():
            if "token" in ids:
                with self.subTest(name):
                    answer = self.ask(method, url, operation)
                    self.assertIn(answer.status_code, (403, 404))
                    self.assertNotIn(b"Quarry", answer.content)

    def test_lists_of_somebody_else_are_empty(self):
        self.client.force_login(self.other)
        for url in ("/api/scenes", "/api/scenes/gone", "/api/log/search?asked=secret"):
            with self.subTest(url):
                self.assertEqual(self.client.get(url).json(), [])

    def test_every_refusal_is_named_with_one_body(self):
        for path in self.schema["paths"].values():
            for operation in path.values():
                for status in (400, 401, 403, 404, 413, 422, 429, 503):
                    self.assertIn(status, operation["responses"], operation["operationId"])


class Shared(SceneCase):
    """What a member may do with a scene that is shared with them."""

    def shared(self, may: str) -> None:
        Share.objects.update_or_create(scene=self.scene, member=self.other, defaults={"may": may})
        self.client.force_login(self.other)

    def test_to_look_reads_and_changes_nothing(self):
        self.shared("look")
        state = self.client.get(self.url()).json()
        self.assertEqual((state["may"], state["owner"]), ("look", "owner"))
        rows = [
            ("put", self.url(), {"base_revision": 1, "document": self.document()}),
            ("post", self.url("/undo"), {"base_revision": 1}),
            ("post", self.url("/entries"), {"kind": "note", "text": "mine"}),
            ("post", self.url("/runs"), {"zone": "UTC"}),
            ("delete", self.url(), {}),
            ("put", self.url("/seen-by"), {"name": "other", "may": "work"}),
        ]
        for method, url, body in rows:
            with self.subTest(f"{method} {url}"):
                answer = self.send(method, url, body)
                self.assertEqual(answer.status_code, 403, answer.content)
                self.assertIn("owner", answer.json()["message"])
        self.assertEqual(self.client.get(self.url("/sheet.csv")).status_code, 200)

    def test_to_work_saves_and_does_not_give_away(self):
        self.shared("work")
        self.assertEqual(self.save(1, name="By another hand").status_code, 200)
        self.assertEqual(self.client.get(self.url()).json()["may"], "work")
        for method, url in (("delete", self.url()), ("get", self.url("/seen-by"))):
            self.assertEqual(getattr(self.client, method)(url).status_code, 403)

    def test_log_and_runs_are_those_of_the_scene_whoever_keeps_them(self):
        self.shared("work")
        self.send("post", self.url("/entries"), {"kind": "note", "text": "from the member"})
        run = self.send("post", self.url("/runs"), {"zone": "UTC"}).json()
        self.client.force_login(self.owner)
        self.assertEqual([one["text"] for one in self.client.get(self.url("/entries")).json()], ["from the member"])
        self.assertEqual(self.client.get(f"/api/runs/{run['run']['id']}").status_code, 200)

    def test_what_is_taken_back_is_gone_at_once(self):
        self.shared("work")
        Share.objects.all().delete()
        self.assertEqual(self.client.get(self.url()).status_code, 404)
        self.assertFalse(scenes_for(self.other).exists())

    def test_shapes_that_a_member_brings_come_along(self):
        self.shared("work")
        ball = trimesh.creation.icosphere(2, 12.0)
        brought = self.client.generic(
            "POST", "/api/meshes?kind=stl", ball.export(file_type="stl"), content_type="application/octet-stream"
        ).json()
        document = self.document()
        document["figures"].append({
            **document["figures"][1], "id": "ball",
            "solids": [{"kind": "mesh", "mesh_id": brought["mesh_id"], "scale_ratio": 1.0, "offset_mm": [0, 0, 0]}],
        })
        self.assertEqual(
            self.send("put", self.url(), {"base_revision": 1, "document": document}).status_code, 200
        )
        self.client.force_login(self.owner)
        Share.objects.all().delete()
        self.assertEqual(self.send("post", "/api/evaluate", document).status_code, 200)
        self.assertEqual(Mesh.objects.filter(owner=self.owner).count(), 1)


class Linked(SceneCase):
    def test_a_link_shows_the_piece_and_its_files_to_anybody(self):
        _, token = make_link(scene=self.scene, days=3)
        self.client.logout()
        shown = self.client.get(f"/api/shown/{token}").json()
        self.assertEqual(shown["name"], self.scene.name)
        self.assertEqual(len(shown["pours"]), len(quarry_pool().pours))
        for tail in ("/picture?width=160", "/sheet.pdf", "/file"):
            with self.subTest(tail):
                self.assertEqual(self.client.get(f"/api/shown/{token}{tail}").status_code, 200)

    def test_it_lapses_and_its_token_is_not_kept(self):
        link, token = make_link(scene=self.scene, days=3)
        self.assertNotIn(token, link.token_hash)
        link.lapses_at = link.created_at
        link.save()
        self.assertEqual(self.client.get(f"/api/shown/{token}").status_code, 404)

    def test_it_dies_with_the_scene_and_with_its_owner(self):
        _, token = make_link(scene=self.scene, days=3)
        self.assertEqual(linked_scene(token), self.scene)
        self.client.delete(self.url())
        self.assertEqual(self.client.get(f"/api/shown/{token}").status_code, 404)
        self.send("post", f"/api/scenes/gone/{self.scene.pk}/back", {})
        self.assertEqual(self.client.get(f"/api/shown/{token}").status_code, 200)
        User.objects.filter(pk=self.owner.pk).update(is_active=False)
        self.assertEqual(self.client.get(f"/api/shown/{token}").status_code, 404)
        self.assertFalse(Invitation.objects.exists())
