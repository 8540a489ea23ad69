"""The application as it is really served: a production server in a process of its own, with its own home."""

from __future__ import annotations

import gzip
import json
import socket
import stat
import unittest
from http.client import HTTPConnection, HTTPResponse

import brotli

from trials.served import PATIENCE, ROOT, served


class ServingTest(unittest.TestCase):
    """Starts the server once; every test only reads."""

    @classmethod
    def setUpClass(cls) -> None:
        cls.port, cls.home = cls.enterClassContext(served())

    def ask(
        self, path: str, method: str = "GET", body: bytes | None = None, **headers: str
    ) -> tuple[HTTPResponse, bytes]:
        """Send one request; return the answer and its body as it came."""
        connection = HTTPConnection("127.0.0.1", self.port, timeout=PATIENCE)
        self.addCleanup(connection.close)
        connection.request(
            method, path, body, {name.replace("_", "-"): value for name, value in headers.items()}
        )
        answer = connection.getresponse()
        return answer, answer.read()

    def entry(self) -> str:
        """Return the address of the client's first script."""
        manifest = json.loads(
            (ROOT / "client" / "dist" / ".vite" / "manifest.json").read_text(encoding="utf-8")
        )
        return f"/static/{next(item['file'] for item in manifest.values() if item.get('isEntry'))}"

    def test_the_client_is_hashed_compressed_and_kept_for_good(self):
        for coding, unpack in (("br", brotli.decompress), ("gzip", gzip.decompress)):
            answer, body = self.ask(self.entry(), Accept_Encoding=coding)
            self.assertEqual((answer.status, answer.getheader("Content-Encoding")), (200, coding))
            self.assertIn("immutable", answer.getheader("Cache-Control"))
            plain = self.ask(self.entry())[1]
            self.assertEqual(unpack(body), plain)
            self.assertLess(len(body), len(plain) / 2)

    def test_what_draws_in_the_round_comes_when_it_is_looked_at_and_not_with_every_page(self):
        dist = ROOT / "client" / "dist"
        manifest = json.loads((dist / ".vite" / "manifest.json").read_text(encoding="utf-8"))

        def needed(name: str) -> set[str]:
            return {name}.union(*(needed(each) for each in manifest[name].get("imports", [])))

        def draws(name: str) -> bool:
            files = (dist / manifest[each]["file"] for each in needed(name))
            return any("WebGLRenderer" in file.read_text(encoding="utf-8") for file in files)

        self.assertTrue(draws("src/features/bench/Round.tsx"))
        for name, item in manifest.items():
            if item.get("isEntry") or name.endswith("Page.tsx"):
                self.assertFalse(draws(name), name)

    def test_the_page_is_asked_for_each_time_and_names_only_its_own_files(self):
        answer, body = self.ask("/structures/1")
        self.assertEqual((answer.status, answer.getheader("Cache-Control")), (200, "no-cache"))
        self.assertIn(self.entry().encode(), body)
        policy = answer.getheader("Content-Security-Policy")
        self.assertRegex(policy, r"script-src 'self'(;|$)")
        self.assertNotIn("unsafe", policy)
        self.assertEqual(answer.getheader("X-Frame-Options"), "DENY")
        self.assertEqual(answer.getheader("Referrer-Policy"), "same-origin")
        self.assertEqual(answer.getheader("X-Content-Type-Options"), "nosniff")

    def test_what_is_not_there_is_404(self):
        self.assertEqual(self.ask("/static/assets/gone-12345678.js")[0].status, 404)
        self.assertEqual(self.ask("/api/nowhere")[0].status, 404)

    def test_a_host_that_is_not_ours_is_refused(self):
        self.assertEqual(self.ask("/", Host="elsewhere.example")[0].status, 400)

    def test_a_body_of_forty_megabytes_is_refused_before_it_is_read(self):
        with socket.create_connection(("127.0.0.1", self.port), timeout=PATIENCE) as line:
            line.sendall(
                b"POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Length: 40000000\r\n\r\n{"
            )
            self.assertIn(b"413", line.recv(4000).split(b"\r\n", 1)[0])

    def test_the_secret_is_made_once_and_closed_to_others(self):
        secret = self.home / "secret"
        self.assertGreaterEqual(len(secret.read_text()), 50)
        self.assertEqual(stat.S_IMODE(secret.stat().st_mode), 0o600)
        self.assertFalse(list(ROOT.glob("*.sqlite3")))
