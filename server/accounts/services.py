"""Accounts by Django's own forms: making, signing in, passwords, deleting."""

from __future__ import annotations

from typing import Any

from ascent.errors import InvalidPlan, Problem
from axes.handlers.proxy import AxesProxyHandler
from axes.models import AccessAttempt, AccessFailureLog, AccessLog
from django import forms
from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout, update_session_auth_hash
from django.contrib.auth.forms import (
    BaseUserCreationForm,
    PasswordChangeForm,
    PasswordResetForm,
    SetPasswordForm,
)
from django.contrib.auth.tokens import default_token_generator
from django.db import IntegrityError, transaction
from django.http import HttpRequest, JsonResponse
from django.utils.encoding import force_str
from django.utils.http import urlsafe_base64_decode
from limits.names import ALLOWED, nameable, tidied
from limits.tries import TooMany, address_of, allow, count, hashing, try_once

from . import schemas
from .letters import later

_PATHS = {
    "username": "name",
    "email": "mail",
    "password1": "password",
    "password2": "password",
    "old_password": "old",
    "new_password1": "new",
    "new_password2": "new",
    "__all__": "name",
}
_LEFT = "left"


class NotTogether(Exception):
    """Name and password do not belong together."""


class NewAccount(BaseUserCreationForm):  # type: ignore[type-arg]
    """Django's form with a mail address, and with names as people write them: the framework's own rule for
    names has no spaces, and none of the vowel signs of many scripts.
    """

    username = forms.CharField(max_length=150)
    email = forms.EmailField(required=False)

    class Meta:
        model = get_user_model()
        fields = ("email",)

    def clean_username(self) -> str:
        """Refuse a name that cannot be used, or that another account has."""
        name = tidied(self.cleaned_data["username"])
        if not nameable(name):
            raise forms.ValidationError(ALLOWED)
        if get_user_model().objects.filter(username__iexact=name).exists():
            raise forms.ValidationError("a name that no other account has is allowed")
        self.instance.username = name
        return name


def _valid(form: Any) -> Any:
    """Return a form that holds, or raise InvalidPlan with every wrong field."""
    if not form.is_valid():
        problems = {}
        for field, errors in form.errors.items():
            problems[_PATHS.get(field, field)] = Problem(
                _PATHS.get(field, field), "", " ".join(str(error) for error in errors).rstrip(".")
            )
        raise InvalidPlan(problems.values())
    return form


def state(request: HttpRequest) -> schemas.SessionOut:
    """Return who is signed in; the demo lets its visitor in unless they have left."""
    if not request.session.get(_LEFT):
        enter_demo(request)
    user = request.user
    signed_in = user.is_authenticated
    return schemas.SessionOut(
        name=user.get_username() if signed_in else None,
        mail=getattr(user, "email", "") if signed_in else "",
        demo=settings.DEMO,
        sign_up=settings.SIGN_UP,
        supplier=bool(settings.SUPPLIER),
        scale=bool(settings.SCALE),
    )


def enter_demo(request: HttpRequest) -> None:
    """Sign in whoever looks at the demo, whose first account has no password."""
    if settings.DEMO and not request.user.is_authenticated:
        user = get_user_model().objects.filter(username=settings.DEMO_USER).first()
        if user:
            login(request, user, backend=settings.AUTHENTICATION_BACKENDS[-1])


