"""An answer of the core as JSON, its sentences in the units of who asks."""

from __future__ import annotations

import functools
from typing import Any

from django.http import HttpRequest, HttpResponse
from pydantic import TypeAdapter

from .units import reader_of


def said(request: HttpRequest, answer: Any, kind: Any = None) -> HttpResponse:
    """A dataclass of the core, written out; `kind` of what does not tell it itself, such as a list of them."""
    body = _adapter(kind or type(answer)).dump_json(answer, context={"units": reader_of(request)})
    return HttpResponse(body, content_type="application/json")


@functools.cache
def _adapter(kind: Any) -> TypeAdapter[Any]:
    return TypeAdapter(kind)
