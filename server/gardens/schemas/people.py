"""What the API takes and gives of who may see a garden."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from ascent.plan.fields import Typed
from pydantic import Field

Role = Literal["owner", "edit", "read"]


class GardenName(Typed):
    """A garden in a list: whose it is, and what the person may do in it."""

    id: int
    name: str
    role: Role
    owner: str


class DeletedGarden(Typed):
    """A deleted garden, and the last day on which its owner can restore it."""

    id: int
    name: str
    until: dt.date


class ShareOut(Typed):
    """Someone a garden is shared with."""

    name: str
    may_edit: bool


class ShareIn(Typed):
    """Whom to share a garden with, and whether they may change it."""

    name: str = Field(min_length=1, max_length=150)
    may_edit: bool = False


class People(Typed):
    """Who may see a garden, and the token of its read-only link if there is one."""

    shares: list[ShareOut]
    link: str | None


class LookIn(Typed):
    """The token of a read-only link."""

    token: str = Field(min_length=1, max_length=64)