def waiting(seconds: int) -> str:
    """Return in words how long to wait."""
    minutes = max(-(-seconds // 60), 1)
    return f"too many tries; wait {minutes} minute{'' if minutes == 1 else 's'}"


def sign_in(request: HttpRequest, sent: schemas.SignIn) -> schemas.SessionOut:
    """Sign in.

    Raises:
        TooMany: Too many wrong tries from there, or for that name.
        NotTogether: Name and password do not belong together.
    """
    here, name = address_of(request), tidied(sent.name)
    allow("sign-in from", here)
    allow("sign-in to", name)
    if not AxesProxyHandler.is_allowed(request, {"username": name}):
        raise TooMany(int(settings.AXES_COOLOFF_TIME.total_seconds()))
    with hashing():
        user = authenticate(request, username=name, password=sent.password)
    if user is None:
        count("sign-in from", here)
        count("sign-in to", name)
        raise NotTogether
    login(request, user)
    return state(request)


def locked_out(_request: HttpRequest, *_args: Any) -> JsonResponse:
    """Return the answer to the try that was one too many, in the API's own form."""
    said = waiting(int(settings.AXES_COOLOFF_TIME.total_seconds()))
    problem = schemas.Refusal(path="password", given="", allowed=said, suggestion="")
    return JsonResponse(schemas.Refusals(problems=[problem]).model_dump(), status=429)


def sign_out(request: HttpRequest) -> schemas.SessionOut:
    """Sign out; of the demo too, until one asks to be let in again."""
    logout(request)
    request.session[_LEFT] = True
    return state(request)


def enter_again(request: HttpRequest) -> schemas.SessionOut:
    """Back into the demo."""
    request.session.pop(_LEFT, None)
    return state(request)


def sign_up(request: HttpRequest, sent: schemas.SignUp) -> schemas.SessionOut:
    """Make an account and sign in.

    Raises:
        InvalidPlan: Every wrong field, or accounts are not made here.
    """
    if not settings.SIGN_UP:
        raise InvalidPlan([Problem("name", "", "accounts are made by whoever runs this server")])
    try_once("sign-up from", address_of(request))
    data = {"username": sent.name, "email": sent.mail, "password1": sent.password, "password2": sent.password}
    try:
        with hashing():
            user = _valid(NewAccount(data)).save()
    except IntegrityError as error:  # the same name at the same moment
        raise InvalidPlan(
            [Problem("name", sent.name, "a name that no other account has is allowed")]
        ) from error
    login(request, user, backend=settings.AUTHENTICATION_BACKENDS[-1])
    return state(request)


def change_password(request: HttpRequest, sent: schemas.PasswordChange) -> None:
    """Change one's password; other sessions end."""
    user_: Any = request.user
    try_once("password of", str(user_.pk))
    data = {"old_password": sent.old, "new_password1": sent.new, "new_password2": sent.new}
    with hashing():
        user = _valid(PasswordChangeForm(user_, data)).save()
    update_session_auth_hash(request, user)


def ask_reset(request: HttpRequest, sent: schemas.ResetAsked) -> None:
    """Send the link that sets a new password, if the address is an account's; neither the answer nor its time
    tells.
    """
    try_once("letter from", address_of(request))
    _valid(form := PasswordResetForm({"email": sent.mail}))
    try_once("letter to", sent.mail)
    secure, host = request.is_secure(), request.get_host()

    def post() -> None:
        form.save(
            subject_template_name="reset_subject.txt",
            email_template_name="reset_letter.txt",
            use_https=secure,
            domain_override=host,
        )

    later(post)


def reset(request: HttpRequest, sent: schemas.ResetDone) -> None:
    """Set a new password by a link that was sent.

    Raises:
        InvalidPlan: The link is used up or wrong, or the password is too weak.
    """
    try_once("reset from", address_of(request))
    try:
        user = get_user_model().objects.filter(pk=force_str(urlsafe_base64_decode(sent.who))).first()
    except (ValueError, OverflowError):
        user = None
    if user is None or not default_token_generator.check_token(user, sent.token):
        raise InvalidPlan(
            [Problem("token", "", "a link that is less than three days old and not yet used is allowed")]
        )
    with hashing():
        _valid(SetPasswordForm(user, {"new_password1": sent.password, "new_password2": sent.password})).save()


def delete_account(request: HttpRequest, sent: schemas.PasswordProof) -> None:
    """Delete one's account with all its gardens.

    Raises:
        InvalidPlan: The password is not the account's.
    """
    user: Any = request.user
    try_once("password of", str(user.pk))
    with hashing():
        right = user.check_password(sent.password)
    if not right:
        raise InvalidPlan([Problem("password", "", "the account’s own password")])
    name = user.get_username()
    with transaction.atomic():
        logout(request)
        user.delete()
        for log in (AccessAttempt, AccessFailureLog, AccessLog):
            log.objects.filter(username=name).delete()
