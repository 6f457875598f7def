"""Which revisions are kept: all of the last day, then the last of each hour, then the last of each day."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime, timedelta

from django.db import transaction
from scenes.models import Revision, Scene

ALL_FOR = timedelta(days=1)
HOURLY_FOR = timedelta(days=30)
"""After this long, one of each day stays. Source: assumed"""
KEPT_UNDER_A_NAME = ("kept as ", "sample", "brought in")
"""Notes of revisions that somebody put down on purpose."""


def to_thin(moments: Iterable[tuple[int, datetime]], now: datetime, keep: set[int]) -> set[int]:
    """Which revisions go, of (id, moment) pairs; those of `keep` never do."""
    last: dict[tuple[object, ...], tuple[datetime, int]] = {}
    gone = set()
    for key, moment in moments:
        age = now - moment
        if key in keep or age < ALL_FOR:
            continue
        hour = moment.hour if age < HOURLY_FOR else None
        slot = (moment.date(), hour)
        newest = last.get(slot)
        if newest is None or newest[0] <= moment:
            if newest is not None:
                gone.add(newest[1])
            last[slot] = (moment, key)
        else:
            gone.add(key)
    return gone


@transaction.atomic
def thin(scene: Scene, now: datetime) -> int:
    """Take away the revisions of a scene that its rule does not keep; how many.

    What a variant shows or reaches by redo, the first, those kept aside or under a name, and those a still was made
    of stay. Undo goes on over the gaps: a revision whose parent went follows the nearest one before it.
    """
    rows = list(scene.revisions.values_list("pk", "number", "parent_id", "created_at", "note", "kept_aside"))
    stills = set(scene.stills.values_list("revision", flat=True))
    keep = {one for pair in scene.variants.values_list("head_id", "tip_id") for one in pair}
    keep |= {
        pk for pk, number, _, _, note, aside in rows
        if number == 1 or aside or number in stills or note.startswith(KEPT_UNDER_A_NAME) or note.endswith(" taken")
    }
    gone = to_thin([(row[0], row[3]) for row in rows], now, keep)
    if not gone:
        return 0
    parents = {row[0]: row[2] for row in rows}
    changed = []
    for pk, parent in parents.items():
        near = parent
        while near in gone:
            near = parents[near]
        if pk not in gone and near != parent:
            changed.append(Revision(pk=pk, parent_id=near))
    Revision.objects.bulk_update(changed, ["parent"], batch_size=500)
    for part in _parts(sorted(gone), 500):
        Revision.objects.filter(pk__in=part).delete()
    return len(gone)


def _parts(keys: list[int], most: int) -> Iterable[list[int]]:
    return (keys[at:at + most] for at in range(0, len(keys), most))
