"""What can be done with scenes. Each is one transaction."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

from django.contrib.auth.models import User
from django.db import transaction
from django.db.models import Max
from people.accounts import GRACE
from people.ways import may_of
from shapes.actions import adopt, take_in, with_meshes

from gondola_core.errors import SceneError
from gondola_core.scene import Scene as SceneDocument

from .models import Revision, Scene, Variant
from .packed import pack, text_of, unpacked
from .schemas import SceneState

PLAN = "plan"
"""Name of a scene's first variant."""


class StaleWrite(Exception):
    """A write from a revision that is no longer the shown one."""

    def __init__(self, scene: Scene, base_revision: int, kept: Revision | None) -> None:
        shown = head_of(scene).number
        saved = f", and yours is kept as revision {kept.number}" if kept else ""
        self.message = (
            f"This scene was changed elsewhere: it is now at revision {shown}, and this change "
            f"was made from revision {base_revision}. Nothing is lost{saved}."
        )
        super().__init__(self.message)
        self.scene = scene
        self.kept = kept

    def newer(self, user: Any) -> dict[str, Any]:
        """The newer state, as somebody may use it, and where the refused one is kept."""
        return {
            "kept_revision": self.kept.number if self.kept else None,
            "scene": state_of(self.scene, user).model_dump(mode="json"),
        }


def unpack(revision: Revision) -> SceneDocument:
    """The document of a revision, brought up to the newest version."""
    return unpacked(revision.packed)


def file_text(scene: Scene) -> bytes:
    """The scene file, with its shapes in it; where the document is no longer taken, it alone, as it is kept."""
    head = head_of(scene)
    try:
        document = unpack(head)
    except SceneError:
        return text_of(head.packed)
    return with_meshes(owner=scene.owner, document=document).model_dump_json(indent=1).encode()


def variant_of(scene: Scene) -> Variant:
    """The variant that is worked on."""
    return scene.variants.select_related("head", "tip").get(name=PLAN)


def head_of(scene: Scene) -> Revision:
    """The revision that is shown."""
    return variant_of(scene).head


def state_of(scene: Scene, user: Any = None) -> SceneState:
    """The scene as it stands; with what somebody may do with it, where it is said who."""
    variant = variant_of(scene)
    return SceneState(
        id=scene.pk,
        name=scene.name,
        revision=variant.head.number,
        can_undo=variant.head.parent_id is not None,
        can_redo=variant.head_id != variant.tip_id,
        document=unpack(variant.head),
        owner=scene.owner.get_username(),
        may="own" if user is None else may_of(user, scene),
    )


def create_scene(*, owner: User, document: SceneDocument, note: str = "") -> Scene:
    """A new scene with its first revision; meshes that it brings along are kept apart."""
    document = take_in(owner=owner, document=document)
    packed = pack(document)
    with transaction.atomic():
        scene = Scene.objects.create(owner=owner, name=document.name)
        first = Revision.objects.create(scene=scene, number=1, packed=packed, note=note)
        Variant.objects.create(scene=scene, name=PLAN, head=first, tip=first)
    return scene


def save_scene(
    *, scene: Scene, base_revision: int, document: SceneDocument, note: str = "", by: User | None = None
) -> Revision:
    """A new revision on top of the shown one, with the shapes that whoever saves has brought in for it.

    StaleWrite if `base_revision` is not the shown one; the document is kept aside then.
    """
    # nothing is unpacked or packed while others wait to write
    document = take_in(owner=scene.owner, document=document)
    packed = pack(document)
    with transaction.atomic():
        if by is not None and by.pk != scene.owner_id:
            adopt(owner=scene.owner, by=by, document=document)
        variant = locked(scene)
        stale = variant.head.number != base_revision
        revision = add(
            scene, packed, note, stale,
            scene.revisions.filter(number=base_revision).first() if stale else variant.head,
        )
        if not stale:
            show(scene, variant, revision, tip=revision, name=document.name)
    if stale:
        raise StaleWrite(scene, base_revision, revision)
    return revision


@transaction.atomic
def undo(*, scene: Scene, base_revision: int) -> None:
    """Show what the shown revision was written from; nothing happens at the first."""
    variant = current(scene, base_revision)
    if variant.head.parent is not None:
        show(scene, variant, variant.head.parent, tip=variant.tip)


@transaction.atomic
def redo(*, scene: Scene, base_revision: int) -> None:
    """Show the next revision on the way to the tip; nothing happens at the tip."""
    variant = current(scene, base_revision)
    step = variant.tip
    while step.parent is not None and step.parent_id != variant.head_id:
        step = step.parent
    if step.parent_id == variant.head_id:
        show(scene, variant, step, tip=variant.tip)


@transaction.atomic
def restore(*, scene: Scene, base_revision: int, number: int) -> Revision:
    """An earlier document as a new revision on top; what stood in between stays in the log."""
    variant = current(scene, base_revision)
    earlier = scene.revisions.get(number=number)
    revision = add(scene, earlier.packed, f"revision {number} again", False, variant.head)
    show(scene, variant, revision, tip=revision, name=unpack(earlier).name)
    return revision


def locked(scene: Scene) -> Variant:
    """The variant that is worked on, for a write."""
    return scene.variants.select_for_update().select_related("head__parent", "tip").get(name=PLAN)


def current(scene: Scene, base_revision: int) -> Variant:
    """The same, if it still is at a revision; StaleWrite otherwise."""
    variant = locked(scene)
    if variant.head.number != base_revision:
        raise StaleWrite(scene, base_revision, None)
    return variant


def add(
    scene: Scene, packed: bytes, note: str, kept_aside: bool, parent: Revision | None
) -> Revision:
    """A revision with the next number."""
    newest = scene.revisions.aggregate(newest=Max("number"))["newest"] or 0
    return Revision.objects.create(
        scene=scene, number=newest + 1, parent=parent, packed=packed, note=note[:120],
        kept_aside=kept_aside,
    )


def show(
    scene: Scene, variant: Variant, head: Revision, *, tip: Revision, name: str | None = None
) -> None:
    """Show a revision, and call the scene as it says."""
    variant.head, variant.tip = head, tip
    variant.save(update_fields=["head", "tip"])
    scene.name = name if name is not None else unpack(head).name
    scene.save(update_fields=["name", "changed_at"])


def delete(scene: Scene) -> None:
    """Nobody finds it from now on; it can be brought back for a day."""
    Scene.objects.filter(pk=scene.pk).update(gone_at=datetime.now(UTC))


def bring_back(scene: Scene) -> None:
    """As if it had not been deleted."""
    Scene.objects.filter(pk=scene.pk).update(gone_at=None)


def gone_scenes(owner: Any) -> list[Scene]:
    """What somebody deleted and can still bring back."""
    return list(Scene.objects.filter(owner=owner, gone_at__gt=datetime.now(UTC) - GRACE, coming=False))
