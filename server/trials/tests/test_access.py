"""Accounts × endpoints, made from the API's own document: a new endpoint is in it by itself."""

from __future__ import annotations

import datetime as dt
from typing import Any

from config.api import api
from django.contrib.auth import get_user_model
from django.core.management import call_command
from django.test import Client
from django.utils import timezone
from gardens.models import Garden, Photo, Share, Thing
from gardens.services.access import MOST_GARDENS, make_link
from gardens.services.owned import KEPT_DELETED, MOST_DELETED
from gardens.tests.support import ApiTestCase

# what a reader may send although it is no GET: nothing of it is stored
LOOKS = {
    ("post", f"/{name}")
    for name in (
        "draft",
        "year/draft",
        "report",
        "fixes",
        "sizing",
        "sensitivity",
        "take",
        "line",
        "log/read",
        "ways",
        "curve",
        "solid",
    )
}
# what concerns no garden: each is tested where it belongs
ELSEWHERE = (
    "/api/session",
    "/api/account",
    "/api/letters",
    "/api/look",
    "/api/empty",
    "/api/catalogue",
    "/api/method",
    "/api/quantities",
    "/api/feed",
)


def sample(schema: dict[str, Any], document: dict[str, Any]) -> Any:
    """Return the least value that fits a schema."""
    if "$ref" in schema:
        return sample(document["components"]["schemas"][schema["$ref"].rsplit("/", 1)[-1]], document)
    known = [schema[name] for name in ("default", "const") if name in schema]
    if fixed := known or schema.get("enum") or schema.get("examples"):
        return fixed[0]
    if options := schema.get("anyOf") or schema.get("oneOf"):
        return sample(options[0], document)
    kind = schema.get("type")
    if kind == "object":
        return {name: sample(schema["properties"][name], document) for name in schema.get("required", ())}
    if kind == "array":
        return [sample(schema["items"], document)] * schema.get("minItems", 0)
    return {
        "string": "2026-01-05" if schema.get("format") == "date" else "x",
        "integer": schema.get("minimum", 1),
        "number": schema.get("minimum", 1.0),
        "boolean": False,
    }.get(kind)


def sent(client: Client, verb: str, address: str, body: Any) -> int:
    """Send a request and return the status of its answer: JSON, or to an archive’s address a zip."""
    if verb == "post" and address.endswith("/archive"):
        return client.post(address, b"PK", content_type="application/zip").status_code
    return getattr(client, verb)(address, body, content_type="application/json").status_code


