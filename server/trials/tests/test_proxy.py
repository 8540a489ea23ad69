"""Behind a real TLS proxy with the configuration from the docs; two modes beside one another; many open lines
that say nothing.
"""

from __future__ import annotations

import json
import os
import re
import shutil
import signal
import socket
import ssl
import stat
import subprocess
import sys
import tempfile
import time
import unittest
from contextlib import ExitStack
from http.client import HTTPConnection, HTTPSConnection
from http.cookies import SimpleCookie
from pathlib import Path
from typing import Any

from config.serving import options

from trials.served import PATIENCE, ROOT, HttpVisit, demo_home, free_port, served, wait_for

NGINX = shutil.which("nginx") or shutil.which("nginx", path="/usr/sbin:/sbin")
_LINES = 130


def certificate(folder: Path) -> None:
    """Make a certificate for this machine that nobody else trusts."""
    words = [
        "openssl",
        "req",
        "-x509",
        "-newkey",
        "rsa:2048",
        "-nodes",
        "-days",
        "2",
        "-subj",
        "/CN=localhost",
        "-keyout",
        str(folder / "key"),
        "-out",
        str(folder / "pem"),
    ]
    subprocess.run(words, check=True, capture_output=True, timeout=60)


@unittest.skipUnless(NGINX and shutil.which("openssl"), "nginx is not installed")
class ProxyTest(unittest.TestCase):
    """The worked configuration of docs/serving, with the ports and files of this test."""

    @classmethod
    def setUpClass(cls) -> None:
        cls.plain, cls.secure = free_port(), free_port()
        origin = f"https://localhost:{cls.secure}"
        told = {
            "ASCENT_HTTPS": "1",
            "ASCENT_PROXY": "127.0.0.1",
            "ASCENT_HOSTS": "localhost",
            "ASCENT_ORIGINS": origin,
        }
        cls.port, _ = cls.enterClassContext(served(with_client=False, **told))
        folder = Path(cls.enterClassContext(tempfile.TemporaryDirectory()))
        certificate(folder)
        text = (ROOT / "docs" / "serving" / "nginx.conf").read_text(encoding="utf-8")
        for old, new in (
            ("listen 80;", f"listen 127.0.0.1:{cls.plain};"),
            ("listen 443 ssl;", f"listen 127.0.0.1:{cls.secure} ssl;"),
            ("/etc/ssl/ascent.pem", str(folder / "pem")),
            ("/etc/ssl/ascent.key", str(folder / "key")),
            ("127.0.0.1:8000", f"127.0.0.1:{cls.port}"),
            ("events {", f"pid {folder}/pid; error_log {folder}/error.log; daemon off;\nevents {{"),
            (
                "http {",
                f"http {{ access_log off; client_body_temp_path {folder}/body; "
                f"proxy_temp_path {folder}/proxy; "
                f"fastcgi_temp_path {folder}/f; uwsgi_temp_path {folder}/u; scgi_temp_path {folder}/s;",
            ),
        ):
            assert old in text, old
            text = text.replace(old, new)
        (folder / "nginx.conf").write_text(text, encoding="utf-8")
        process = subprocess.Popen(
            [str(NGINX), "-c", str(folder / "nginx.conf"), "-e", str(folder / "error.log")],
            stderr=subprocess.DEVNULL,
        )
        cls.addClassCleanup(process.wait, 10)
        cls.addClassCleanup(process.terminate)
        wait_for(cls.secure)

    def ask(
        self, method: str, path: str, body: Any = None, cookies: SimpleCookie | None = None, **headers: str
    ) -> tuple[Any, bytes]:
        """Send one request through the proxy."""
        context = ssl.create_default_context()
        context.check_hostname, context.verify_mode = False, ssl.CERT_NONE
        connection = HTTPSConnection("127.0.0.1", self.secure, timeout=PATIENCE, context=context)
        self.addCleanup(connection.close)
        sent = {
            "Host": f"localhost:{self.secure}",
            "Content-Type": "application/json",
            **{k.replace("_", "-"): v for k, v in headers.items()},
        }
        if cookies:
            sent["Cookie"] = "; ".join(f"{key}={value.value}" for key, value in cookies.items())
            sent["X-CSRFToken"] = cookies["csrftoken"].value
            sent["Referer"] = f"https://localhost:{self.secure}/"
        connection.request(method, path, json.dumps(body) if body is not None else None, sent)
        answer = connection.getresponse()
        for name, value in answer.getheaders():
            if cookies is not None and name.lower() == "set-cookie":
                cookies.load(value)
        return answer, answer.read()

    def test_one_comes_in_and_saves_without_being_sent_round(self):
        cookies: SimpleCookie = SimpleCookie()
        answer, _ = self.ask("GET", "/")
        self.assertEqual(answer.status, 200, "no redirect for ever")
        self.assertIn("max-age=", answer.getheader("Strict-Transport-Security"))
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                self.assertIn("Secure", value)
                cookies.load(value)
        edits = {"edits": [{"kind": "place", "change": {"currency": "eur"}}]}
        answer, body = self.ask("POST", "/api/gardens/1/edits", edits, cookies)
        self.assertEqual(answer.status, 200, body[:300])

    def test_plain_http_is_sent_on_once(self):
        connection = HTTPConnection("127.0.0.1", self.plain, timeout=PATIENCE)
        self.addCleanup(connection.close)
        connection.request("GET", "/account", headers={"Host": "localhost"})
        answer = connection.getresponse()
        self.assertEqual((answer.status, answer.getheader("Location")), (301, "https://localhost/account"))

    def test_what_a_visitor_claims_is_not_believed_and_its_own_address_counts(self):
        cookies: SimpleCookie = SimpleCookie()
        answer, _ = self.ask("GET", "/", cookies=None)
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                cookies.load(value)
        found = []
        for n in range(9):
            answer, _ = self.ask(
                "POST",
                "/api/session",
                {"name": "owner", "password": "guess"},
                cookies,
                X_Forwarded_For=f"203.0.113.{n}",
                X_Forwarded_Proto="http",
            )
            found.append(answer.status)
        self.assertEqual(found[-1], 429, f"a new claim each time: {found}")

    def test_without_the_proxy_its_headers_are_worth_nothing(self):
        """Straight to the server from another address of this machine: it is not the proxy, so it is sent to
        HTTPS.
        """
        with socket.create_connection(
            ("127.0.0.1", self.port), timeout=10, source_address=("127.0.0.2", 0)
        ) as line:
            line.sendall(
                b"GET /api/session HTTP/1.1\r\nHost: localhost\r\n"
                b"X-Forwarded-Proto: https\r\nConnection: close\r\n\r\n"
            )
            self.assertIn(b" 301 ", line.recv(4000).split(b"\r\n", 1)[0])

    def test_another_host_is_refused(self):
        answer, _ = self.ask("GET", "/", Host="elsewhere.example")
        self.assertEqual(answer.status, 400)


