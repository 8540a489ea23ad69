"""Random requests against the API's own document: no answer is a fault of ours, and every answer fits its
schema.
"""

from __future__ import annotations

import copy
import json
from collections import Counter
from typing import Any
from urllib.parse import urlencode

import jsonschema
import schemathesis
from config.api import api
from django.db import transaction
from django.test import Client
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as st
from schemathesis.generation import GenerationMode

LONG = 20  # examples from which a run differs from the last


class Fuzz:
    """Sends what fits the document and what does not, to things that are there and things that are not."""

    def __init__(self, client: Client, ids: dict[str, Any], examples: int) -> None:
        self.client, self.ids, self.examples = client, ids, examples
        self.document = json.loads(json.dumps(api.get_openapi_schema(path_prefix="/api/")))
        self.schema = schemathesis.openapi.from_dict(self.document)
        self.counts: Counter[int] = Counter()
        self.cookies = copy.deepcopy(client.cookies)
        self.validators: dict[str, Any] = {}

    def operations(self) -> list[Any]:
        """Return every operation of the API."""
        return [result.ok() for result in self.schema.get_all_operations()]

    def run(self, operation: Any) -> None:
        """Send random requests to one operation."""
        for mode in (GenerationMode.POSITIVE, GenerationMode.NEGATIVE):
            strategy = operation.as_strategy(generation_mode=mode)

            @settings(
                max_examples=self.examples,
                deadline=None,
                database=None,
                suppress_health_check=list(HealthCheck),
                derandomize=self.examples < LONG,
                phases=(Phase.generate, Phase.shrink),
            )
            @given(case=strategy, real=st.integers(0, 5))
            def send(case: Any, real: int) -> None:
                with transaction.atomic():
                    self.send(case, real)
                    transaction.set_rollback(True)

            try:
                send()
            except Exception as error:
                if type(error).__name__ in ("Unsatisfiable", "SkipTest"):
                    continue  # some operations take nothing that could be wrong
                raise

    def send(self, case: Any, real: int) -> None:
        """Send one request, signed in and mostly to something that is there, and look at the answer."""
        self.client.cookies = copy.deepcopy(self.cookies)
        path = case.path
        for name, value in (case.path_parameters or {}).items():
            path = path.replace(f"{{{name}}}", str(self.ids.get(name, value) if real else value))
        if "{" in path:
            return
        body = case.body if case.body.__class__.__name__ != "NotSet" else None
        query = {name: value for name, value in (case.query or {}).items() if value is not None}
        text = json.dumps(body) if body is not None and not isinstance(body, bytes) else body
        try:
            answer = self.client.generic(
                case.method,
                path.encode("utf-8", "replace").decode("latin-1", "replace"),
                text or "",
                content_type="application/json",
                QUERY_STRING=_query(query),
            )
        except UnicodeError:
            return  # no client could have sent that
        self.counts[answer.status_code] += 1
        self.check(case, answer)

    def check(self, case: Any, answer: Any) -> None:
        """Check an answer against the document."""
        content = b"".join(answer.streaming_content) if answer.streaming else answer.content
        told = f"{case.method} {case.path} {answer.status_code} {content[:300]!r}"
        assert answer.status_code < 500, told
        documented = self.document["paths"][case.path][case.method.lower()]["responses"]
        said = documented.get(str(answer.status_code))
        assert said, f"the document does not say so: {told}"
        if "json" not in answer["Content-Type"]:
            return
        schema = said.get("content", {}).get("application/json", {}).get("schema", {})
        if schema.get("type") == "string":
            return  # a file
        error = jsonschema.exceptions.best_match(self.validator(schema).iter_errors(answer.json()))
        assert error is None, f"{told}: {error}"

    def validator(self, schema: dict[str, Any]) -> Any:
        """Return what checks answers against one schema of the document, made once."""
        key = json.dumps(schema, sort_keys=True)
        if key not in self.validators:
            whole = {**schema, "components": self.document["components"]}
            self.validators[key] = jsonschema.validators.validator_for(whole)(whole)
        return self.validators[key]


def _query(query: dict[str, Any]) -> str:
    return urlencode(
        {name: value for name, value in query.items() if not isinstance(value, dict)},
        doseq=True,
        errors="replace",
    )