class MatrixTest(ApiTestCase):
    """Owner, someone who may change, someone who may read, a visitor by link, a stranger, and nobody."""

    def setUp(self) -> None:
        super().setUp()
        users = get_user_model().objects
        self.people: dict[str, Client] = {"owner": self.client}
        Photo.objects.create(garden=self.garden, sha="a" * 64, width=1, height=1, large=b"-", small=b"-")
        for name, may_edit in (("editor", True), ("reader", False), ("stranger", None)):
            user = users.create_user(name)
            if may_edit is not None:
                Share.objects.create(garden=self.garden, person=user, may_edit=may_edit)
            self.people[name] = Client()
            self.people[name].force_login(user)
        token = make_link(self.garden).link
        self.people["visitor"], self.people["nobody"] = Client(), Client()
        answer = self.people["visitor"].post("/api/look", {"token": token}, content_type="application/json")
        self.assertEqual(answer.status_code, 200, answer.content)
        self.document = api.get_openapi_schema(path_prefix="/api/")

    def endpoints(self):
        """Yield each verb and path that concerns a garden, with a body that fits."""
        draft, revision = self.draft()
        bodies = {"Draft": draft}
        for path, verbs in self.document["paths"].items():
            if path.startswith(ELSEWHERE) or path in (
                "/api/gardens",
                "/api/gardens/import",
                "/api/gardens/deleted",
            ):
                continue
            for verb, operation in verbs.items():
                schema = (
                    operation.get("requestBody", {})
                    .get("content", {})
                    .get("application/json", {})
                    .get("schema")
                )
                body = sample(schema, self.document) if schema else None
                if isinstance(body, dict):
                    body |= {
                        name: value
                        for name, value in (("draft", bodies["Draft"]), ("revision", revision))
                        if name in body
                    }
                    for part in (body, body.get("need")):
                        if isinstance(part, dict):
                            part |= {
                                name: value
                                for name, value in (("crop", "tom-beef"), ("family", "stake"))
                                if name in part
                            }
                query = "?date=08-10" if path.endswith("/shade") else ""
                yield verb, path, query, body

    def ask(self, who: str, verb: str, path: str, query: str, body: Any) -> int:
        address = path.format(
            garden_id=self.garden.pk,
            structure_id=self.structure.pk,
            bed=self.bed.key,
            number=0,
            name="reader",
            family="stake",
            what="beds",
            sha="a" * 64,
        )
        return sent(self.people[who], verb, address + query, body)

    def test_someone_elses_is_404_never_403(self):
        count = 0
        for verb, path, query, body in self.endpoints():
            with self.subTest(verb=verb, path=path):
                count += 1
                writes = verb != "get" and not any(verb == v and path.endswith(end) for v, end in LOOKS)
                owners = path.endswith(("/people", "/people/{name}", "/link", "{garden_id}/restore")) or (
                    verb,
                    path,
                ) == ("delete", "/api/gardens/{garden_id}")
                self.assertEqual(self.ask("nobody", verb, path, query, body), 401)
                self.assertEqual(self.ask("stranger", verb, path, query, body), 404)
                if path.endswith("/share"):
                    continue  # who leaves is gone: tested by itself
                for who in ("reader", "visitor"):
                    found = self.ask(who, verb, path, query, body)
                    self.assertEqual(found == 404, writes or owners, f"{who} got {found}")
                    self.assertNotIn(found, (401, 403))
                if owners:
                    self.assertEqual(self.ask("editor", verb, path, query, body), 404)
        self.assertGreater(count, 20)
        self.assertTrue(Garden.objects.filter(pk=self.garden.pk).exists())
        self.assertTrue(Thing.objects.filter(pk=self.structure.pk).exists())

    def test_nothing_a_stranger_sends_is_told_apart_from_a_garden_that_is_not_there(self):
        for verb, path, query, body in self.endpoints():
            with self.subTest(verb=verb, path=path):
                address = path.format(
                    garden_id=10**9,
                    structure_id=10**9,
                    bed=self.bed.key,
                    number=0,
                    name="reader",
                    family="stake",
                    what="beds",
                    sha="a" * 64,
                )
                self.assertEqual(sent(self.client, verb, address + query, body), 404)

    def test_whoever_may_change_can(self):
        sent = {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"name": "Cove"}}]}
        for who, expected in (("editor", 200), ("owner", 200), ("reader", 404), ("visitor", 404)):
            answer = self.people[who].post(
                f"/api/gardens/{self.garden.pk}/edits", sent, content_type="application/json"
            )
            self.assertEqual(answer.status_code, expected, who)


