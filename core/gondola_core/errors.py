"""What is said when something typed or brought cannot be used."""

from __future__ import annotations


class GondolaError(Exception):
    """One thing that has to be changed before Gondola can compute.

    message  a sentence that names the thing, the limit and what was given
    field    path of the field in the scene document, such as `pours.1.top_depth_mm`, or ""
    """

    def __init__(self, message: str, field: str = "") -> None:
        super().__init__(message)
        self.message = message
        self.field = field


class SceneError(GondolaError):
    """A scene document that cannot be read; `problems` holds each (field, sentence)."""

    def __init__(self, problems: list[tuple[str, str]]) -> None:
        field, sentence = problems[0]
        super().__init__(sentence, field)
        self.problems = problems
