"""What an answer reads of a scene: named fields, and no others are there when it computes."""

from __future__ import annotations

from types import SimpleNamespace
from typing import Any

from ..part import Part
from ..scene import Scene

Tree = dict[str, "Tree"]


class Extract(SimpleNamespace):
    """Some fields of a part of a scene; asking for any other is an AttributeError."""

    def model_copy(self, update: dict[str, Any]) -> Extract:
        """The same with some fields changed, as the parts of a scene do it."""
        return Extract(**{**self.__dict__, **update})


class SceneExtract(Extract):
    """Some fields of a scene."""

    def resin_of(self, pour: Any) -> Any:
        """The resin that a pour uses."""
        return next(resin for resin in self.resins if resin.id == pour.resin_id)


class Reading:
    """Fields of a scene by their paths, such as `tank.shape` or `pours.top_depth_mm` (of every pour).

    A path that ends at a part takes all of it. Called with a scene it gives (extract, values to key by).
    """

    def __init__(self, *paths: str) -> None:
        self._tree: Tree = {}
        for path in paths:
            branch = self._tree
            for name in path.split("."):
                branch = branch.setdefault(name, {})

    def __call__(self, scene: Scene | Part) -> tuple[SceneExtract, list[object]]:
        values: list[object] = []
        fields = {name: _taken(getattr(scene, name), branch, values) for name, branch in self._tree.items()}
        return SceneExtract(**fields), values


class WholeScene(Reading):
    """All of a scene, for those who join everything."""

    def __call__(self, scene: Scene | Part) -> tuple[Any, list[object]]:
        return scene, [scene]


def _taken(part: Any, branch: Tree, values: list[object]) -> Any:
    """A part, or of it the fields that the branch names; what is taken is added to the values."""
    if not branch or part is None:
        values.append(part)
        return part
    if isinstance(part, list):
        values.append(len(part))
        return [_taken(one, branch, values) for one in part]
    return Extract(**{name: _taken(getattr(part, name), below, values) for name, below in branch.items()})
