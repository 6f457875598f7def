"""A signed-in person with the sample scene."""

from __future__ import annotations

import json
from typing import Any

from django.contrib.auth.models import User
from django.test import TestCase

from gondola_core.samples import quarry_pool
from scenes.actions import create_scene, state_of
from scenes.tests.unlocked import nothing_computed_while_writing, nothing_marched_out_of_turn


class SceneCase(TestCase):
    def setUp(self) -> None:
        self.enterContext(nothing_computed_while_writing())
        self.enterContext(nothing_marched_out_of_turn())
        self.owner = User.objects.create_user("owner")
        self.other = User.objects.create_user("other")
        self.client.force_login(self.owner)
        self.scene = create_scene(owner=self.owner, document=quarry_pool())

    def document(self, **changes: Any) -> dict[str, Any]:
        made = quarry_pool().model_dump(mode="json")
        for path, value in changes.items():
            spot: Any = made
            *way, last = [int(part) if part.isdigit() else part for part in path.split("__")]
            for part in way:
                spot = spot[part]
            spot[last] = value
        return made

    def url(self, tail: str = "") -> str:
        return f"/api/scenes/{self.scene.pk}{tail}"

    def send(self, method: str, url: str, body: Any) -> Any:
        return getattr(self.client, method)(url, json.dumps(body), content_type="application/json")

    def save(self, base: int, **changes: Any) -> Any:
        body = {"base_revision": base, "document": self.document(**changes)}
        return self.send("put", self.url(), body)

    def shown(self) -> Any:
        return state_of(self.scene)
