"""What is told when something goes wrong that is nobody's bad input: a busy or full or read-only disk, a
fault of ours.
"""

from __future__ import annotations

import errno
import logging
import sqlite3
import sys
from dataclasses import dataclass

from ascent.errors import Problem
from django.core.exceptions import SuspiciousOperation
from django.db import DatabaseError
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.shortcuts import render

_log = logging.getLogger(__name__)
BUSY = "again in a moment: others are saving"


@dataclass(frozen=True)
class ReportedFault:
    """A status, what is said, and after how many seconds it is worth another try (0: not by itself)."""

    status: int
    problem: Problem
    again: int = 0


_OF_DATA = (
    (("locked", "busy"), ReportedFault(503, Problem("data", "busy", BUSY), 1)),
    (
        ("is full",),
        ReportedFault(
            507,
            Problem(
                "data", "the disk is full", "nothing was changed; whoever runs this server must make room"
            ),
            30,
        ),
    ),
    (
        ("readonly", "read-only", "unable to open"),
        ReportedFault(
            507,
            Problem(
                "data",
                "the disk can only be read",
                "nothing was changed; whoever runs this server must let it write",
            ),
            30,
        ),
    ),
)
_OF_FILES = {
    errno.ENOSPC: _OF_DATA[1][1],
    errno.EDQUOT: _OF_DATA[1][1],
    errno.EROFS: _OF_DATA[2][1],
    errno.EACCES: _OF_DATA[2][1],
}
_OURS = ReportedFault(
    500, Problem("server", "a fault of ours", "nothing was changed by it; it is written to the server’s log")
)


def told(error: BaseException | None) -> ReportedFault:
    """Return what is said of an error that nobody could have put right in the request."""
    if isinstance(error, DatabaseError | sqlite3.Error):
        return next((says for words, says in _OF_DATA if any(word in str(error) for word in words)), _OURS)
    if isinstance(error, OSError):
        return _OF_FILES.get(error.errno or 0, _OURS)
    return _OURS


def answer(request: HttpRequest, error: BaseException | None) -> HttpResponse:
    """Answer an error in the form of what was asked: the API's, or a page that says it."""
    fault = told(error)
    if fault is _OURS:
        _log.error("%s %s", request.method, request.path, exc_info=error)
    else:
        _log.warning("%s %s: %s", request.method, request.path, error)
    response = _response(request, fault)
    if fault.again:
        response["Retry-After"] = str(fault.again)
    return response


def _response(request: HttpRequest, fault: ReportedFault) -> HttpResponse:
    if request.path.startswith("/api/"):
        return refusal(fault.problem, fault.status)
    return render(request, "fault.html", {"problem": fault.problem}, status=fault.status)


def refusal(problem: Problem, status: int) -> JsonResponse:
    """Return one problem in the API's own form."""
    return JsonResponse(
        {
            "problems": [
                {
                    "path": problem.path,
                    "given": problem.given,
                    "allowed": problem.allowed,
                    "suggestion": problem.suggestion,
                }
            ]
        },
        status=status,
    )


def fault(request: HttpRequest) -> HttpResponse:
    """Answer what no view has caught, for instance a session that cannot be stored."""
    return answer(request, sys.exc_info()[1])


def suspicious(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    """Answer a request that the framework will not take."""
    said = (
        str(exception)
        if isinstance(exception, SuspiciousOperation) and not request.path.startswith("/api/")
        else ""
    )
    return _response(
        request,
        ReportedFault(
            400,
            Problem("request", said[:120] or "unreadable", "a request such as our own page sends is allowed"),
        ),
    )
