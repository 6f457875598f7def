"""Backup while others write, restore, check, and what is thinned and taken away."""

from __future__ import annotations

import os
import shutil
import sqlite3
import stat
import subprocess
import sys
import tempfile
import threading
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path

from django.conf import settings
from django.contrib.auth.models import User
from django.db import connection
from log.actions import enter, take_back
from log.models import Entry
from log.schemas import EntryWrite
from people import accounts
from people.models import Leaving
from scenes.actions import create_scene, save_scene, undo
from scenes.models import Revision, Scene
from scenes.tests.scene_case import SceneCase

from gondola_core.errors import GondolaError
from gondola_core.samples import quarry_pool
from keeping.backup import backup, backups_in, manifest_of, thin_backups
from keeping.checking import check
from keeping.folder import DATABASE, held, make_private, secret_key
from keeping.restore import restore
from keeping.thinning import thin, to_thin
from keeping.tidying import tidy

NOW = datetime(2026, 5, 20, 12, tzinfo=UTC)


class FolderCase(SceneCase):
    """A data folder with a copy of the test's database."""

    def setUp(self) -> None:
        super().setUp()
        self.folder = Path(tempfile.mkdtemp())
        self.addCleanup(shutil.rmtree, self.folder)

    def lay(self) -> None:
        connection.ensure_connection()
        # as it stands within the transaction of the test, which a backup would wait for
        (self.folder / DATABASE).write_bytes(connection.connection.serialize())


class Backups(FolderCase):
    def lay(self) -> None:
        """A small database of our own: that of the test is held by its transaction."""
        with closing(sqlite3.connect(self.folder / DATABASE)) as made:
            made.execute("PRAGMA journal_mode=WAL")
            made.execute("CREATE TABLE log_photograph (digest TEXT)")
            made.execute("CREATE TABLE t (n INTEGER)")
            made.execute("INSERT INTO log_photograph VALUES ('abcd')")
            made.execute("INSERT INTO t VALUES (0)")
            made.commit()
        place = self.folder / "photographs" / "ab" / "abcd"
        place.parent.mkdir(parents=True)
        place.write_bytes(b"a picture")

    def test_it_holds_one_moment_while_somebody_writes_all_the_time(self):
        self.lay()
        stop = threading.Event()

        def write() -> None:
            with closing(sqlite3.connect(self.folder / DATABASE, timeout=10)) as live:
                while not stop.is_set():
                    live.execute("BEGIN IMMEDIATE")
                    live.execute("INSERT INTO t SELECT max(n) + 1 FROM t")
                    live.execute("INSERT INTO t SELECT max(n) + 1 FROM t")
                    live.commit()

        writer = threading.Thread(target=write)
        writer.start()
        try:
            made = backup(self.folder, self.folder / "backups", NOW)
        finally:
            stop.set()
            writer.join()
        with closing(sqlite3.connect(made / DATABASE)) as copy:
            highest, count = copy.execute("SELECT max(n), count(*) FROM t").fetchone()
        self.assertEqual(highest + 1, count)
        self.assertEqual(highest % 2, 0)
        self.assertEqual((made / "photographs" / "ab" / "abcd").read_bytes(), b"a picture")
        self.assertEqual(stat.S_IMODE((made / DATABASE).stat().st_mode), 0o600)

    def test_restore_puts_back_and_moves_aside(self):
        self.lay()
        made = backup(self.folder, self.folder / "backups", NOW)
        with closing(sqlite3.connect(self.folder / DATABASE)) as live:
            live.execute("DELETE FROM t")
            live.commit()
        aside = restore(made, self.folder)
        for place, count in ((self.folder, 1), (aside, 0)):
            with closing(sqlite3.connect(place / DATABASE)) as live:
                self.assertEqual(live.execute("SELECT count(*) FROM t").fetchone()[0], count)
        self.assertTrue((self.folder / "photographs" / "ab" / "abcd").is_file())

    def test_a_damaged_one_is_refused_with_a_sentence_and_nothing_is_touched(self):
        self.lay()
        made = backup(self.folder, self.folder / "backups", NOW)
        before = (self.folder / DATABASE).read_bytes()
        rows = [
            ("missing", lambda: (made / "photographs" / "ab" / "abcd").unlink(), "missing"),
            ("changed", lambda: (made / DATABASE).write_bytes(b"x" * 4096), "damaged"),
            ("no manifest", lambda: (made / "manifest.json").unlink(), "no backup of Gondola"),
        ]
        for name, harm, words in rows:
            with self.subTest(name):
                harm()
                with self.assertRaisesMessage(GondolaError, words):
                    restore(made, self.folder)
                self.assertEqual((self.folder / DATABASE).read_bytes(), before)
                (made / "photographs" / "ab").mkdir(exist_ok=True)
                (made / "photographs" / "ab" / "abcd").write_bytes(b"a picture")

    def test_not_while_a_server_works_with_the_folder(self):
        self.lay()
        made = backup(self.folder, self.folder / "backups", NOW)
        with held(self.folder), self.assertRaisesMessage(GondolaError, "stop it first"):
            restore(made, self.folder)

    def test_the_newest_are_kept(self):
        self.lay()
        for day in range(4):
            backup(self.folder, self.folder / "backups", NOW + timedelta(days=day))
        thin_backups(self.folder / "backups", 2)
        self.assertEqual([one.name[8:16] for one in backups_in(self.folder / "backups")], ["20260523", "20260522"])
        self.assertEqual(manifest_of(backups_in(self.folder / "backups")[0])["form"], 1)

    def test_where_it_cannot_be_written_it_says_so_and_leaves_nothing(self):
        self.lay()
        blocked = self.folder / "blocked"
        blocked.write_text("a file, not a folder")
        with self.assertRaises((GondolaError, OSError)):
            backup(self.folder, blocked / "backups", NOW)
        with self.assertRaisesMessage(GondolaError, "no studio"):
            backup(self.folder / "backups", self.folder / "b", NOW)