class SharingTest(ApiTestCase):
    def path(self, rest: str = "") -> str:
        return f"gardens/{self.garden.pk}{rest}"

    def as_other(self) -> Client:
        client = Client()
        client.force_login(self.other)
        return client

    def test_shared_to_read_then_to_change_then_taken_back(self):
        tobin = self.as_other()
        self.assertEqual(
            self.call("put", self.path("/people"), {"name": "tobin"})["shares"],
            [{"name": "tobin", "may_edit": False}],
        )
        self.assertEqual([g["role"] for g in tobin.get("/api/gardens").json()], ["owner", "read"])
        self.assertEqual(tobin.get(f"/api/{self.path()}").json()["role"], "read")
        self.assertFalse(tobin.get(f"/api/structures/{self.structure.pk}").json()["may_edit"])
        self.call("put", self.path("/people"), {"name": "tobin", "may_edit": True})
        self.assertEqual(tobin.get(f"/api/{self.path()}").json()["role"], "edit")
        self.assertEqual(self.call("delete", self.path("/people/tobin"))["shares"], [])
        self.assertEqual(tobin.get(f"/api/{self.path()}").status_code, 404)

    def test_only_with_an_account_that_is_somebody_elses(self):
        self.refused("put", self.path("/people"), {"name": "nobody-here"}, "name", "account")
        self.refused("put", self.path("/people"), {"name": "mara"}, "name", "somebody else")

    def test_a_link_is_long_opens_for_reading_and_is_withdrawn(self):
        token = self.call("post", self.path("/link"))["link"]
        self.assertGreaterEqual(len(token), 40)
        visitor = Client()
        self.assertEqual(visitor.get(f"/api/{self.path()}").status_code, 401)
        self.assertEqual(
            visitor.post(
                "/api/look", {"token": token[:-1] + "!"}, content_type="application/json"
            ).status_code,
            404,
        )
        found = visitor.post("/api/look", {"token": token}, content_type="application/json").json()
        self.assertEqual(
            found, {"id": self.garden.pk, "name": "Lantern Quay", "role": "read", "owner": "mara"}
        )
        self.assertEqual(visitor.get(f"/api/{self.path()}").json()["role"], "read")
        self.assertNotEqual(
            self.call("post", self.path("/link"))["link"], token, "a new one withdraws the old one"
        )
        self.assertEqual(visitor.get(f"/api/{self.path()}").status_code, 404)
        self.assertIsNone(self.call("delete", self.path("/link"))["link"])

    def test_a_link_gives_no_more_than_its_garden(self):
        token = self.call("post", self.path("/link"))["link"]
        visitor = Client()
        visitor.post("/api/look", {"token": token}, content_type="application/json")
        self.assertEqual(visitor.get(f"/api/gardens/{self.theirs.pk}").status_code, 404)
        self.assertEqual(len(visitor.get("/api/gardens").json()), 1)
        self.assertEqual(visitor.post("/api/gardens", {}, content_type="application/json").status_code, 404)

    def test_one_leaves_a_garden_that_was_shared_and_nobody_else_does(self):
        self.call("put", self.path("/people"), {"name": "tobin"})
        tobin = self.as_other()
        self.refused("delete", self.path("/share"), None, "garden", "one’s own can be deleted")
        self.assertEqual(tobin.delete(f"/api/{self.path('/share')}").status_code, 200)
        self.assertEqual(tobin.get(f"/api/{self.path()}").status_code, 404)
        self.assertEqual(tobin.delete(f"/api/{self.path('/share')}").status_code, 404)
        self.assertEqual(self.call("get", self.path("/people"))["shares"], [])

    def test_who_comes_by_a_link_is_told_nobody_s_account_but_the_owner_s(self):
        self.call("put", self.path("/people"), {"name": "tobin", "may_edit": True})
        entry = {
            "kind": "entry",
            "act": "add",
            "key": "log-1",
            "change": {"line": "frost -1", "who": "tobin"},
        }
        mark = {"state": "done", "at": "2026-08-01T12:00:00Z", "who": "tobin"}
        diary = {"name": "Diary", "structure": "lantern-row", "marks": {"2026.build.1": mark}}
        logged = {"edits": [entry, {"kind": "diary", "act": "add", "key": "diary", "change": diary}]}
        self.call("post", self.path("/edits"), logged)
        self.assertIn("tobin", self.call("get", self.path("/tables/log.csv")))
        edits = {"edits": [{"kind": "bed", "key": "cove-bed", "change": {"name": "Cove"}}]}
        self.as_other().post(f"/api/{self.path('/edits')}", edits, content_type="application/json")
        visitor = Client()
        visitor.post(
            "/api/look",
            {"token": self.call("post", self.path("/link"))["link"]},
            content_type="application/json",
        )
        for path in (
            *("", "/history", "/history/1", "/history/0", "/log", "/week"),
            *("/plan.json", "/tables/log.csv"),
        ):
            self.assertNotIn(b"tobin", visitor.get(f"/api/{self.path(path)}").content, path)
        self.assertEqual(
            visitor.get(f"/api/{self.path('/history')}").json()[0]["who"], "somebody it is shared with"
        )
        self.assertEqual(self.call("get", self.path("/history"))[0]["who"], "tobin")


