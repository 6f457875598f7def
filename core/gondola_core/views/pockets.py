"""Pockets of air and hollows that fill late, as bodies for the model in the round."""

from __future__ import annotations

from ..answers.book import KEEPER, Book
from ..answers.flood import FLOOD, SPANS
from ..answers.kept import Keeper
from ..scene import Scene
from ..shape import Meshes, TriMesh
from ..shape.pockets import kept_air, late_hollows, pocket_mesh


def scene_pockets(scene: Scene, meshes: Meshes | None = None, keeper: Keeper = KEEPER) -> dict[str, TriMesh]:
    """The air that stays as `air-N` and the hollows that fill late as `dry-N`, largest first."""
    book = Book(scene, keeper=keeper, meshes=meshes)
    spans, free = book.ask(SPANS), book.ask(FLOOD)
    kinds = (("air", kept_air(scene, spans, free)), ("dry", late_hollows(scene, spans, free)))
    return {
        f"{word}-{number}": pocket_mesh(pocket, spans)
        for word, pockets in kinds for number, pocket in enumerate(pockets, start=1)
    }
