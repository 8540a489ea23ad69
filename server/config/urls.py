"""Addresses: the API, and the client for everything else."""

from __future__ import annotations

from django.http import HttpRequest, JsonResponse
from django.urls import path, re_path

from . import faults
from .api import api
from .spa import service_worker, spa


def unknown(_request: HttpRequest, rest: str) -> JsonResponse:
    """Return the API's own 404."""
    return JsonResponse(
        {
            "problems": [
                {"path": "address", "given": rest, "allowed": "an address of the API", "suggestion": ""}
            ]
        },
        status=404,
    )


urlpatterns = [
    path("api/", api.urls),
    re_path(r"^api/(?P<rest>.*)$", unknown),
    path("sw.js", service_worker),
    re_path(r"^(?!api/|static/).*$", spa),
]
handler500 = faults.fault
handler400 = faults.suspicious