class Checking(FolderCase):
    def test_all_is_there(self):
        self.lay()
        self.assertEqual(check(self.folder), [])
        self.assertEqual(check(self.folder / "nothing"), [])

    def test_each_thing_that_is_wrong_is_a_sentence(self):
        document = self.document()
        document["figures"][0]["solids"] = [
            {"kind": "mesh", "mesh_id": "mesh-gone", "scale_ratio": 1.0, "offset_mm": [0, 0, 0]}
        ]
        rows = [
            ("UPDATE scenes_revision SET packed = x'00'", "Revision 1 of Wagon in the Quarry Pool cannot be read"),
            ("UPDATE scenes_variant SET name = 'other'", "no plan that is worked on"),
            ("INSERT INTO log_photograph (entry_id, name, form, digest, bytes_count, width_px, height_px, small) "
             "SELECT id, 'a', 'JPEG', 'abcd', 1, 1, 1, x'00' FROM log_entry LIMIT 1", "lost their original"),
        ]
        enter(scene=self.scene, written=EntryWrite.model_validate({"kind": "note", "text": "a note"}))
        for sql, words in rows:
            with self.subTest(words):
                self.lay()
                with closing(sqlite3.connect(self.folder / DATABASE)) as live:
                    live.execute(sql)
                    live.commit()
                told = check(self.folder)
                self.assertTrue(any(words in one for one in told), told)
                (self.folder / DATABASE).unlink()

    def test_a_damaged_page_is_found_before_anything_is_read(self):
        self.lay()
        file = self.folder / DATABASE
        content = bytearray(file.read_bytes())
        for page in range(4, len(content) // 4096):
            content[page * 4096:page * 4096 + 64] = os.urandom(64)
        file.write_bytes(content)
        told = check(self.folder)
        self.assertEqual(len(told), 1)
        self.assertIn("gondola restore", told[0])

    def test_a_file_that_nobody_names(self):
        self.lay()
        place = self.folder / "photographs" / "ef" / "ef01"
        place.parent.mkdir(parents=True)
        place.write_bytes(b"left over")
        self.assertIn("gondola tidy", check(self.folder)[0])


class Private(FolderCase):
    def test_folder_databases_and_key_are_for_this_account_alone(self):
        self.lay()
        self.folder.chmod(0o755)
        (self.folder / DATABASE).chmod(0o644)
        make_private(self.folder)
        key = secret_key(self.folder)
        self.assertEqual(secret_key(self.folder), key)
        self.assertGreater(len(key), 60)
        for place, mode in ((self.folder, 0o700), (self.folder / DATABASE, 0o600), (self.folder / "secret_key", 0o600)):
            self.assertEqual(stat.S_IMODE(place.stat().st_mode), mode, place)


class Durable(FolderCase):
    def test_what_is_acknowledged_is_on_the_disk_and_what_is_deleted_is_overwritten(self):
        """As it is set for a real installation, in a process of its own."""
        asked = (
            "from django.db import connection as c; u = c.cursor(); "
            "print([u.execute('PRAGMA ' + p).fetchone()[0] for p in "
            "('journal_mode', 'synchronous', 'foreign_keys', 'secure_delete')])"
        )
        told = {**os.environ, "GONDOLA_DATA": str(self.folder), "GONDOLA_SECRET_KEY": "there", "GONDOLA_SERVES": "0"}
        manage = str(Path(settings.ROOT) / "server" / "manage.py")
        said = subprocess.run(
            [sys.executable, manage, "shell", "-v", "0", "-c", asked], env=told, capture_output=True, text=True,
            check=True,
        )
        self.assertEqual(said.stdout.strip(), "['wal', 2, 1, 1]")


class Thinning(SceneCase):
    def test_all_of_a_day_then_one_an_hour_then_one_a_day(self):
        moments = [(number, NOW - timedelta(minutes=10 * number)) for number in range(6 * 24 * 60)]
        gone = to_thin(moments, NOW, keep={999})
        left = [(key, moment) for key, moment in moments if key not in gone]
        ages = [NOW - moment for _, moment in left]
        self.assertEqual(sum(age < timedelta(days=1) for age in ages), 144)
        hourly = [moment for _, moment in left if timedelta(days=1) <= NOW - moment < timedelta(days=30)]
        self.assertAlmostEqual(len(hourly), 29 * 24, delta=2)
        daily = [moment for _, moment in left if NOW - moment >= timedelta(days=31)]
        self.assertEqual(len(daily), len({moment.date() for moment in daily}))
        self.assertIn(999, dict(left))
        # what stays of an hour is its last
        edge = NOW - timedelta(days=1)
        self.assertEqual({moment.minute for moment in hourly if moment not in (edge, dict(moments)[999])}, {50})

    def test_what_is_shown_named_first_or_aside_stays_and_undo_goes_over_the_gaps(self):
        for number in range(1, 30):
            save_scene(scene=self.scene, base_revision=number, document=quarry_pool(), note="pulled")
        undo(scene=self.scene, base_revision=30)
        Revision.objects.filter(scene=self.scene).update(created_at=NOW - timedelta(days=60))
        Revision.objects.filter(number=7).update(note="kept as by hand")
        Revision.objects.filter(number=9).update(kept_aside=True)
        self.assertGreater(thin(self.scene, NOW), 20)
        numbers = set(self.scene.revisions.values_list("number", flat=True))
        self.assertLessEqual({1, 7, 9, 29, 30}, numbers)
        self.scene.refresh_from_db()
        head, seen = self.scene.variants.get(name="plan").head, []
        while head is not None:
            seen.append(head.number)
            head = head.parent
        self.assertEqual(seen[0], 29)
        self.assertEqual(seen[-1], 1)
        self.assertEqual(thin(self.scene, NOW), 0)


class Tidying(SceneCase):
    def test_what_was_deleted_goes_after_its_day_with_all_that_hangs_on_it(self):
        entry = enter(scene=self.scene, written=EntryWrite.model_validate({"kind": "note", "text": "halocline"}))
        self.client.delete(self.url())
        self.assertEqual(self.client.get(self.url()).status_code, 404)
        self.assertNotIn("scenes", tidy())
        self.assertTrue(Scene.objects.filter(pk=self.scene.pk).exists())
        self.assertIn("scenes", tidy(datetime.now(UTC) + timedelta(days=1, minutes=1)))
        self.assertFalse(Scene.objects.exists())
        with connection.cursor() as cursor:
            cursor.execute("SELECT count(*) FROM log_search WHERE rowid = %s", [entry.pk])
            self.assertEqual(cursor.fetchone()[0], 0)

    def test_entries_that_were_taken_back_and_accounts_that_left(self):
        entry = enter(scene=self.scene, written=EntryWrite.model_validate({"kind": "note", "text": "a note"}))
        take_back(entry=entry, back=True)
        create_scene(owner=self.other, document=quarry_pool())
        accounts.leave(self.other)
        later = datetime.now(UTC) + timedelta(days=1, minutes=1)
        went = tidy(later)
        self.assertEqual((went["entries"], went["accounts"]), (1, 1))
        self.assertFalse(Entry.objects.exists())
        self.assertFalse(User.objects.filter(username="other").exists() or Leaving.objects.exists())
        self.assertEqual(Scene.objects.count(), 1)

    def test_nothing_of_what_is_in_use_goes(self):
        before = (Scene.objects.count(), Revision.objects.count())
        self.assertEqual(tidy(datetime.now(UTC) + timedelta(days=400)), {})
        self.assertEqual((Scene.objects.count(), Revision.objects.count()), before)
