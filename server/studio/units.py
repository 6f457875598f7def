"""In which units the person who asks reads: a header that the page sends along."""

from __future__ import annotations

from django.http import HttpRequest

from gondola_core.words import METRIC, ReaderUnits

HEADER = "Gondola-Units"
"""Such as "in,f,floz,oz"; without it all is metric."""
KNOWN = ({"mm", "in"}, {"c", "f"}, {"ml", "floz"}, {"g", "oz"})


def reader_of(request: HttpRequest) -> ReaderUnits:
    """The units of a request; metric where the header is missing or odd."""
    parts = request.headers.get(HEADER, "").split(",")
    if len(parts) != len(KNOWN) or any(part not in known for part, known in zip(parts, KNOWN, strict=True)):
        return METRIC
    return ReaderUnits(*parts)
