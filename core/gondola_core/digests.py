"""Hashes of document parts and plain values."""

from __future__ import annotations

import hashlib

from pydantic_core import to_json


def digest(inputs: object) -> str:
    """Hash of document parts, plain values, and lists and tuples of them; others are refused."""
    return hashlib.blake2b(to_json(inputs), digest_size=16).hexdigest()
