"""Hashes of document parts and plain values."""

from __future__ import annotations

import hashlib
import threading

from pydantic_core import to_json

from .part import Part


class _Last(threading.local):
    """The part that was hashed last in a thread: every remedy of a scene asks for that scene's hash."""

    part: Part | None = None
    hash: str = ""


_LAST = _Last()


def digest(inputs: object) -> str:
    """Hash of document parts, plain values, and lists and tuples of them; others are refused."""
    if not isinstance(inputs, Part):
        return _hash(inputs)
    # parts are frozen: the same one has the same hash
    if inputs is not _LAST.part:
        _LAST.hash, _LAST.part = _hash(inputs), inputs
    return _LAST.hash


def _hash(inputs: object) -> str:
    return hashlib.blake2b(to_json(inputs), digest_size=16).hexdigest()
