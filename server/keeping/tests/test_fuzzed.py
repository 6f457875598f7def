"""Archives and photographs, damaged in any way, are taken in whole, or refused in a sentence and leave nothing."""

from __future__ import annotations

import io
import os
import sys
import zipfile
from collections.abc import Callable
from typing import Any

from django.conf import settings
from django.db import transaction
from hypothesis import HealthCheck, given, seed
from hypothesis import settings as trying
from hypothesis import strategies as st
from log.models import Entry
from log.pictures import read_picture
from PIL import Image
from scenes.models import Scene

from gondola_core.errors import GondolaError
from keeping.archive.back import bring_archive
from keeping.archive.out import write_archive
from keeping.tests.test_archive import ArchiveCase

sys.path.insert(0, str(settings.SERVER.parent / "core" / "tests"))
from damaged import damaged, odd_json
from soaked import as_many

EXAMPLES = as_many(int(os.environ.get("GONDOLA_SOAK_FILES", "2000")) // 5, 30)
SEED = int(os.environ.get("GONDOLA_SOAK_SEED", "1"))


class Undone(Exception):
    """Takes back what an example stored."""


@st.composite
def spoilt(draw: Any, whole: bytes) -> bytes:
    """An archive with one of its files damaged or told oddly, left out, or under a name of its own."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(whole)) as sound, zipfile.ZipFile(out, "w") as made:
        names = sound.namelist()
        hit = draw(st.sampled_from(names))
        how = draw(st.sampled_from(["odd", "odd", "damaged", "gone", "renamed"]))
        for name in names:
            content = sound.read(name)
            if name == hit and how == "odd" and name.endswith(".json"):
                content = draw(odd_json([content]))
            elif name == hit and how == "damaged":
                content = draw(damaged([content]))
            if name != hit or how != "gone":
                made.writestr(f"../{name}" if name == hit and how == "renamed" else name, content)
    return out.getvalue()


class Fuzzed(ArchiveCase):
    def attack(self, files: Any, read: Callable[[bytes], Any]) -> int:
        """Try files; how many were taken."""
        taken = 0

        @seed(SEED)
        @trying(max_examples=EXAMPLES, deadline=None, database=None, suppress_health_check=list(HealthCheck))
        @given(files)
        def attacked(content: bytes) -> None:
            nonlocal taken
            try:
                with transaction.atomic():
                    read(content)
                    raise Undone
            except GondolaError as refused:
                self.assertTrue(refused.message.rstrip().endswith("."), refused.message)
            except Undone:
                taken += 1

        attacked()
        return taken

    def test_archives(self) -> None:
        self.fill()
        write_archive(self.owner, self.file)
        whole = self.file.read_bytes()
        before = Scene.objects.count(), Entry.objects.count()

        def bring(content: bytes) -> None:
            self.file.write_bytes(content)
            bring_archive(self.other, self.file)

        for name, files in (("damaged", damaged([whole])), ("spoilt", spoilt(whole))):
            with self.subTest(name):
                self.attack(files, bring)
        self.assertEqual((Scene.objects.count(), Entry.objects.count()), before)
        bring(whole)
        self.assertEqual(Scene.objects.filter(owner=self.other).count(), 1)

    def test_photographs(self) -> None:
        for form in ("JPEG", "PNG", "WEBP"):
            with self.subTest(form):
                out = io.BytesIO()
                Image.effect_noise((90, 60), 40).convert("RGB").save(out, form)
                self.attack(damaged([out.getvalue()]), read_picture)
