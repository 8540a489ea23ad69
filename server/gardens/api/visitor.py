"""Whoever asks: signed in, or come by a read-only link. Both are known by the session's cookie, so both are
checked against forgery.
"""

from __future__ import annotations

import hashlib
import re
from collections.abc import Callable
from typing import cast
from urllib.parse import unquote

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils.cache import get_conditional_response
from ninja.security import APIKeyCookie
from pydantic import BaseModel

from .. import schemas
from ..services.access import Visitor

REFUSED = {401: schemas.Problems, 404: schemas.Problems, 422: schemas.Problems}
MARK = "Ascent-Mark"  # by which a write that comes twice is done once
WHO = "Ascent-Who"  # the account that made a write, percent-encoded
_TOKENS = "looks"
_MOST_TOKENS = 20


class VisitorAuth(APIKeyCookie):
    """Let in whoever is signed in or has opened a read-only link."""

    param_name = settings.SESSION_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Visitor | None:
        """Return the visitor, None of nobody."""
        mark = request.headers.get(MARK, "")
        mark = mark if re.fullmatch(r"[\w-]{8,64}", mark) else ""
        tokens = tuple(request.session.get(_TOKENS, ()))
        visitor = Visitor(request.user, tokens, mark, _digest(request) if mark else "")
        if visitor.pk is not None and WHO in request.headers:
            name = unquote(request.headers[WHO])
            if name != visitor.user.get_username():
                return None  # what one person wrote is not sent as another's
        return visitor if visitor.pk is not None or visitor.tokens else None


def _digest(request: HttpRequest) -> str:
    asked = f"{request.method} {request.get_full_path()}\n".encode()
    return hashlib.sha256(asked + request.body).hexdigest()


class Passing(VisitorAuth):
    """Let anyone in, having checked that the request comes from our own page."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Visitor | None:
        """Return the visitor, also when it is nobody."""
        return Visitor(request.user)


def visitor_of(request: HttpRequest) -> Visitor:
    """Return the visitor that the request was let in as."""
    return cast(Visitor, request.auth)  # type: ignore[attr-defined]


def answer(out: BaseModel) -> HttpResponse:
    """Return a typed answer as JSON; that it fits its type is known, and a second validation would cost as
    much as the rest.
    """
    return HttpResponse(out.model_dump_json(), content_type="application/json")


def marked(request: HttpRequest, mark: str, make: Callable[[], HttpResponse]) -> HttpResponse:
    """Return an answer with its mark, or 304 where whoever asks has it already."""
    etag = f'"{mark}"'
    had = get_conditional_response(request, etag=etag)
    response = had or make()
    response["ETag"] = etag
    return response


def remember(request: HttpRequest, token: str) -> None:
    """Keep a read-only link for this session."""
    tokens = [each for each in request.session.get(_TOKENS, ()) if each != token]
    request.session[_TOKENS] = [*tokens, token][-_MOST_TOKENS:]
