"""A disk that is full, or closed for writing: a sentence, and nothing that was saved is lost."""

import errno
import json
from contextlib import contextmanager

from django.contrib.auth.models import User
from django.db import OperationalError, connection
from django.test import SimpleTestCase, TransactionTestCase
from scenes.actions import create_scene
from scenes.models import Revision

from gondola_core.samples import quarry_pool
from gondola_server.disk import CLOSED, FULL, disk_sentence


@contextmanager
def full_disk():
    """The database may not grow by a page."""
    with connection.cursor() as cursor:
        pages = cursor.execute("PRAGMA page_count").fetchone()[0]
        before = cursor.execute("PRAGMA max_page_count").fetchone()[0]
        cursor.execute(f"PRAGMA max_page_count = {pages}")
    try:
        yield
    finally:
        with connection.cursor() as cursor:
            cursor.execute(f"PRAGMA max_page_count = {before}")


@contextmanager
def closed_disk():
    """The database may be read alone."""
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA query_only = ON")
    try:
        yield
    finally:
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA query_only = OFF")


class Saves(TransactionTestCase):
    def setUp(self):
        self.owner = User.objects.create_user("owner")
        self.client.force_login(self.owner)
        self.scene = create_scene(owner=self.owner, document=quarry_pool())

    def save(self, base, name):
        document = quarry_pool().model_dump(mode="json") | {"name": name}
        body = {"base_revision": base, "note": name * 1000, "document": document}
        return self.client.put(f"/api/scenes/{self.scene.pk}", json.dumps(body), content_type="application/json")

    def fill(self, base):
        """Saves until one is refused: what is left of a page may still take a few."""
        for step in range(60):
            answer = self.save(base, f"n{step}")
            if answer.status_code != 200:
                return answer, base
            base = answer.json()["revision"]
        return answer, base

    def test_a_full_disk_is_said_and_what_was_saved_is_there(self):
        with full_disk():
            answer, base = self.fill(1)
            self.assertEqual(answer.status_code, 503)
            self.assertEqual(answer.json()["problems"][0]["message"], FULL)
            kept = self.client.get(f"/api/scenes/{self.scene.pk}")
            self.assertEqual((kept.status_code, kept.json()["revision"]), (200, base))
        self.assertEqual(self.save(base, "again").status_code, 200)
        self.assertEqual(Revision.objects.filter(scene=self.scene).count(), base + 1)

    def test_a_closed_disk_is_said_and_scenes_can_still_be_looked_at(self):
        with closed_disk():
            answer = self.save(1, "never")
            self.assertEqual(answer.status_code, 503)
            self.assertEqual(answer.json()["problems"][0]["message"], CLOSED)
            self.assertEqual(self.client.get(f"/api/scenes/{self.scene.pk}").status_code, 200)
        self.assertEqual(self.save(1, "now").status_code, 200)


class Sentences(SimpleTestCase):
    def test_what_is_the_disks_fault_and_what_is_not(self):
        rows = [
            (OperationalError("database or disk is full"), FULL),
            (OperationalError("attempt to write a readonly database"), CLOSED),
            (OperationalError("no such table: scenes"), None),
            (OSError(errno.ENOSPC, "No space left on device"), FULL), (OSError(errno.EROFS, "Read-only"), CLOSED),
            (OSError(errno.ECONNRESET, "reset"), None),
        ]
        for error, sentence in rows:
            with self.subTest(error):
                self.assertEqual(disk_sentence(error), sentence)
