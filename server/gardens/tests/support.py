"""A garden of one's own and a client that speaks the API."""

from __future__ import annotations

from collections.abc import Sequence
from functools import cache
from typing import Any

from ascent.files.plan import Plan, read_plan
from django.conf import settings
from django.contrib.auth import get_user_model
from django.test import TestCase

from gardens.management.commands.demo import keep_drawn_photos
from gardens.models import Garden, Thing
from gardens.services import known
from gardens.services.state import load_plan


@cache
def _demo_plan() -> Plan:
    return read_plan((settings.ROOT / "docs" / "examples" / "lantern-quay.json").read_bytes())


def demo_garden(owner: Any, log: bool = False) -> Garden:
    """Store the demo garden for an owner, with what happened in it or as if nothing had."""
    plan = _demo_plan()
    if not log:
        return load_plan(owner, plan.model_copy(update={"log": ()}))
    garden = load_plan(owner, plan)
    keep_drawn_photos(garden)
    return garden


class ApiTestCase(TestCase):
    """Signed in as the owner of the demo garden; someone else has another."""

    @classmethod
    def setUpTestData(cls) -> None:
        users = get_user_model().objects
        cls.owner, cls.other = (
            users.create_user("mara", password="tall-beans-9"),
            users.create_user("tobin", password="tall-peas-9"),
        )
        cls.garden, cls.theirs = demo_garden(cls.owner), demo_garden(cls.other)
        cls.bed = cls.garden.things.get(kind="bed", document__name="Long Plot A")
        cls.structure = Thing.objects.get(garden=cls.garden, document__name="Lantern Row")

    def setUp(self) -> None:
        known.forget()  # what a test before has stored and taken back is no past of this one
        self.client.force_login(self.owner)

    def call(self, method: str, path: str, body: Any = None, status: int = 200) -> Any:
        """Call the API and return the answer's JSON, having checked its status."""
        answer = getattr(self.client, method)(f"/api/{path}", body, content_type="application/json")
        self.assertEqual(answer.status_code, status, answer.content[:400])
        return answer.json() if "json" in answer["Content-Type"] else answer.content.decode()

    def edited(self, edits: Sequence[Any], status: int = 200) -> Any:
        """Save edits of the garden and return the answer, with the garden as it is then."""
        path = f"gardens/{self.garden.pk}"
        out = self.call("post", f"{path}/edits", {"edits": edits}, status)
        return {**out, "garden": self.call("get", path)} if status == 200 else out

    def refused(self, method: str, path: str, body: Any, field: str, allowed: str = "") -> None:
        """Expect 422 that names the field and says what is allowed."""
        problems = self.call(method, path, body, 422)["problems"]
        found = next((p for p in problems if p["path"] == field), None)
        self.assertIsNotNone(found, problems)
        self.assertIn(allowed, found["allowed"])

    def draft(self) -> tuple[dict[str, Any], int]:
        """Return the structure's draft and revision."""
        out = self.call("get", f"structures/{self.structure.pk}")
        return out["draft"], out["revision"]