class TwoModesTest(unittest.TestCase):
    def test_the_demo_never_shows_a_letter_of_the_other_mode(self):
        """Both installations in one home: an account of the real one asks for a new password; the demo's page
        shows nothing of it.
        """
        with tempfile.TemporaryDirectory() as folder, ExitStack() as stack:
            environment = demo_home(folder, with_client=False)
            real = {**environment, "ASCENT_MODE": "serve"}
            manage = [sys.executable, str(ROOT / "server" / "manage.py")]
            subprocess.run([*manage, "migrate", "-v0"], env=real, check=True, timeout=120)
            words = (
                "from django.contrib.auth import get_user_model as u; "
                "u().objects.create_user('mara', 'mara@example.org', 'tall-beans-9')"
            )
            subprocess.run([*manage, "shell", "-v0", "-c", words], env=real, check=True, timeout=120)
            ports = {}
            for mode, told in (("demo", environment), ("serve", real)):
                ports[mode] = free_port()
                command = [sys.executable, "-m", "config.serving", "--port", str(ports[mode])]
                process = subprocess.Popen(command, cwd=ROOT / "server", env=told, stderr=subprocess.DEVNULL)
                stack.callback(process.wait, 10)
                stack.callback(process.terminate)
            visits = {}
            for mode, port in ports.items():
                wait_for(port)
                visits[mode] = HttpVisit(port)
            self.assertEqual(
                visits["serve"].ask("POST", "/api/account/reset", {"mail": "mara@example.org"})[0], 200
            )
            box = Path(folder) / "mail" / "serve"
            for _ in range(100):
                if box.exists() and list(box.glob("*.eml")):
                    break
                time.sleep(0.05)
            (letter,) = box.glob("*.eml")
            self.assertEqual(
                (stat.S_IMODE(box.stat().st_mode), stat.S_IMODE(letter.stat().st_mode)), (0o700, 0o600)
            )
            status, body = visits["demo"].ask("GET", "/api/letters")
            self.assertEqual((status, json.loads(body)), (200, []))
            token = re.search(r"/reset/\S+", letter.read_text())[0]
            self.assertNotIn(token, visits["demo"].ask("GET", "/")[1].decode())
            self.assertEqual(visits["serve"].ask("GET", "/api/letters")[0], 404)


class LinesTest(unittest.TestCase):
    def test_many_lines_that_say_nothing_keep_no_newcomer_waiting(self):
        """More than the server's threads, and more than its usual number of lines; each has said half a
        request.
        """
        with served(with_client=False) as (port, _), ExitStack() as stack:
            self.assertEqual(self.newcomer(port, PATIENCE), 200, "it has started")
            for _ in range(_LINES):
                line = stack.enter_context(socket.create_connection(("127.0.0.1", port), timeout=10))
                line.sendall(b"GET /api/session HTTP/1.1\r\nHost: localhost\r\nX-Slow: ")
            before_they_are_closed = options()["channel_timeout"] * 0.75
            self.assertEqual(self.newcomer(port, before_they_are_closed), 200)

    def newcomer(self, port: int, patience: float) -> int:
        """Ask as somebody who has just come; return the status of the answer."""
        connection = HTTPConnection("127.0.0.1", port, timeout=patience)
        self.addCleanup(connection.close)
        connection.request("GET", "/api/session")
        return connection.getresponse().status


class StopTest(unittest.TestCase):
    def test_told_to_stop_the_command_takes_its_server_with_it(self):
        """The one command as anybody runs it, told to stop as a service manager does."""
        with tempfile.TemporaryDirectory() as folder:
            environment = {**os.environ, "ASCENT_HOME": folder}
            environment.pop("ASCENT_MODE", None)
            port = free_port()
            process = subprocess.Popen(
                [sys.executable, str(ROOT / "ascent"), "demo", "--port", str(port)],
                env=environment,
                stdout=subprocess.DEVNULL,
            )
            wait_for(port)
            process.send_signal(signal.SIGTERM)
            self.assertEqual(process.wait(10), 0)
            with socket.socket() as line:
                self.assertNotEqual(line.connect_ex(("127.0.0.1", port)), 0)
