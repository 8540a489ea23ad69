"""Accounts: signing in and out, making one, passwords, deleting it. Every write is checked against
forgery.
"""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.http import Http404, HttpRequest
from ninja import Router
from ninja.security import APIKeyCookie, django_auth

from . import letters as box
from . import schemas, services


class Anyone(APIKeyCookie):
    """Let anyone in, having checked that the request comes from our own page."""

    param_name = settings.SESSION_COOKIE_NAME

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        """Return something true."""
        return True


router = Router()
anyone = Anyone()
_Refused = {401: schemas.Refusals, 422: schemas.Refusals, 429: schemas.Refusals}


@router.get("/session", response=schemas.SessionOut, auth=None)
def session(request: HttpRequest) -> schemas.SessionOut:
    """Return who is signed in."""
    return services.state(request)


@router.post("/session", response={200: schemas.SessionOut, **_Refused}, auth=anyone)
def sign_in(request: HttpRequest, sent: schemas.SignIn) -> schemas.SessionOut:
    """Sign in."""
    return services.sign_in(request, sent)


@router.delete("/session", response=schemas.SessionOut, auth=anyone)
def sign_out(request: HttpRequest) -> schemas.SessionOut:
    """Sign out."""
    return services.sign_out(request)


@router.post("/session/demo", response=schemas.SessionOut, auth=anyone)
def enter_again(request: HttpRequest) -> schemas.SessionOut:
    """Enter the demo again."""
    return services.enter_again(request)


@router.post("/account", response={200: schemas.SessionOut, **_Refused}, auth=anyone)
def sign_up(request: HttpRequest, sent: schemas.SignUp) -> schemas.SessionOut:
    """Make an account and sign in."""
    return services.sign_up(request, sent)


@router.put("/account/password", response={200: schemas.Done, **_Refused}, auth=django_auth)
def change_password(request: HttpRequest, sent: schemas.PasswordChange) -> schemas.Done:
    """Change the visitor's password."""
    services.change_password(request, sent)
    return schemas.Done()


@router.delete("/account", response={200: schemas.Done, **_Refused}, auth=django_auth)
def delete_account(request: HttpRequest, sent: schemas.PasswordProof) -> schemas.Done:
    """Delete the visitor's account with all its gardens."""
    services.delete_account(request, sent)
    return schemas.Done()


@router.post("/account/reset", response={200: schemas.Done, **_Refused}, auth=anyone)
def ask_reset(request: HttpRequest, sent: schemas.ResetAsked) -> schemas.Done:
    """Send a link that sets a new password."""
    services.ask_reset(request, sent)
    return schemas.Done()


@router.put("/account/reset", response={200: schemas.Done, **_Refused}, auth=anyone)
def reset(request: HttpRequest, sent: schemas.ResetDone) -> schemas.Done:
    """Set a new password with the link that was sent."""
    services.reset(request, sent)
    return schemas.Done()


@router.get("/letters", response={200: list[schemas.Letter], 404: schemas.Refusals}, auth=None)
def letters(request: HttpRequest) -> list[schemas.Letter]:
    """Return the letters of the simulated mail. Only a demo or a development server shows them."""
    if not settings.DEMO:
        raise Http404
    return box.letters()
