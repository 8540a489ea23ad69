"""The API: one typed document, one form of error."""

from __future__ import annotations

from typing import Any

from accounts.api import router as accounts
from accounts.services import WAIT, NotTogether, TooMany
from ascent.errors import AscentError, InvalidPlan, Problem
from ascent.plan import described
from django.http import Http404, HttpRequest, HttpResponse
from gardens.api import router
from gardens.api.visitor import VisitorAuth
from gardens.schemas import ProblemOut, Problems
from gardens.services.edits import CannotUndo, Stale
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError, ValidationErrorContext


class Api(NinjaAPI):
    """The framework's API, whose refusals keep what was given."""

    def validation_error_from_error_contexts(self, error_contexts: list[ValidationErrorContext[Any]]) -> ValidationError:
        """Return every wrong field of a request; of a body the first part of its place is the framework's own."""
        found = []
        for context in error_contexts:
            own = 1 if getattr(context.model, "__ninja_param_source__", "") == "body" else 0
            found += [{**each, "loc": each["loc"][own:]} for each in context.pydantic_validation_error.errors(include_url=False)]
        return ValidationError(found)


api = Api(title="Ascent", version="1", auth=VisitorAuth(), docs_url=None)
api.add_router("", accounts)
api.add_router("", router)


def _answer(request: HttpRequest, problems: list[Problem], status: int) -> HttpResponse:
    body = Problems(problems=[ProblemOut(path=p.path, given=p.given, allowed=p.allowed, suggestion=p.suggestion) for p in problems])
    return api.create_response(request, body, status=status)


@api.exception_handler(ValidationError)
def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
    """Answer 422 with every wrong field: its path, what was given, what is allowed."""
    return _answer(request, described(error.errors), 422)


@api.exception_handler(InvalidPlan)
def invalid_plan(request: HttpRequest, error: InvalidPlan) -> HttpResponse:
    """Answer 422 with the core's own problems."""
    return _answer(request, list(error.problems), 422)


@api.exception_handler(AscentError)
def refused(request: HttpRequest, error: AscentError) -> HttpResponse:
    """Answer 422 with what the core says of one value."""
    given, allowed = getattr(error, "text", ""), getattr(error, "allowed", str(error))
    return _answer(request, [Problem("value", given, allowed)], 422)


@api.exception_handler(Stale)
def stale(request: HttpRequest, error: Stale) -> HttpResponse:
    """Answer 409 with what is saved now."""
    return api.create_response(request, error.answer, status=409)


@api.exception_handler(NotTogether)
def not_together(request: HttpRequest, _error: NotTogether) -> HttpResponse:
    """Answer 401: name and password do not belong together."""
    return _answer(request, [Problem("password", "", "name and password do not belong together")], 401)


@api.exception_handler(TooMany)
def too_many(request: HttpRequest, _error: TooMany) -> HttpResponse:
    """Answer 429: too many wrong passwords."""
    return _answer(request, [Problem("password", "", WAIT)], 429)


@api.exception_handler(CannotUndo)
def cannot_undo(request: HttpRequest, error: CannotUndo) -> HttpResponse:
    """Answer 409: what would be undone is no longer there to undo."""
    return _answer(request, [Problem("undo", "", str(error))], 409)


@api.exception_handler(Http404)
def missing(request: HttpRequest, _error: Http404) -> HttpResponse:
    """Answer 404; also for what belongs to someone else."""
    return _answer(request, [Problem("address", request.path, "a garden of yours, or one shared with you to do that")], 404)


@api.exception_handler(AuthenticationError)
def signed_out(request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
    """Answer 401: sign in first."""
    return _answer(request, [Problem("session", "signed out", "sign in first")], 401)


@api.exception_handler(HttpError)
def other(request: HttpRequest, error: HttpError) -> HttpResponse:
    """Answer a malformed request in the same form."""
    return _answer(request, [Problem("request", "unreadable", str(error))], error.status_code)
