"""The demo served on a free port with a home of its own, for tests, for measuring and for taking pictures."""

from __future__ import annotations

import fcntl
import json
import os
import shutil
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from http.client import HTTPConnection
from http.cookies import SimpleCookie
from pathlib import Path
from typing import Any

ROOT = Path(__file__).resolve().parent.parent.parent
MADE_ONCE = "ASCENT_DEMO_MADE_ONCE"  # names the folder in which the tests' processes share what they made
PATIENCE = 60.0  # s; a machine with other work answers late, one that hangs never does


def demo_home(home: str, *, with_client: bool = True) -> dict[str, str]:
    """Put a demo into a home; return the environment that a process needs to use it.

    The tests make it once and copy it.
    """
    path = f"{ROOT / 'core'}{os.pathsep}{ROOT / 'server'}"
    environment = {**os.environ, "ASCENT_HOME": home, "ASCENT_MODE": "demo", "PYTHONPATH": path}
    kept = os.environ.get(MADE_ONCE)
    if not kept:
        _make_demo(environment, with_client)
        return environment
    made = Path(kept) / ("whole" if with_client else "bare")
    with (Path(kept) / "lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not made.exists():
            aside = made.with_suffix(".part")
            _make_demo({**environment, "ASCENT_HOME": str(aside)}, with_client)
            aside.rename(made)
    shutil.copytree(made, home, dirs_exist_ok=True)
    return environment


def _make_demo(environment: dict[str, str], with_client: bool) -> None:
    steps = [["migrate", "-v0"], *([["collectstatic", "--noinput", "-v0"]] if with_client else []), ["demo"]]
    for words in steps:
        subprocess.run(
            [sys.executable, str(ROOT / "server" / "manage.py"), *words],
            env=environment,
            check=True,
            timeout=120,
        )


def free_port() -> int:
    """Return a port that nothing uses now."""
    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        return int(free.getsockname()[1])


class HttpVisit:
    """A kept connection, let in as the demo."""

    def __init__(self, port: int) -> None:
        self.connection = HTTPConnection("127.0.0.1", port, timeout=PATIENCE)
        self.cookies: SimpleCookie = SimpleCookie()
        self.ask("GET", "/")

    def ask(self, method: str, path: str, body: Any = None, mark: str = "") -> tuple[int, bytes]:
        """Send one request, known by its mark where it comes twice; return status and body of the answer."""
        headers = {
            "Cookie": "; ".join(f"{key}={value.value}" for key, value in self.cookies.items()),
            "Content-Type": "application/json",
        }
        if mark:
            headers["Ascent-Mark"] = mark
        if "csrftoken" in self.cookies:
            headers["X-CSRFToken"] = self.cookies["csrftoken"].value
        self.connection.request(method, path, json.dumps(body) if body is not None else None, headers)
        answer = self.connection.getresponse()
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                self.cookies.load(value)
        return answer.status, answer.read()


@contextmanager
def served(*, with_client: bool = True, **more: str) -> Iterator[tuple[int, Path]]:
    """Serve a fresh demo and yield its port and its home; nothing of it is kept.

    Args:
        with_client: Whether the client's files are served, too.
        more: What else is in its environment.
    """
    port = free_port()
    with tempfile.TemporaryDirectory() as home:
        environment = {**demo_home(home, with_client=with_client), **more}
        command = [sys.executable, "-m", "config.serving", "--port", str(port)]
        process = subprocess.Popen(
            command,
            cwd=ROOT / "server",
            env=environment,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        try:
            wait_for(port)
            yield port, Path(home)
        finally:
            process.terminate()
            process.wait(10)


def wait_for(port: int) -> None:
    """Wait until something listens on a port, at most 60 s."""
    for _ in range(600):
        try:
            with socket.create_connection(("127.0.0.1", port), timeout=2):
                return
        except OSError:
            time.sleep(0.1)
    raise SystemExit("the server did not start")
