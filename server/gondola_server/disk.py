"""What is said when the disk takes nothing any more."""

from __future__ import annotations

import errno

from django.db import OperationalError

FULL = (
    "The disk of this studio is full: nothing was saved, and nothing that was saved is lost. What you did is still in "
    "the page; make room there, then save again."
)
CLOSED = (
    "The disk of this studio cannot be written to: nothing was saved, and nothing that was saved is lost. What you did "
    "is still in the page; have the folder opened for writing, then save again."
)
_OF_DATABASE = {"disk is full": FULL, "readonly database": CLOSED, "unable to open": CLOSED}
_OF_FILES = {errno.ENOSPC: FULL, errno.EDQUOT: FULL, errno.EROFS: CLOSED, errno.EACCES: CLOSED}


def disk_sentence(error: OperationalError | OSError) -> str | None:
    """The sentence for a failure of the disk; None for any other."""
    if isinstance(error, OSError):
        return _OF_FILES.get(error.errno or 0)
    told = str(error).lower()
    return next((sentence for words, sentence in _OF_DATABASE.items() if words in told), None)
