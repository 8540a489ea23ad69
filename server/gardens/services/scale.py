"""A hanging scale, read over the protocol of docs/scale-protocol.md."""

from __future__ import annotations

import socket
import time

from ascent import tables
from ascent.errors import InvalidPlan, Problem
from ascent.files.scale import FAULTS, LONGEST, ScaleFault, Weighed, identity_of, line_of, settled
from ascent.report.log import weight_text
from ascent.words.quantities import write
from django.conf import settings

from .. import schemas
from .access import Granted
from .state import place_of

_ALL, _LINE = 8.0, 1.0  # for a reading, and for one line of it [s]
_BETWEEN = 0.1  # readings [s]
_FAILED = 3  # lines that fail to come before it is given up
_BUSY = 4  # the fault that goes away


class _Gone(Exception):
    """The line is down, or nothing comes over it."""


class _Wire:
    """A line to a scale, made again when it drops."""

    def __init__(self, host: str, port: int) -> None:
        self._where = (host, port)
        self._line: socket.socket | None = None
        self._rest = b""

    def asked(self, word: bytes) -> bytes:
        """Return the answer to a word.

        Raises:
            _Gone: None came.
        """
        try:
            if self._line is None:
                self._line, self._rest = socket.create_connection(self._where, timeout=_LINE), b""
                self._line.settimeout(_LINE)
            self._line.sendall(word + b"\r\n")
            return self._read()
        except OSError as error:
            self.close()
            raise _Gone from error

    def _read(self) -> bytes:
        end = time.monotonic() + _LINE
        while b"\n" not in self._rest:
            if len(self._rest) > LONGEST:
                self._rest = self._rest[-1:]  # a line without end: what comes of it is none
            if self._line is None or time.monotonic() > end:
                raise OSError("no line in time")
            data = self._line.recv(256)
            if not data:
                raise OSError("the line was closed")
            self._rest += data
        line, _, self._rest = self._rest.partition(b"\n")
        return line

    def close(self) -> None:
        """Let the line go."""
        if self._line is not None:
            self._line.close()
        self._line, self._rest = None, b""


def _refused(what: str, allowed: str) -> InvalidPlan:
    return InvalidPlan([Problem("scale", what, allowed)])


def pull_of(address: str) -> tuple[str, float]:
    """Return what a scale calls itself, and the pull that hangs on it once it is at rest. [N]

    Raises:
        InvalidPlan: None is set, it is no scale, or it does not come to a reading in time.
    """
    host, _, port = address.rpartition(":")
    if not host or not port.isdigit():
        raise _refused("nothing", "the address of a scale is allowed, in ASCENT_SCALE; or write the pull")
    wire = _Wire(host, int(port))
    try:
        return _name(wire), _settled(wire)
    finally:
        wire.close()


def _name(wire: _Wire) -> str:
    for _ in range(_FAILED):
        try:
            answer = wire.asked(b"ID")
        except _Gone:
            continue
        if name := identity_of(answer):
            return name
        raise _refused("something else", "a scale is allowed there")
    raise _refused("no answer", "a scale that is switched on is allowed; or write the pull")


def _settled(wire: _Wire) -> float:
    readings: list[Weighed] = []
    failed, end = 0, time.monotonic() + _ALL
    while time.monotonic() < end:
        try:
            said = line_of(wire.asked(b"R"))
        except _Gone:
            failed += 1
            if failed >= _FAILED:
                raise _refused("no answer", "a scale that answers is allowed; or write the pull") from None
            continue
        if isinstance(said, ScaleFault) and said.number != _BUSY:
            raise _refused(FAULTS[said.number], "a scale that can read is allowed; or write the pull")
        if isinstance(said, Weighed):
            readings.append(said)
            if (force := settled(readings)) is not None:
                return force
        time.sleep(_BETWEEN)
    raise _refused("a pull that never rests", "a pull held still is allowed; hold it, and read again")


def scale_out(granted: Granted) -> schemas.ScaleOut:
    """Return what hangs on the scale, in the garden's units.

    Raises:
        InvalidPlan: There is no scale, or no reading.
    """
    name, force = pull_of(settings.SCALE)
    units = place_of(granted.garden).units
    mass = round(max(force, 0.0) / tables.constant("gravity"), 2)
    return schemas.ScaleOut(
        name=name,
        pull=round(force, 1),
        text=write(force, "force", units),
        mass=mass,
        mass_text=weight_text(mass, units),
    )
