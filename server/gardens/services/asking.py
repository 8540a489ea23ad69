"""Asking a service of somebody else over HTTP: not long, not much, and going nowhere else."""

from __future__ import annotations

import http.client
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from typing import TypeVar

_WAIT = 3.0  # for one answer [s]
_TRIES = 3
_PAUSE = 0.2  # between tries [s]
_MOST_BYTES = 1_000_000  # of one answer
Read = TypeVar("Read")


class NoAnswer(Exception):
    """Nothing came that can be used, and what did."""


def asked(address: str, end: float, read: Callable[[bytes], Read]) -> Read:
    """Return what is read of an answer; what does not come, or comes in part, is asked for again while there
    is time.

    Args:
        address: Where.
        end: Until when, by the monotonic clock. [s]
        read: Reads it.

    Raises:
        NoAnswer: None came in time.
        InvalidPlan: What came cannot be read; as `read` says.
    """
    what = "no answer"
    for _ in range(_TRIES):
        left = end - time.monotonic()
        if left <= 0:
            break
        try:
            return read(_body(address, min(_WAIT, left)))
        except http.client.IncompleteRead:
            what = "half an answer"
        except urllib.error.HTTPError as error:
            what = f"answer {error.code}"
            if error.code < 500 and error.code != http.HTTPStatus.TOO_MANY_REQUESTS:
                break
        except (OSError, http.client.HTTPException):
            what = "no answer"
        time.sleep(_PAUSE)
    raise NoAnswer(what)


class _Stay(urllib.request.HTTPRedirectHandler):
    """Goes nowhere else than where it was sent: a service does not choose what this machine asks."""

    def redirect_request(self, *_args: object) -> None:
        """Return that a redirect is not followed; it is an answer like any other that holds nothing."""


_ASKING = urllib.request.build_opener(_Stay)


def _body(address: str, wait: float) -> bytes:
    with _ASKING.open(address, timeout=wait) as answer:
        body: bytes = answer.read(_MOST_BYTES + 1)
        if len(body) > _MOST_BYTES:
            raise NoAnswer("an answer without end")
        told = answer.headers.get("Content-Length")
        if told and told.isdigit() and len(body) < int(told):
            raise http.client.IncompleteRead(body)
    return body
