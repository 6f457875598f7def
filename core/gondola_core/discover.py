"""Imports every module of a package, so that what registers itself is there."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Iterable


def import_all(package: str, path: Iterable[str]) -> None:
    """All modules that lie beside each other in a package, by name."""
    for module in sorted(pkgutil.iter_modules(path), key=lambda one: one.name):
        importlib.import_module(f"{package}.{module.name}")
