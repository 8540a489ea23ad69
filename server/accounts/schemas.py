"""What the API takes and gives of accounts."""

from __future__ import annotations

import datetime as dt

from ascent.plan.fields import Typed
from pydantic import Field


class SessionOut(Typed):
    """Who is signed in, and what this installation offers."""

    name: str | None
    mail: str
    demo: bool
    sign_up: bool
    supplier: bool
    scale: bool


class SignIn(Typed):
    """A name and its password."""

    name: str = Field(min_length=1, max_length=150)
    password: str = Field(min_length=1, max_length=200)


class SignUp(SignIn):
    """A new account; the mail address is for setting a new password."""

    mail: str = Field("", max_length=200)


class PasswordChange(Typed):
    """The old password and the new."""

    old: str = Field(max_length=200)
    new: str = Field(max_length=200)


class PasswordProof(Typed):
    """The password once more, before something that cannot be undone."""

    password: str = Field(max_length=200)


class ResetAsked(Typed):
    """Where to send the link that sets a new password."""

    mail: str = Field(min_length=3, max_length=200)


class ResetDone(Typed):
    """The link's two parts, and the new password."""

    who: str = Field(max_length=40)
    token: str = Field(max_length=100)
    password: str = Field(max_length=200)


class Done(Typed):
    """It is done."""

    ok: bool = True


class Letter(Typed):
    """A mail that the stand-in wrote to a file."""

    when: dt.datetime
    to: str
    subject: str
    text: str


class Refusal(Typed):
    """One wrong field."""

    path: str
    given: str
    allowed: str
    suggestion: str


class Refusals(Typed):
    """Every wrong field of a request."""

    problems: list[Refusal]
