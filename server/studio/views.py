"""The one page; the front end's router does the rest."""

from __future__ import annotations

import functools
import json

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.cache import never_cache
from django.views.decorators.csrf import ensure_csrf_cookie


@functools.cache
def front_end() -> dict[str, object]:
    """Names of the built script and styles."""
    manifest = settings.WEB_DIST / ".vite" / "manifest.json"
    entry = json.loads(manifest.read_text())["index.html"]
    return {"script": entry["file"], "styles": entry.get("css", [])}


@never_cache
@ensure_csrf_cookie
def page(request: HttpRequest) -> HttpResponse:
    """The page, with the nonce that its styles need."""
    try:
        built = front_end()
    except FileNotFoundError:
        return HttpResponse(
            "The front end is not built yet: run `make demo`.", status=503,
            content_type="text/plain",
        )
    return render(request, "studio/page.html", built)


def worker(_request: HttpRequest) -> HttpResponse:
    """The script that keeps the page on the device; from the root, so that it may serve every address."""
    try:
        script = (settings.WEB_DIST / "sw.js").read_bytes()
    except FileNotFoundError:
        raise Http404 from None
    return HttpResponse(script, content_type="text/javascript", headers={"Cache-Control": "no-cache"})
