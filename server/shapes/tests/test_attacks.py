"""Small files that would cost much, and what others feel of large ones."""

from __future__ import annotations

import base64
import json
import struct
import zlib
from typing import Any
from unittest import mock

import numpy as np
import trimesh
from django.db import connection
from scenes.tests.scene_case import SceneCase

from shapes import actions

BALL = trimesh.creation.icosphere(3, 12.0)


def glb(told: dict[str, Any], body: bytes = b"") -> bytes:
    text = json.dumps({"asset": {"version": "2.0"}, **told}).encode()
    text += b" " * (-len(text) % 4)
    chunks = struct.pack("<II", len(text), 0x4E4F534A) + text
    if body:
        body += b"\0" * (-len(body) % 4)
        chunks += struct.pack("<II", len(body), 0x004E4942) + body
    return b"glTF" + struct.pack("<II", 2, 12 + len(chunks)) + chunks


def instanced(count: int, nodes: int) -> bytes:
    """One mesh of `count` triangles, put up many times."""
    corners = np.zeros((3, 3), "<f4").tobytes()
    return glb({
        "buffers": [{"byteLength": len(corners)}], "bufferViews": [{"buffer": 0, "byteLength": len(corners)}],
        "accessors": [{"bufferView": 0, "componentType": 5126, "count": 3 * count, "type": "VEC3"}],
        "meshes": [{"primitives": [{"attributes": {"POSITION": 0}}]}],
        "nodes": [{"mesh": 0} for _ in range(nodes)], "scenes": [{"nodes": list(range(nodes))}], "scene": 0,
    }, corners)


def out_of_range() -> bytes:
    body = np.array([[0, 0, 0], [10, 0, 0], [0, 10, 0]], "<f4").tobytes() + np.array([0, 1, 99, 0], "<u2").tobytes()
    return glb({
        "buffers": [{"byteLength": len(body)}],
        "bufferViews": [{"buffer": 0, "byteLength": 36}, {"buffer": 0, "byteOffset": 36, "byteLength": 6}],
        "accessors": [
            {"bufferView": 0, "componentType": 5126, "count": 3, "type": "VEC3"},
            {"bufferView": 1, "componentType": 5123, "count": 3, "type": "SCALAR"},
        ],
        "meshes": [{"primitives": [{"attributes": {"POSITION": 0}, "indices": 1}]}],
        "nodes": [{"mesh": 0}], "scenes": [{"nodes": [0]}], "scene": 0,
    }, body)


class Counted(SceneCase):
    def bring(self, content: bytes, kind: str = "glb") -> Any:
        return self.client.generic(
            "POST", f"/api/meshes?kind={kind}", content, content_type="application/octet-stream"
        )

    def test_what_a_file_says_of_itself_is_counted_before_it_is_believed(self):
        empty = {"accessors": [{"componentType": 5126, "count": 400_000, "type": "VEC3"}]}
        endless = {"accessors": [{"bufferView": 0, "componentType": 5126, "count": 10**9, "type": "VEC3"}]}
        rows = [
            ("without any content", glb(empty)), ("in one list", glb(endless)),
            ("each repeated part counted", instanced(20_000, 60)), ("parts", instanced(1, 20_001)),
            ("corners are not in the file", out_of_range()),
            ("cannot be read", glb({"accessors": "many", "nodes": [3], "meshes": None})),
        ]
        for words, content in rows:
            with self.subTest(words):
                answer = self.bring(content)
                self.assertEqual(answer.status_code, 422, answer.content)
                self.assertIn(words, answer.json()["message"])

    def test_nothing_is_mended_while_others_wait_to_write(self):
        before, seen = len(connection.savepoint_ids), []

        def watched(work: Any, *given: Any, what: str) -> Any:
            seen.append(len(connection.savepoint_ids))
            return work(*given)

        with mock.patch.object(actions, "apart", watched):
            self.assertEqual(self.bring(BALL.export(file_type="stl"), "stl").status_code, 201)
        self.assertEqual(seen, [before])


class Packed(SceneCase):
    def scene_with(self, packed: bytes, count: int) -> dict[str, Any]:
        document = self.document()
        document["meshes"] = [
            {"id": f"m{at}", "packed_base64": base64.b64encode(packed).decode()} for at in range(count)
        ]
        for at in range(count):
            document["figures"].append({
                **document["figures"][1], "id": f"bomb-{at}",
                "solids": [{"kind": "mesh", "mesh_id": f"m{at}", "scale_ratio": 1.0, "offset_mm": [0, 0, 0]}],
            })
        return document

    def test_meshes_of_a_scene_are_counted_together_before_any_is_unpacked(self):
        count = 2_000_000
        body = struct.pack("<II", count, count) + bytes(24 * count)
        lying = struct.pack("<II", 2**32 - 1, 2**32 - 1)
        for packed, copies in ((zlib.compress(body, 9), 3), (zlib.compress(lying), 1)):
            with self.subTest(copies), mock.patch("gondola_core.shape.bodies.mesh.unpack_mesh") as unpacked:
                for url in ("/api/evaluate", "/api/scenes"):
                    answer = self.send("post", url, self.scene_with(packed, copies))
                    self.assertEqual(answer.status_code, 422, answer.content[:200])
                    self.assertIn("make them simpler", answer.json()["message"])
                unpacked.assert_not_called()

    def test_what_nothing_points_at_is_not_unpacked(self):
        document = self.document()
        document["meshes"] = [{"id": "unused", "packed_base64": "AAAA"}]
        self.assertEqual(self.send("post", "/api/evaluate", document).status_code, 200)
