"""The data file: its pragmas, and many writers at once."""

from __future__ import annotations

import json
import threading

from django.contrib.auth import get_user_model
from django.db import connection, connections
from django.test import Client, TransactionTestCase

from gardens.models import Thing

from .support import demo_garden


class DatabaseTest(TransactionTestCase):
    def test_pragmas(self):
        with connection.cursor() as cursor:
            found = {}
            for name in ("journal_mode", "synchronous", "foreign_keys", "busy_timeout"):
                found[name] = cursor.execute(f"PRAGMA {name}").fetchone()[0]
        self.assertEqual(
            found, {"journal_mode": "wal", "synchronous": 2, "foreign_keys": 1, "busy_timeout": 5000}
        )

    def test_of_two_saves_from_one_revision_one_wins_and_one_is_told(self):
        user = get_user_model().objects.create_user("mara")
        demo_garden(user)
        structure = Thing.objects.filter(kind="structure").first()
        path = f"/api/structures/{structure.pk}"
        client = Client()
        client.force_login(user)
        out = client.get(path).json()
        answers: list[int] = []

        def save(name: str) -> None:
            own = Client()
            own.force_login(user)
            body = {"draft": {**out["draft"], "name": name}, "revision": out["revision"]}
            answers.append(own.put(path, json.dumps(body), content_type="application/json").status_code)
            connections.close_all()

        threads = [threading.Thread(target=save, args=(f"name {n}",)) for n in range(6)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        self.assertEqual(sorted(answers), [200] + [409] * 5)
        structure.refresh_from_db()
        self.assertEqual(structure.revision, out["revision"] + 1)
