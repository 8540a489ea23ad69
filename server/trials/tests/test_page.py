"""The page that carries the client: policy, caching, and the demo's way in."""

from __future__ import annotations

from django.core.management import call_command
from django.test import TestCase, override_settings


class PageTest(TestCase):
    def test_every_address_of_the_client_answers_with_the_page(self):
        for path in ("/", "/gardens/1", "/structures/3/parts", "/nowhere"):
            answer = self.client.get(path)
            self.assertEqual(answer.status_code, 200)
            self.assertContains(answer, '<div id="root">')
            self.assertEqual(answer["Cache-Control"], "no-cache")

    def test_no_inline_script_and_no_foreign_source(self):
        answer = self.client.get("/")
        policy = answer["Content-Security-Policy"]
        self.assertIn("script-src 'self';", policy + ";")
        self.assertNotIn("unsafe", policy)
        self.assertNotContains(answer, "http")
        self.assertNotContains(answer, "<script>")

    def test_outside_the_demo_nobody_is_signed_in_by_looking(self):
        call_command("demo")
        self.client.get("/")
        self.assertEqual(self.client.get("/api/gardens").status_code, 401)

    @override_settings(DEMO=True)
    def test_the_demo_enters_without_a_password(self):
        call_command("demo")
        self.client.get("/")
        self.assertEqual([g["name"] for g in self.client.get("/api/gardens").json()], ["Lantern Quay"])
