"""Applies the `replace` steps that remedies use, for tests; the page uses a library."""

from __future__ import annotations

import copy


def apply(document, edits):
    changed = copy.deepcopy(document)
    for edit in edits:
        assert edit.op == "replace", edit.op
        *way, last = [
            int(part) if part.isdigit() else part for part in edit.path.strip("/").split("/")
        ]
        spot = changed
        for part in way:
            spot = spot[part]
        spot[last] = edit.value
    return changed
