"""The page that carries the client; the demo signs its visitor in."""

from __future__ import annotations

import json
from functools import cache
from typing import Any

from accounts.services import state as session_state
from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.csrf import ensure_csrf_cookie


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
