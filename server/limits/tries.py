"""How often one may try: counted by address and by name, whoever one says one is; and few passwords hashed at
once.
"""

from __future__ import annotations

import hashlib
import ipaddress
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager

from django.conf import settings
from django.core.cache import cache
from django.http import HttpRequest

_NETWORK = 64  # bits of an IPv6 address that one household shares
_WAIT = 4.0  # for one's turn to have a password hashed [s]
_hashing = threading.BoundedSemaphore(2)


class TooMany(Exception):
    """Too many tries; `seconds` until the next."""

    def __init__(self, seconds: int) -> None:
        self.seconds = seconds
        super().__init__("too many tries")


class Crowded(Exception):
    """Too many passwords are being hashed; again in a moment."""


def address_of(request: HttpRequest) -> str:
    """Return where a request comes from: its address, of a long one the part that one household shares."""
    text = str(request.META.get("REMOTE_ADDR", ""))
    try:
        address = ipaddress.ip_address(text)
    except ValueError:
        return text
    return (
        str(address) if address.version == 4 else str(ipaddress.ip_network((address, _NETWORK), strict=False))
    )


def allow(what: str, who: str) -> None:
    """Refuse when somebody has tried something too often already.

    Raises:
        TooMany: As often as settings.TRIES allows within its time.
    """
    most, seconds = settings.TRIES[what]
    if cache.get(_key(what, who, seconds), 0) >= most:
        raise TooMany(seconds - int(time.time()) % seconds)


def count(what: str, who: str) -> None:
    """Count one try."""
    _, seconds = settings.TRIES[what]
    key = _key(what, who, seconds)
    cache.add(key, 0, seconds)
    cache.incr(key)


def try_once(what: str, who: str) -> None:
    """Count a try, or refuse it when it is one too many."""
    allow(what, who)
    count(what, who)


def _key(what: str, who: str, seconds: int) -> str:
    name = hashlib.sha256(who.strip().lower().encode("utf-8", "replace")).hexdigest()[:32]
    return f"try:{what.replace(' ', '-')}:{name}:{int(time.time()) // seconds}"


@contextmanager
def hashing() -> Iterator[None]:
    """Wait for one's turn to have a password hashed.

    Raises:
        Crowded: It did not come.
    """
    if not _hashing.acquire(timeout=_WAIT):
        raise Crowded
    try:
        yield
    finally:
        _hashing.release()
