"""How large a request may be, looked at before any of it is read, and that it is JSON or an archive."""

from __future__ import annotations

from collections.abc import Callable

from ascent.errors import Problem
from django.http import HttpRequest, HttpResponse

from .faults import refusal

MOST_OF_A_FILE = 8_000_000  # bytes of a request that carries a file
MOST_OF_AN_ARCHIVE = 32_000_000  # bytes of a garden with its photos
MOST = 160_000  # bytes of any other; four hundred edits have half of that
_SIGNED_OUT = 8_000  # bytes of what anybody may send
_FILES = ("/edits/photos", "/import", "/import/preview", "/weather/record")
_ARCHIVE = "/archive"
_ANYBODY = ("/api/session", "/api/account", "/api/look", "/api/quantities")

Answer = Callable[[HttpRequest], HttpResponse]


def most_bytes(path: str) -> int:
    """Return how many bytes a request to an address may have."""
    if path.startswith(_ANYBODY):
        return _SIGNED_OUT
    if path.endswith(_ARCHIVE):
        return MOST_OF_AN_ARCHIVE
    return MOST_OF_A_FILE if path.endswith(_FILES) else MOST


def bounds(get_response: Answer) -> Answer:
    """Return the middleware that refuses what is too large, or no JSON."""

    def bounded(request: HttpRequest) -> HttpResponse:
        if not request.path.startswith("/api/") or request.method in ("GET", "HEAD", "OPTIONS"):
            return get_response(request)
        size, most = int(request.META.get("CONTENT_LENGTH") or 0), most_bytes(request.path)
        if size > most:
            return refusal(Problem("request", f"{size} bytes", f"up to {most} bytes are allowed here"), 413)
        kind = "application/zip" if request.path.endswith(_ARCHIVE) else "application/json"
        if size and request.content_type != kind:
            given = (request.content_type or "no kind")[:60]
            return refusal(Problem("request", given, f"{kind} is allowed"), 415)
        return get_response(request)

    return bounded
