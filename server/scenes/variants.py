"""Plans kept beside the one that is worked on: named, renamed, taken back into it, let go.

Each is a line of revisions of the same scene; the one that is worked on is called `actions.PLAN`.
"""

from __future__ import annotations

from django.db import transaction
from shapes.actions import take_in

from gondola_core.errors import SceneError
from gondola_core.scene import Scene as SceneDocument

from . import actions
from .models import Revision, Scene, Variant
from .packed import pack
from .schemas import VariantRow

MOST_VARIANTS = 40
"""Plans that are kept beside one scene."""


class VariantRefused(Exception):
    """A variant that cannot be kept or named so; `message` says why."""

    def __init__(self, message: str) -> None:
        super().__init__(message)
        self.message = message


def rows(scene: Scene) -> list[VariantRow]:
    """Those that are kept, by name."""
    kept = scene.variants.exclude(name=actions.PLAN).select_related("head").order_by("name")
    return [
        VariantRow(
            name=one.name, revision=one.head.number, pours_count=_pours_count(one), kept_at=one.head.created_at,
        )
        for one in kept
    ]


def _pours_count(variant: Variant) -> int | None:
    """None where its document is no longer taken."""
    try:
        return len(document_of(variant).pours)
    except SceneError:
        return None


def document_of(variant: Variant) -> SceneDocument:
    """What it says."""
    return actions.unpack(variant.head)


def keep(*, scene: Scene, name: str, document: SceneDocument) -> Variant:
    """Keep a document under a name: a new variant, forked from what is worked on, or the next state of one.

    VariantRefused for the plan's own name, or where too many are kept.
    """
    name = _free_name(name)
    packed = pack(take_in(owner=scene.owner, document=document))
    return _keep(scene, name, packed)


@transaction.atomic
def _keep(scene: Scene, name: str, packed: bytes) -> Variant:
    plan = actions.locked(scene)
    variant = scene.variants.filter(name=name).select_related("head").first()
    if variant is None and scene.variants.count() > MOST_VARIANTS:
        raise VariantRefused(f"{MOST_VARIANTS} plans are kept beside this scene; let one go first.")
    parent = plan.head if variant is None else variant.head
    revision = actions.add(scene, packed, f"kept as {name}", False, parent)
    if variant is None:
        return Variant.objects.create(scene=scene, name=name, head=revision, tip=revision)
    variant.head = variant.tip = revision
    variant.save(update_fields=["head", "tip"])
    return variant


@transaction.atomic
def rename(*, scene: Scene, variant: Variant, name: str) -> None:
    """Call it otherwise; VariantRefused where another is called so."""
    name = _free_name(name)
    if scene.variants.filter(name=name).exclude(pk=variant.pk).exists():
        raise VariantRefused(f"A plan is called {name} already; take another name.")
    variant.name = name
    variant.save(update_fields=["name"])


@transaction.atomic
def take(*, scene: Scene, variant: Variant, base_revision: int) -> Revision:
    """Its document becomes what is worked on, on top of what was; undo goes back. StaleWrite where that has moved."""
    plan = actions.current(scene, base_revision)
    revision = actions.add(scene, variant.head.packed, f"{variant.name} taken", False, plan.head)
    actions.show(scene, plan, revision, tip=revision, name=actions.unpack(revision).name)
    return revision


def let_go(variant: Variant) -> None:
    """It is listed no more; its revisions stay in the log."""
    variant.delete()


def _free_name(name: str) -> str:
    plain = " ".join(name.split())
    if not plain or plain == actions.PLAN:
        raise VariantRefused(f"A kept plan needs a name of its own, and not '{actions.PLAN}'.")
    return plain
