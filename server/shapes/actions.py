"""What can be done with meshes. What is computed is computed before the transaction that stores it."""

from __future__ import annotations

import base64
import functools
from typing import Any

from django.db import transaction
from people.ways import owners_seen_by
from studio.apart import apart

from gondola_core.errors import GondolaError
from gondola_core.scene import MeshBody, Scene
from gondola_core.shape import Meshes, meshes_held
from gondola_core.shape.bodies.bringing import Brought, bring_packed
from gondola_core.shape.bodies.mesh import TriMesh, mesh_id_of, meshes_in, pack_mesh, unpack_mesh

from .models import Mesh

MOST_MESHES = 300
"""Meshes one owner may keep."""


def bring(
    *, owner: Any, content: bytes, kind: str, unit: str | None, upright: str | None, name: str
) -> tuple[str, Brought]:
    """Read and mend a mesh file apart, then keep it; the same content is kept once."""
    called = f"the mesh file '{name[:60]}'"
    packed, brought = apart(bring_packed, content, kind, unit, upright, what=called)
    spread_ml = brought.estimate.spread_ml if brought.estimate else 0.0
    key = keep_packed(owner=owner, packed=packed, name=name, triangles=len(brought.mesh.faces), spread_ml=spread_ml)
    return key, brought


def keep(*, owner: Any, mesh: TriMesh, name: str, spread_ml: float = 0.0) -> str:
    """Keep a mesh and give its key."""
    packed = pack_mesh(mesh)
    return keep_packed(owner=owner, packed=packed, name=name, triangles=len(mesh.faces), spread_ml=spread_ml)


@transaction.atomic
def keep_packed(*, owner: Any, packed: bytes, name: str, triangles: int, spread_ml: float) -> str:
    """Keep what is packed already and give its key; nothing is computed while others wait to write."""
    key = mesh_id_of(packed)
    if not Mesh.objects.filter(owner=owner, key=key).exists():
        if Mesh.objects.filter(owner=owner).count() >= MOST_MESHES:
            raise GondolaError(
                f"You keep {MOST_MESHES} meshes already: delete scenes that you no longer need."
            )
        Mesh.objects.create(
            owner=owner, key=key, name=name[:80] or "mesh", packed=packed,
            triangles_count=triangles, spread_ml=spread_ml,
        )
    return key


def take_in(*, owner: Any, document: Scene) -> Scene:
    """Keep the meshes that a scene file brings along; the document without them."""
    if not document.meshes:
        return document
    renamed = {
        key: keep(owner=owner, mesh=mesh, name=key) for key, mesh in meshes_in(document).items()
    }
    plain = document.model_copy(update={"meshes": []}).model_dump(mode="json")
    return Scene.model_validate(_renamed(plain, renamed))


def _renamed(part: Any, names: dict[str, str]) -> Any:
    if isinstance(part, dict):
        return {
            key: names.get(value, value) if key == "mesh_id" else _renamed(value, names)
            for key, value in part.items()
        }
    if isinstance(part, list):
        return [_renamed(one, names) for one in part]
    return part


def adopt(*, owner: Any, by: Any, document: Scene) -> None:
    """Keep with a scene's owner the shapes that somebody who works on it has put in."""
    wanted = set(document.mesh_ids())
    wanted -= set(Mesh.objects.filter(owner=owner, key__in=wanted).values_list("key", flat=True))
    for row in {row.key: row for row in _seen_by(by).filter(key__in=wanted)}.values():
        Mesh.objects.create(
            owner=owner, key=row.key, name=row.name, packed=row.packed, triangles_count=row.triangles_count,
            spread_ml=row.spread_ml,
        )


def _seen_by(user: Any) -> Any:
    """Shapes that somebody keeps, or that scenes may hold that others share with them."""
    return Mesh.objects.filter(owner__in=owners_seen_by(user))


def meshes_for(*, owner: Any, document: Scene) -> Meshes:
    """All meshes that a scene points at, kept or by value; GondolaError names one that is missing."""
    wanted = document.mesh_ids()
    if not wanted:
        return {}
    rows = _seen_by(owner).filter(key__in=wanted).values_list("key", flat=True).distinct()
    return meshes_held(document, {key: _unpacked(key) for key in rows})


def kept_mesh(*, owner: Any, key: str) -> TriMesh:
    """A kept mesh; GondolaError if the owner keeps none of that key."""
    if not _seen_by(owner).filter(key=key).exists():
        raise GondolaError(f"The mesh '{key}' is not here: bring its file in again.", "mesh_id")
    return _unpacked(key)


def spread_of(*, owner: Any, key: str) -> float:
    """How far the volume of a kept mesh is a guess [ml]."""
    return max(_seen_by(owner).filter(key=key).values_list("spread_ml", flat=True), default=0.0)


@functools.lru_cache(maxsize=24)
def _unpacked(key: str) -> TriMesh:
    """Whoever keeps it: a key is the hash of what it names."""
    packed = Mesh.objects.filter(key=key).values_list("packed", flat=True)[0]
    return unpack_mesh(bytes(packed))


def with_meshes(*, owner: Any, document: Scene) -> Scene:
    """The document with its meshes by value, so that the file stands alone."""
    rows = {row.key: row for row in _seen_by(owner).filter(key__in=document.mesh_ids())}.values()
    bodies = [
        MeshBody(id=row.key, packed_base64=base64.b64encode(bytes(row.packed)).decode())
        for row in rows
    ]
    return document.model_copy(update={"meshes": bodies})
