"""The page that carries the client; the demo signs its visitor in."""

from __future__ import annotations

import hashlib
import json
from functools import cache
from typing import Any

from accounts.services import state as session_state
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import ensure_csrf_cookie

_MOST_SAID = 80  # answers that a browser keeps


@cache
def _manifest() -> dict[str, Any]:
    path = settings.ROOT / "client" / "dist" / ".vite" / "manifest.json"
    if not path.exists():
        return {}
    manifest: dict[str, Any] = json.loads(path.read_text(encoding="utf-8"))
    return manifest


@ensure_csrf_cookie
def spa(request: HttpRequest) -> HttpResponse:
    """Return the client's page."""
    session_state(request)
    entry: dict[str, Any] = next((item for item in _manifest().values() if item.get("isEntry")), {})
    response = render(
        request,
        "index.html",
        {"script": entry.get("file", ""), "styles": entry.get("css", []), "dev": settings.DEBUG},
    )
    response["Cache-Control"] = "no-cache"
    return response


def service_worker(request: HttpRequest) -> HttpResponse:
    """Return the worker that keeps what was opened for when there is no line; a new build has another."""
    files: set[str] = set()
    for item in _manifest().values():
        files |= {item["file"], *item.get("css", ()), *item.get("assets", ())}
    kept = sorted(f"/static/{file}" for file in files)
    version = hashlib.sha256("\n".join(kept).encode()).hexdigest()[:12]
    words = {"files": json.dumps(kept), "version": version, "most": _MOST_SAID}
    response = render(request, "sw.js", words, content_type="text/javascript; charset=utf-8")
    response["Cache-Control"] = "no-cache"
    return response
