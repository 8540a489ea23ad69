"""Whose an answer is: what a browser keeps of it for when there is no line is that account’s alone."""

from __future__ import annotations

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse
from django.utils.cache import patch_vary_headers
from django.utils.crypto import salted_hmac

ACCOUNT = "Ascent-Account"
NOBODY = "nobody"

Answer = Callable[[HttpRequest], HttpResponse]


def account_of(request: HttpRequest) -> str:
    """Return what stands for the account of a request, which tells nothing else of it."""
    user = getattr(request, "user", None)
    if user is None or not user.is_authenticated:
        return NOBODY
    return salted_hmac("ascent.account", str(user.pk)).hexdigest()[:20]


def whose(get_response: Answer) -> Answer:
    """Return the middleware that says of each answer whose it is, and that nobody else may keep it."""

    def answered(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response[ACCOUNT] = account_of(request)
        if request.path.startswith("/api/"):
            response.headers.setdefault("Cache-Control", "private, no-cache")
            patch_vary_headers(response, ("Cookie",))
        return response

    return answered
