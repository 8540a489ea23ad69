"""Asking a service of somebody else over HTTP: not long in all, not much, and going nowhere else."""

from __future__ import annotations

import http.client
import socket
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Literal, TypeVar
from urllib.parse import urlsplit

_WAIT = 3.0  # for one answer, from its first byte to its last [s]
_TRIES = 3
_PAUSE = 0.2  # between tries [s]
_MOST_BYTES = 1_000_000  # of one answer
_FAILURES = 3  # in a row, after which a service is left alone
_REST = 180.0  # for so long [s]
Read = TypeVar("Read")


class NoAnswer(Exception):
    """Nothing came that can be used, and what did."""


@dataclass
class Circuit:
    """A service that fails again and again is left alone for some minutes; then one question goes through,
    and its answer says whether others may follow.
    """

    _failed: int = 0
    _since: float = 0.0
    _trying: bool = False
    _lock: threading.Lock = field(default_factory=threading.Lock)

    @property
    def state(self) -> Literal["closed", "open", "half-open"]:
        """Return whether it may be asked: closed it may, open it may not, half open once."""
        if self._failed < _FAILURES:
            return "closed"
        return "open" if time.monotonic() - self._since < _REST else "half-open"

    def pass_through(self) -> None:
        """Let a question pass.

        Raises:
            NoAnswer: The service is left alone now.
        """
        with self._lock:
            state = self.state
            if state == "open" or (state == "half-open" and self._trying):
                raise NoAnswer("no answer for some minutes")
            self._trying = state == "half-open"

    def came(self, *, well: bool) -> None:
        """Note how a question went."""
        with self._lock:
            self._trying = False
            self._failed = 0 if well else self._failed + 1
            self._since = time.monotonic()


_circuits: dict[str, Circuit] = {}


def circuit_of(address: str) -> Circuit:
    """Return the circuit of a service, by the host and port of its address."""
    return _circuits.setdefault(urlsplit(address).netloc, Circuit())


def asked(address: str, end: float, read: Callable[[bytes], Read]) -> Read:
    """Return what is read of an answer; what does not come, or comes in part, is asked for again while there
    is time.

    Args:
        address: Where.
        end: Until when, by the monotonic clock. [s]
        read: Reads it.

    Raises:
        NoAnswer: None came in time, or the service has failed again and again just now.
        InvalidPlan: What came cannot be read; as `read` says.
    """
    circuit = circuit_of(address)
    circuit.pass_through()
    well = False
    try:
        body = _answered(address, end)
        well = True
    finally:
        circuit.came(well=well)
    return read(body)


def _answered(address: str, end: float) -> bytes:
    what = "no answer"
    for _ in range(_TRIES):
        left = end - time.monotonic()
        if left <= 0:
            break
        try:
            return _body(address, min(_WAIT, left))
        except http.client.IncompleteRead:
            what = "half an answer"
        except _Status as error:
            what = f"answer {error.status}"
            if error.status < 500 and error.status != http.HTTPStatus.TOO_MANY_REQUESTS:
                break
        except (OSError, http.client.HTTPException, ValueError):
            what = "no answer"
        time.sleep(min(_PAUSE, max(end - time.monotonic(), 0.0)))
    raise NoAnswer(what)


class _Status(Exception):
    """An answer that holds nothing. A redirect is one: a service does not choose what this machine asks."""

    def __init__(self, status: int) -> None:
        self.status = status
        super().__init__(str(status))


def _body(address: str, seconds: float) -> bytes:
    """Return an answer that has come as a whole within so many seconds, however it comes."""
    parts = urlsplit(address)
    kind = http.client.HTTPSConnection if parts.scheme == "https" else http.client.HTTPConnection
    connection = kind(parts.hostname or "", parts.port, timeout=seconds)
    connection.connect()
    watch = threading.Timer(seconds, _cut, [connection.sock])
    watch.daemon = True
    watch.start()
    try:
        connection.request("GET", f"{parts.path or '/'}{'?' if parts.query else ''}{parts.query}")
        answer = connection.getresponse()
        if answer.status != http.HTTPStatus.OK:
            raise _Status(answer.status)
        body = answer.read(_MOST_BYTES + 1)
        if len(body) > _MOST_BYTES:
            raise NoAnswer("an answer without end")
        told = answer.headers.get("Content-Length")
        if told and told.isdigit() and len(body) < int(told):
            raise http.client.IncompleteRead(body)
        if not watch.is_alive():  # what was cut off may look like a whole
            raise http.client.IncompleteRead(body)
        return body
    finally:
        watch.cancel()
        connection.close()


def _cut(line: socket.socket) -> None:
    """End a connection that somebody still reads from."""
    try:
        line.shutdown(socket.SHUT_RDWR)
    except OSError:
        return  # it has ended by itself
