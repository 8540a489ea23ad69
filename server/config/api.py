"""The API: one typed document, one form of error."""

from __future__ import annotations

from typing import Any

from accounts.api import router as accounts
from accounts.services import NotTogether, waiting
from ascent.errors import AscentError, InvalidPlan, Problem
from ascent.files.plan import described
from ascent.plan.documents import parsed
from django.http import Http404, HttpRequest, HttpResponse
from gardens.api import router
from gardens.api.throttling import Full
from gardens.api.visitor import VisitorAuth
from gardens.schemas import ProblemOut, Problems
from gardens.services.edits import CannotUndo, Stale
from gardens.services.writing import Busy
from limits.tries import Crowded, TooMany
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError, ValidationErrorContext
from ninja.parser import Parser

from . import faults

ALWAYS = {
    400: "unreadable",
    401: "signed out",
    403: "not from our own page",
    404: "not there, or not for this visitor",
    413: "too large",
    415: "not JSON",
    422: "what is wrong, field by field",
    429: "too often",
    500: "a fault of ours",
    503: "again in a moment",
    507: "no room",
}
WRITING = (403, 413, 415)  # never said of what only asks


def _refusal(words: str) -> dict[str, Any]:
    content = {"application/json": {"schema": {"$ref": "#/components/schemas/Problems"}}}
    return {"description": words, "content": content}


class Bounded(Parser):
    """Reads a body that is no deeper, wider or longer than anything we send."""

    def parse_body(self, request: HttpRequest) -> Any:
        """Return the document."""
        return parsed(request.body, "request", MOST_SENT)


MOST_SENT = 40_000  # values in a request


class Api(NinjaAPI):
    """The framework's API, whose refusals keep what was given."""

    def get_openapi_schema(self, **more: Any) -> Any:
        """Return the API's document, in which every operation says all that it may be answered."""
        document = super().get_openapi_schema(**more)
        for verbs in document["paths"].values():
            for verb, operation in verbs.items():
                for status, words in ALWAYS.items():
                    if verb != "get" or status not in WRITING:
                        operation["responses"].setdefault(status, _refusal(words))
                operation["responses"] = dict(
                    sorted(operation["responses"].items(), key=lambda each: str(each[0]))
                )
        return document

    def validation_error_from_error_contexts(
        self, error_contexts: list[ValidationErrorContext[Any]]
    ) -> ValidationError:
        """Return every wrong field of a request; of a body the first part of its place is the framework's
        own.
        """
        problems = []
        for context in error_contexts:
            own = 1 if getattr(context.model, "__ninja_param_source__", "") == "body" else 0
            problems += [
                {**error, "loc": error["loc"][own:]}
                for error in context.pydantic_validation_error.errors(include_url=False)
            ]
        return ValidationError(problems)


api = Api(title="Ascent", version="1", auth=VisitorAuth(), docs_url=None, parser=Bounded())
api.add_router("", accounts)
api.add_router("", router)


def _answer(request: HttpRequest, problems: list[Problem], status: int) -> HttpResponse:
    body = Problems(
        problems=[
            ProblemOut(path=p.path, given=p.given, allowed=p.allowed, suggestion=p.suggestion)
            for p in problems
        ]
    )
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
def too_many(request: HttpRequest, error: TooMany) -> HttpResponse:
    """Answer 429: tried too often."""
    return _again(_answer(request, [Problem("password", "", waiting(error.seconds))], 429), error.seconds)


@api.exception_handler(Crowded)
def crowded(request: HttpRequest, _error: Crowded) -> HttpResponse:
    """Answer 503: too many passwords at once."""
    return _again(
        _answer(request, [Problem("password", "", "again in a moment: many sign in just now")], 503), 2
    )


@api.exception_handler(Full)
def full(request: HttpRequest, error: Full) -> HttpResponse:
    """Answer 429 to whoever has long calculations under way already, 503 when all others have."""
    said = (
        "again in a moment: two of yours are being calculated"
        if error.own
        else "again in a moment: others are being calculated"
    )
    return _again(_answer(request, [Problem("request", "one more", said)], 429 if error.own else 503), 1)


@api.exception_handler(Busy)
def busy(request: HttpRequest, _error: Busy) -> HttpResponse:
    """Answer 503: others have saved each time in between."""
    return _again(_answer(request, [Problem("data", "busy", faults.BUSY)], 503), 1)


def _again(response: HttpResponse, seconds: int) -> HttpResponse:
    response["Retry-After"] = str(seconds)
    return response


@api.exception_handler(CannotUndo)
def cannot_undo(request: HttpRequest, error: CannotUndo) -> HttpResponse:
    """Answer 409: what would be undone is no longer there to undo."""
    return _answer(request, [Problem("undo", "", str(error))], 409)


@api.exception_handler(Http404)
def missing(request: HttpRequest, _error: Http404) -> HttpResponse:
    """Answer 404; also for what belongs to someone else."""
    return _answer(
        request,
        [Problem("address", request.path, "a garden of yours, or one shared with you to do that")],
        404,
    )


@api.exception_handler(AuthenticationError)
def signed_out(request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
    """Answer 401: sign in first."""
    return _answer(request, [Problem("session", "signed out", "sign in first")], 401)


@api.exception_handler(HttpError)
def other(request: HttpRequest, error: HttpError) -> HttpResponse:
    """Answer a malformed request in the same form."""
    if isinstance(error.__cause__, InvalidPlan):
        return _answer(request, list(error.__cause__.problems), 400)
    return _answer(request, [Problem("request", "unreadable", str(error))], error.status_code)


@api.exception_handler(Exception)
def fault(request: HttpRequest, error: Exception) -> HttpResponse:
    """Answer what is nobody's bad input: a busy or full disk, a fault of ours."""
    return faults.answer(request, error)
