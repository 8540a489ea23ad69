"""Signing in and out. A plain Django view, so that the CSRF check covers signing in as well."""

from __future__ import annotations

import json

from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout
from django.http import HttpRequest, JsonResponse
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_http_methods


def enter_demo(request: HttpRequest) -> None:
    """Sign in whoever looks at the demo, which has one account and no password."""
    if settings.DEMO and not request.user.is_authenticated:
        user = get_user_model().objects.filter(username=settings.DEMO_USER).first()
        if user:
            login(request, user)


def _state(request: HttpRequest) -> JsonResponse:
    user = request.user
    return JsonResponse({"name": user.get_username() if user.is_authenticated else None, "demo": settings.DEMO})


def _refusal(path: str, allowed: str, status: int) -> JsonResponse:
    return JsonResponse({"problems": [{"path": path, "given": "", "allowed": allowed, "suggestion": ""}]}, status=status)


@ensure_csrf_cookie
@require_http_methods(["GET", "POST", "DELETE"])
def session(request: HttpRequest) -> JsonResponse:
    """Tell who is signed in; sign in with name and password; sign out."""
    if request.method == "GET":
        enter_demo(request)
    if request.method == "DELETE":
        logout(request)
    if request.method == "POST":
        try:
            sent = json.loads(request.body)
            name, password = str(sent["name"]), str(sent["password"])
        except (ValueError, KeyError, TypeError):
            return _refusal("name", "a name and a password", 422)
        user = authenticate(request, username=name, password=password)
        if user is None:
            return _refusal("password", "name and password do not belong together", 401)
        login(request, user)
    return _state(request)
