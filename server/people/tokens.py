"""Tokens that nobody can guess; what is kept of one is its hash alone."""

from __future__ import annotations

import hashlib
import secrets

TOKEN_BYTES = 24
"""192 bits: far more than can be tried."""


def new_token() -> tuple[str, str]:
    """A token and its hash."""
    token = secrets.token_urlsafe(TOKEN_BYTES)
    return token, hash_of(token)


def hash_of(token: str) -> str:
    """SHA-256 of a token, in hex; a slow hash guards what can be guessed, which this cannot."""
    return hashlib.sha256(token.encode("utf-8", "surrogatepass")).hexdigest()
