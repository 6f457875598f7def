"""What is done now and then: deletions whose day of grace is over are carried out, and nothing old is left lying."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from pathlib import Path

from bench.models import Run
from django.conf import settings
from django.contrib.auth.models import User
from django.core.management import call_command
from django.db import transaction
from jobs.models import Job
from log.models import Entry, Photograph
from people.accounts import GRACE
from people.models import Invitation, Leaving, Link
from scenes.models import Revision, Scene
from scenes.packed import mesh_ids_of
from shapes.models import Mesh
from studio.originals import all_in

from gondola_core.errors import SceneError

from .thinning import thin

JOBS_KEPT_FOR = timedelta(days=7)
"""What a job was asked with and what came out is a copy of a scene: it does not outlive it for long."""
PARTS_OLD = timedelta(hours=1)
"""Files that were never finished are taken away once they are this old."""


def tidy(now: datetime | None = None) -> dict[str, int]:
    """Do all of it; how many of each thing went."""
    now = now or datetime.now(UTC)
    gone = {
        "accounts": _accounts(now),
        "scenes": _deleted(Scene.objects.filter(gone_at__lte=now - GRACE)),
        "entries": _deleted(Entry.objects.filter(taken_back_at__lte=now - GRACE)),
        # a hidden one may be an archive that is just being taken in
        "revisions": sum(thin(scene, now) for scene in Scene.objects.filter(gone_at=None)),
        "invitations": Invitation.objects.filter(lapses_at__lte=now).delete()[0],
        "links": Link.objects.filter(lapses_at__lte=now - GRACE).delete()[0],
        "jobs": Job.objects.filter(state__in=Job.OVER, changed_at__lte=now - JOBS_KEPT_FOR).delete()[0],
        "meshes": _meshes(now),
        "photographs": _photographs(now),
    }
    call_command("clearsessions")
    return {name: count for name, count in gone.items() if count}


def _accounts(now: datetime) -> int:
    leaving = Leaving.objects.filter(asked_at__lte=now - GRACE).values_list("account_id", flat=True)
    accounts = User.objects.filter(pk__in=list(leaving))
    count = accounts.count()
    for account in accounts:
        # variants protect their revisions: scenes go first
        for scene in account.scenes.all():
            delete_scene(scene)
        account.delete()
    return count


def _deleted(rows: object) -> int:
    count = 0
    for row in rows:  # type: ignore[attr-defined]
        if isinstance(row, Scene):
            delete_scene(row)
        else:
            row.delete()
        count += 1
    return count


@transaction.atomic
def delete_scene(scene: Scene) -> None:
    """A scene with all that hangs on it, for good."""
    scene.variants.all().delete()
    scene.delete()


def _meshes(now: datetime) -> int:
    """Shapes that no revision points at any more, and that were not brought in just now."""
    old = Mesh.objects.filter(created_at__lte=now - GRACE)
    count = 0
    for owner_id in old.values_list("owner_id", flat=True).distinct():
        try:
            used = _used_by(owner_id)
        except SceneError:  # a state is damaged: until that is mended nobody knows what it points at
            continue
        count += old.filter(owner_id=owner_id).exclude(key__in=used).delete()[0]
    return count


def _used_by(owner_id: int) -> set[str]:
    """Shapes that a revision or a run of somebody points at."""
    used: set[str] = set()
    for rows in (Revision.objects.filter(scene__owner_id=owner_id), Run.objects.filter(owner_id=owner_id)):
        for packed in rows.values_list("packed", flat=True).iterator():
            used |= mesh_ids_of(packed)
    return used


def _photographs(now: datetime) -> int:
    """Originals that no entry names, and files that were never finished."""
    named = set(Photograph.objects.values_list("digest", flat=True))
    count = 0
    for file in list(all_in(Path(settings.DATA))):
        age = now - datetime.fromtimestamp(file.stat().st_mtime, UTC)
        if file.name not in named and age > PARTS_OLD:
            file.unlink(missing_ok=True)
            count += 1
    return count
