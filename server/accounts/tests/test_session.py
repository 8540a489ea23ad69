"""Signing in and out: CSRF always, one form of refusal."""

from __future__ import annotations

import json

from django.contrib.auth import get_user_model
from django.test import Client, TestCase


class SessionTest(TestCase):
    @classmethod
    def setUpTestData(cls) -> None:
        get_user_model().objects.create_user("mara", password="tall-beans-9")

    def send(self, body, **headers):
        return self.client.post("/api/session", json.dumps(body), content_type="application/json", **headers)

    def test_in_and_out(self):
        self.assertIsNone(self.client.get("/api/session").json()["name"])
        self.assertEqual(self.send({"name": "mara", "password": "tall-beans-9"}).json(), {"name": "mara", "demo": False})
        self.assertEqual(self.client.get("/api/gardens").status_code, 200)
        self.assertIsNone(self.client.delete("/api/session").json()["name"])
        self.assertEqual(self.client.get("/api/gardens").status_code, 401)

    def test_wrong_password_and_malformed(self):
        answer = self.send({"name": "mara", "password": "guess"})
        self.assertEqual((answer.status_code, answer.json()["problems"][0]["path"]), (401, "password"))
        for body in ({}, [], "x", {"name": "mara"}):
            self.assertEqual(self.send(body).status_code, 422)

    def test_csrf_covers_signing_in_and_every_write(self):
        self.client = Client(enforce_csrf_checks=True)
        self.assertEqual(self.send({"name": "mara", "password": "tall-beans-9"}).status_code, 403)
        self.client.get("/")
        token = self.client.cookies["csrftoken"].value
        self.assertEqual(self.send({"name": "mara", "password": "tall-beans-9"}, HTTP_X_CSRFTOKEN=token).status_code, 200)
        bare = self.client.post("/api/quantities/read", json.dumps({"text": "1 m", "kind": "length"}), content_type="application/json")
        self.assertEqual(bare.status_code, 403)