class DeletedTest(ApiTestCase):
    """A deleted garden is nobody's to open, and comes back whole until it is purged."""

    def delete(self) -> str:
        path = f"gardens/{self.garden.pk}"
        self.call("delete", path)
        return path

    def test_closed_to_everybody_and_back_with_its_shares_and_its_link(self):
        token = make_link(self.garden).link
        Share.objects.create(garden=self.garden, person=self.other)
        tobin, visitor = Client(), Client()
        tobin.force_login(self.other)
        before = self.call("get", f"gardens/{self.garden.pk}")
        path = self.delete()
        for client in (self.client, tobin):
            self.assertEqual(client.get(f"/api/{path}").status_code, 404)
            self.assertNotIn(self.garden.pk, [each["id"] for each in client.get("/api/gardens").json()])
        look = {"token": token}
        self.assertEqual(visitor.post("/api/look", look, content_type="application/json").status_code, 404)
        self.assertEqual(self.client.get(f"/api/structures/{self.structure.pk}").status_code, 404)
        self.assertEqual(tobin.get("/api/gardens/deleted").json(), [])
        self.assertEqual(
            tobin.post(f"/api/{path}/restore", {}, content_type="application/json").status_code, 404
        )
        self.assertEqual([each["name"] for each in self.call("get", "gardens/deleted")], ["Lantern Quay"])
        self.assertEqual(self.call("post", f"{path}/restore"), before)
        self.assertEqual(self.call("post", f"{path}/restore"), before, "twice is once")
        self.assertEqual(tobin.get(f"/api/{path}").status_code, 200)
        self.assertEqual(self.call("get", "gardens/deleted"), [])

    def test_purged_after_its_days_and_with_its_account(self):
        self.delete()
        call_command("purge", verbosity=0)
        self.assertTrue(Garden.with_deleted.filter(pk=self.garden.pk).exists())
        long_ago = timezone.now() - KEPT_DELETED - dt.timedelta(hours=1)
        Garden.with_deleted.filter(pk=self.garden.pk).update(deleted_at=long_ago)
        call_command("purge", verbosity=0)
        self.assertFalse(Garden.with_deleted.filter(pk=self.garden.pk).exists())
        Garden.with_deleted.filter(pk=self.theirs.pk).update(deleted_at=timezone.now())
        self.other.delete()
        self.assertFalse(Thing.objects.filter(garden_id=self.theirs.pk).exists())

    def test_no_more_are_kept_than_so_many_and_none_comes_back_over_what_is_allowed(self):
        for _ in range(MOST_DELETED + 3):
            made = self.call("post", "gardens", {"name": "Spare"})["id"]
            self.call("delete", f"gardens/{made}")
        kept = self.call("get", "gardens/deleted")
        self.assertEqual(len(kept), MOST_DELETED)
        self.assertEqual(kept[0]["id"], made, "the last deleted is first")
        document = self.garden.document
        room = MOST_GARDENS - Garden.objects.filter(owner=self.garden.owner).count()
        Garden.objects.bulk_create(Garden(owner=self.garden.owner, document=document) for _ in range(room))
        self.refused("post", f"gardens/{made}/restore", {}, "gardens", str(MOST_GARDENS))
